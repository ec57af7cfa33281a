export * from './known';
