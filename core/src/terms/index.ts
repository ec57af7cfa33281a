export * from './profile';
