export * from './look-back';
export * from './period';
export * from './subjects';
