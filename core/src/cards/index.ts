export * from './gaps';
export * from './schedule';
export * from './worth';
