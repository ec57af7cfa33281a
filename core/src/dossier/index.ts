export * from './compile';
export * from './facts-table';
export * from './order';
export * from './outline';
export * from './pictures';
