export * from './article';
export { checkArrival } from './came-through';
export * from './join';
export * from './markdown';
export * from './pdf-text';
export * from './formats';
export { PageTooLarge } from './page-tree';
