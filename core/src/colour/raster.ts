/** A small picture, row by row: red, green and blue of each pixel in sRGB, 0 to 255. */
export interface Raster {
  data: Uint8Array;
  width: number;
  height: number;
}
