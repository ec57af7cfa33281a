export * from './echo-index';
export * from './echoes';
