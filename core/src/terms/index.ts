export * from './key-phrases';
export * from './profile';
export * from './sketch';
export * from './stems';
export * from './stop-words';
export * from './words';
