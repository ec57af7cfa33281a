export * from './closeness';
export * from './related-index';
export * from './named-tags';
