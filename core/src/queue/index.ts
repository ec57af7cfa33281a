export * from './progress';
export * from './stages';
