export * from './due';
