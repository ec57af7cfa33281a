export * from './anchor';
export * from './passage';
