export * from './strand';
