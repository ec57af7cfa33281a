export * from './discover';
export * from './feed';
export * from './opml';
export * from './highlights';
