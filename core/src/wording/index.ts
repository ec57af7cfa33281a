export * from './item-words';
export * from './reasons';
export * from './change-words';
export * from './reading-words';
export * from './outcomes';
export * from './input';
export * from './kinds';
export * from './trail-words';
