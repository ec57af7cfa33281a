export * from './colour-names';
export * from './colours';
export { chroma, oklab } from './colour-space';
export * from './raster';
