export * from './place';
