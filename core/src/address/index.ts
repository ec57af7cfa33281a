export * from './canonical';
export * from './read';
export * from './unwebbed';
