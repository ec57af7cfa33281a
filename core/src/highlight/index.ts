export * from './anchor';
export * from './knots';
export * from './notes-under';
export * from './passage';
