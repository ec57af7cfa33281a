export * from './days';
export * from './progress';
export * from './promises';
export * from './resurface';
export * from './sitting';
export * from './slot';
export * from './stages';
export * from './weeks';
