export * from './apply';
export * from './clock';
export * from './merge';
