export * from './inbox';
export * from './let-go';
export * from './order';
export * from './promises';
export * from './propose';
export * from './resurface';
export * from './slot';
export * from './stages';
