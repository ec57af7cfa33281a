export * from './cards';
export * from './discover';
export * from './epub';
export * from './feed';
export * from './opml';
export * from './highlights';
export * from './highlight-table';
export * from './markdown';
