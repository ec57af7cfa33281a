export * from './choices';
export * from './rates';
export * from './voices';
