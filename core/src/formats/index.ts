export * from './discover';
export * from './epub';
export * from './feed';
export * from './opml';
export * from './highlights';
