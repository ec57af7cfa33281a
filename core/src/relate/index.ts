export * from './closeness';
export * from './related-index';
export * from './suggest-tags';
