export * from './article';
export { checkArrival } from './came-through';
export * from './formats';
export { PageTooLarge } from './page-tree';
