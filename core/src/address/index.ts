export * from './canonical';
export * from './read';
