export * from './flows';
export * from './forecast';
