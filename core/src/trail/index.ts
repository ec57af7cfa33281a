export * from './trail';
