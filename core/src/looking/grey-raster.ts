/** A picture of one channel: lightness, row by row, 0 to 255. */
export interface GreyRaster {
  data: Uint8Array;
  width: number;
  height: number;
}
