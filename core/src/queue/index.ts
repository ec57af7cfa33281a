export * from './inbox';
export * from './let-go';
export * from './order';
export * from './promises';
export * from './resurface';
export * from './slot';
export * from './stages';
