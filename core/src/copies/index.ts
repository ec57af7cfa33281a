export * from './compare';
export * from './replace';
export * from './tidy';
