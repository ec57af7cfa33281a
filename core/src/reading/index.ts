export * from './days';
export * from './pace';
export * from './progress';
export * from './session';
export * from './weeks';
