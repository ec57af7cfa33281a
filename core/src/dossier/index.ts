export * from './changed';
export * from './compile';
export * from './facts-table';
export * from './of-an-item';
export * from './order';
export * from './outline';
export * from './pictures';
export * from './plan';
