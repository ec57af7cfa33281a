export * from './related-index';
