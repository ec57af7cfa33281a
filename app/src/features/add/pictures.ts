import { fileAddress } from '@dorvel/core/address';
import { type GivenText, inBase64, inBase64Url, isPushable, MAX_PICTURES, MAX_PUSHED_SIZE } from '@dorvel/core/model';
import escapeHtml from 'escape-html';
import type { ToSave } from '@/device/store/changes';

/** Pictures as the browser's file dialog wants them. */
export const PICTURE_FILES = 'image/*';
const ENDINGS = /\.(?:png|jpe?g|gif|webp|bmp|avif|heic|heif|tiff?|svg)$/i;

/** Whether a file is a picture, by what the browser or its name says. */
export const isPicture = ({ type, name }: Pick<File, 'type' | 'name'>): boolean =>
  type.startsWith('image/') || ENDINGS.test(name);

/** A picture made ready to be sent: upright, no larger than it is kept, without what the camera wrote into it. */
export interface ReadyPicture {
  name: string;
  bytes: Uint8Array;
  type: 'image/webp' | 'image/jpeg' | 'image/png';
}

/** As large as a telephone takes it: no more pixels are kept. */
const WHOLE_PIXELS = 12_000_000;
/** From all of it down to what many pages in one item leave room for. */
const TRIES = [
  { side: Infinity, quality: 0.92 },
  { side: Infinity, quality: 0.8 },
  { side: 3400, quality: 0.8 },
  { side: 2600, quality: 0.9 },
  { side: 2600, quality: 0.75 },
  { side: 2000, quality: 0.7 },
  { side: 1600, quality: 0.6 },
  { side: 1200, quality: 0.5 },
] as const;
type Try = (typeof TRIES)[number];

/** Why a picture cannot be taken, in words. */
export class NotAPicture extends Error {
  override readonly name = 'NotAPicture';
}

/** How the making of pictures is followed, and ended. */
export interface Making {
  signal?: AbortSignal;
  /** Told how many of them are ready; fewer again when all are made smaller. */
  onReady?: (count: number) => unknown;
}

/**
 * Makes one item of pictures, in their order.
 *
 * @throws NotAPicture with what to do; what the signal was ended with
 */
export async function pictureRequest(files: readonly File[], making: Making = {}): Promise<ToSave & { shown: string }> {
  if (files.length > MAX_PICTURES)
    throw new NotAPicture(`One item takes ${MAX_PICTURES} pictures. Save the others as another.`);
  for (const how of TRIES) {
    const pictures = await readyPictures(files, how, making);
    const given = pictures && givenOfPictures(pictures);
    if (!given || !isPushable(given.body)) continue;
    const hash = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(given.body));
    const [first] = files;
    const shown = files.length === 1 ? (first?.name ?? 'A picture') : `${files.length} pictures in one item`;
    return { address: fileAddress(inBase64Url(new Uint8Array(hash))), shown, given, howMuch: 'picture' };
  }
  throw new NotAPicture('Together they are more than can be sent at once. Save them as two items.');
}

/** Pages of one item are about alike: when the first ones say that all would be so many times too much, the others are not made. */
const TOO_MUCH = 1.3;

/** Pictures of one size and quality; null as soon as they are more than can be sent. One at a time: a phone has no room for many. */
async function readyPictures(files: readonly File[], { side, quality }: Try, { signal, onReady }: Making) {
  const ready: ReadyPicture[] = [];
  let size = 0;
  for (const file of files) {
    signal?.throwIfAborted();
    onReady?.(ready.length);
    const bitmap = await bitmapOf(file);
    try {
      const picture = await drawn(bitmap, file.name, side, quality);
      ready.push(picture);
      // As base64.
      size += (4 / 3) * picture.bytes.length;
      const inAll = (size / ready.length) * files.length;
      if (size > MAX_PUSHED_SIZE || inAll > TOO_MUCH * MAX_PUSHED_SIZE) return null;
    } finally {
      bitmap.close();
    }
  }
  return ready;
}

async function bitmapOf(file: File): Promise<ImageBitmap> {
  try {
    return await createImageBitmap(await asRaster(file), { imageOrientation: 'from-image' });
  } catch (_notRead) {
    throw new NotAPicture(
      /hei[cf]/i.test(file.type + file.name)
        ? `${file.name} is of a kind (HEIC) that this browser cannot read. Have the phone save it as JPEG, and choose it again.`
        : `${file.name} cannot be read as a picture: it is damaged, or of a kind that this browser does not know.`,
    );
  }
}

/** A drawing has no pixels of its own; an image element draws it without its scripts and without fetching anything. */
async function asRaster(file: File): Promise<Blob | HTMLImageElement> {
  if (file.type !== 'image/svg+xml') return file;
  const address = URL.createObjectURL(file);
  try {
    const image = new Image(1600);
    image.src = address;
    await image.decode();
    return image;
  } finally {
    URL.revokeObjectURL(address);
  }
}

async function drawn(bitmap: ImageBitmap, name: string, side: number, quality: number): Promise<ReadyPicture> {
  const { width, height } = bitmap;
  const scale = Math.min(1, side / Math.max(width, height), Math.sqrt(WHOLE_PIXELS / (width * height)));
  const canvas = document.createElement('canvas');
  // Rounded down: a pixel too many would be one more than the server takes.
  canvas.width = Math.max(1, Math.floor(width * scale));
  canvas.height = Math.max(1, Math.floor(height * scale));
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  const made = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/webp', quality));
  if (!made) throw new NotAPicture(`${name} is too large for this browser. Make it smaller, and choose it again.`);
  // A browser that cannot write WebP writes PNG.
  const type = made.type === 'image/webp' ? 'image/webp' : 'image/png';
  return { name, bytes: new Uint8Array(await made.arrayBuffer()), type };
}

/** Pictures as one text that is given by hand, in their order: see givenPictures in core/extract. */
export function givenOfPictures(pictures: readonly ReadyPicture[]): GivenText {
  const [first] = pictures;
  const figures = pictures.map(
    ({ bytes, type, name }) =>
      `<figure><img src="data:${type};base64,${inBase64(bytes)}" alt="${escapeHtml(nameOf(name))}"></figure>`,
  );
  return {
    type: 'text/html',
    body: `<title>${escapeHtml(first ? nameOf(first.name) : '')}</title>${figures.join('')}`,
    encoding: 'utf8',
  };
}

/** A file's name without its ending; what a camera calls its pictures says nothing. */
function nameOf(file: string): string {
  const name = file.replace(/\.\w{2,5}$/, '').replace(/[_-]+/g, ' ');
  return /^(?:img|dsc|dscn|pxl|image|photo|picture|scan|blob)?[\s\d.()]*$/i.test(name) ? '' : name;
}
