export * from './item-words';
export * from './reasons';
