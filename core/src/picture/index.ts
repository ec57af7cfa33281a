export * from './alike';
export * from './in-words';
export * from './words';
