import sharp from 'sharp';

/** Pictures wider than this are scaled down: a phone's screen at three device pixels to the point. */
const WIDTH_LIMIT = 1280;
const THUMBNAIL_WIDTH = 160;
/** Four bytes each, and often twice. What stands in pages rarely has more than the first; a large photograph has the second. */
const PIXEL_LIMITS = { small: 8_000_000, large: 12_000_000 } as const;
/** JPEG can be made smaller while it is read, so that there is never all of it in memory. */
const JPEG_PIXEL_LIMIT = 60_000_000;

sharp.concurrency(1);
sharp.cache(false);

export interface PictureInput {
  bytes: Uint8Array;
  withThumbnail: boolean;
  room: keyof typeof PIXEL_LIMITS;
}

export interface RewrittenPicture {
  full: Uint8Array;
  width: number;
  height: number;
  thumbnail: Uint8Array | null;
}

export type Rewritten = RewrittenPicture | 'too large' | null;

/**
 * Writes a picture again as WebP of a size for a phone. Runs in a process of its own (tasks/pictures.child.ts): decoders of
 * pictures are large, old and fed by strangers.
 *
 * @returns null for what is no picture; `too large` for what has more pixels than are handled in its room
 */
export async function rewritePicture({ bytes, withThumbnail, room }: PictureInput): Promise<Rewritten> {
  try {
    const original = Buffer.from(bytes);
    const { format, width, height, isProgressive } = await sharp(original).metadata();
    // Whatever it looked like from outside: how long a drawing takes is in nobody's hand.
    if (format === 'svg' && room === 'small') return 'too large';
    const isStreamed = format === 'jpeg' && !isProgressive;
    if (width * height > (isStreamed ? JPEG_PIXEL_LIMIT : PIXEL_LIMITS[room])) return 'too large';
    const { data, info } = await sharp(original, { limitInputPixels: JPEG_PIXEL_LIMIT, failOn: 'error' })
      .rotate()
      .resize({ width: WIDTH_LIMIT, withoutEnlargement: true })
      .webp({ quality: 78 })
      .toBuffer({ resolveWithObject: true });
    // Of what was made, not of the original: that would be read a second time.
    const thumbnail = withThumbnail
      ? await sharp(data)
          .resize({ width: THUMBNAIL_WIDTH, height: THUMBNAIL_WIDTH, fit: 'cover' })
          .webp({ quality: 70 })
          .toBuffer()
      : null;
    return { full: data, width: info.width, height: info.height, thumbnail };
  } catch {
    // Whatever sharp cannot read is no picture: the text keeps its description in its place.
    return null;
  }
}
