export * from './dates';
export * from './has-words';
export * from './language';
export * from './parts';
export * from './plain';
export * from './reading-time';
export * from './sentences';
export * from './words';
