export * from './anchor';
export * from './api';
export * from './article';
export * from './ids';
export * from './item';
export * from './mutation';
export * from './problem';
export * from './tree-schema';
