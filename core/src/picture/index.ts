export * from './colour-names';
export * from './colours';
export * from './features';
export * from './kind';
export * from './likeness';
export * from './raster';
export * from './skew';
export * from './words';
