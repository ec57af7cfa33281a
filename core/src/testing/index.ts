export * from './changes';
export * from './notes';
