export * from './echo-index';
export * from './echoes';
export * from './excerpts';
