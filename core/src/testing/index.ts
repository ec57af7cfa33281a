export * from './changes';
