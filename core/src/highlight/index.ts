export * from './anchor';
export * from './knots';
export * from './passage';
