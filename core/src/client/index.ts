export * from './client';
