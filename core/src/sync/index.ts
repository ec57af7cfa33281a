export * from './clock';
export * from './protocol';
export * from './push';
export * from './restate';
