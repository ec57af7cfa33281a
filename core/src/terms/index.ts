export * from './profile';
export * from './stems';
export * from './stop-words';
