export * from './related';
export * from './suggest-tags';
