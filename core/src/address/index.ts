export * from './canonical';
export * from './read';
export * from './local';
export * from './host';
