export * from './anchor';
