export * from './article';
export { checkArrival } from './page/came-through';
export * from './page/join';
export { safeTree } from './tree/clean-tree';
export * from './documents/given-pictures';
export * from './documents/markdown';
export * from './documents/pdf-text';
export * from './documents/write-tree';
export { PageTooLarge } from './page/page-tree';
