import decodeIco from 'decode-ico';
import sharp, { type Sharp } from 'sharp';

/** Pictures wider than this are scaled down: a phone's screen at three device pixels to the point. */
const WIDTH_LIMIT = 1280;
const THUMBNAIL_WIDTH = 160;
const ICON_SIDE = 48;
/** Of what was saved for itself the whole of it is kept, up to what a telephone takes, and one small enough for a wall of them. */
const WHOLE_PIXELS = 12_000_000;
const SMALL = 480;
/** Four bytes each, and often twice. What stands in pages rarely has more than the first; a large photograph has the second. */
const PIXEL_LIMITS = { small: 8_000_000, large: 12_000_000 } as const;
/** JPEG can be made smaller while it is read, so that there is never all of it in memory. */
const JPEG_PIXEL_LIMIT = 60_000_000;

sharp.concurrency(1);
sharp.cache(false);

export interface PictureInput {
  bytes: Uint8Array;
  withThumbnail: boolean;
  /** Whether the picture is what was saved, and not a part of a text. */
  isItself?: boolean;
  /** Whether it is the icon of a site: all of it, small. */
  isIcon?: boolean;
  room: keyof typeof PIXEL_LIMITS;
}

export interface RewrittenPicture {
  full: Uint8Array;
  width: number;
  height: number;
  thumbnail: Uint8Array | null;
  /** Of a picture that was saved for itself. */
  sizes: { large: Uint8Array; small: Uint8Array } | null;
}

export type Rewritten = RewrittenPicture | 'too large' | null;

/**
 * Writes a picture again as WebP of a size for a phone. Runs in a process of its own (tasks/pictures.child.ts): decoders of
 * pictures are large, old and fed by strangers.
 *
 * @returns null for what is no picture; `too large` for what has more pixels than are handled in its room
 */
export async function rewritePicture({
  bytes,
  withThumbnail,
  isItself = false,
  isIcon = false,
  room,
}: PictureInput): Promise<Rewritten> {
  try {
    const original = isIcon ? await largestOfIco(Buffer.from(bytes)) : Buffer.from(bytes);
    const { format, width, height, isProgressive } = await sharp(original).metadata();
    // Whatever it looked like from outside: how long a drawing takes is in nobody's hand.
    if (format === 'svg' && room === 'small') return 'too large';
    const isStreamed = format === 'jpeg' && !isProgressive;
    if (width * height > (isStreamed ? JPEG_PIXEL_LIMIT : PIXEL_LIMITS[room])) return 'too large';
    const upright = () => sharp(original, { limitInputPixels: JPEG_PIXEL_LIMIT, failOn: 'error' }).rotate();
    if (isIcon) {
      const square = { width: ICON_SIDE, height: ICON_SIDE, fit: 'contain', background: '#0000' } as const;
      const { data, info } = await upright().resize(square).webp({ quality: 80 }).toBuffer({ resolveWithObject: true });
      return { full: data, width: info.width, height: info.height, thumbnail: null, sizes: null };
    }
    const large = isItself ? await within(upright(), longestSide(width, height), 90) : null;
    const { data, info } = await (large ? sharp(large) : upright())
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
    const sizes = large && { large, small: await within(sharp(data), SMALL, 74) };
    return { full: data, width: info.width, height: info.height, thumbnail, sizes };
  } catch {
    // Whatever sharp cannot read is no picture: the text keeps its description in its place.
    return null;
  }
}

/** An ICO file says so in its first bytes. More pictures than this are in none that is meant well. */
const ICO = Buffer.from([0, 0, 1, 0]);
const MOST_IN_ICO = 32;

/** The largest of the pictures in an ICO file, as a file that sharp reads; any other file as it is. */
async function largestOfIco(file: Buffer): Promise<Buffer> {
  if (!file.subarray(0, 4).equals(ICO) || file.length < 6 || file.readUInt16LE(4) > MOST_IN_ICO) return file;
  const [largest] = decodeIco(file).sort((a, b) => b.width - a.width || b.bpp - a.bpp);
  if (!largest) return file;
  const { type, data, width, height } = largest;
  return type === 'png'
    ? Buffer.from(data)
    : sharp(data, { raw: { width, height, channels: 4 } })
        .png()
        .toBuffer();
}

/** How long a picture may be for all of it to have no more pixels than are kept. */
function longestSide(width: number, height: number): number {
  return Math.floor(Math.max(width, height) * Math.min(1, Math.sqrt(WHOLE_PIXELS / (width * height))));
}

/** A picture no longer than that, either way. What was written into it besides is left out, where it was taken among it. */
function within(picture: Sharp, side: number, quality: number): Promise<Buffer> {
  return (
    picture
      .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
      // Less effort: half the time for a tenth more bytes.
      .webp({ quality, effort: 2 })
      .toBuffer()
  );
}
