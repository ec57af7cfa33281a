export * from './features';
export * from './kind';
export * from './likeness';
export * from './grey-raster';
export { skewOf } from './skew';
export * from './without-shapes';
