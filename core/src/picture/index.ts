export * from './alike';
export * from './found-words';
export * from './in-words';
export * from './words';
