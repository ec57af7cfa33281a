export * from './client';
export { fileLine } from './told-file';
