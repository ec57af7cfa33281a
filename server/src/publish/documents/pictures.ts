import sharp from 'sharp';
import type { FileStore } from '../../files/files';

/** A picture as documents can have it. */
export interface DocumentPicture {
  hash: string;
  bytes: Buffer;
  type: 'jpg' | 'png';
  width: number;
  height: number;
}

const MAX_SIDE = 1600;
const JPEG_QUALITY = 82;

/**
 * A picture of the library as word processors and e-readers take it: JPEG, or PNG where it lets through what is behind it.
 *
 * @returns null when the file is not there or is no picture
 */
export async function documentPicture(files: FileStore, hash: string): Promise<DocumentPicture | null> {
  try {
    const bytes = await files.read(hash);
    if (!bytes) return null;
    const image = sharp(bytes).resize(MAX_SIDE, MAX_SIDE, { fit: 'inside', withoutEnlargement: true });
    // Whether each point of it is opaque takes as long as making it: asked only where there may be one that is not.
    const { hasAlpha } = await sharp(bytes).metadata();
    const isOpaque = !hasAlpha || (await sharp(bytes).stats()).isOpaque;
    const made = isOpaque ? image.jpeg({ quality: JPEG_QUALITY }) : image.png();
    const { data, info } = await made.toBuffer({ resolveWithObject: true });
    return { hash, bytes: data, type: isOpaque ? 'jpg' : 'png', width: info.width, height: info.height };
  } catch (_noPicture) {
    // Missing, or cut off on the disk: a document without it is better than none, and `doctor` tells of it.
    return null;
  }
}

const COVER = { width: 1200, height: 630 };

/**
 * The picture that stands for a page elsewhere: the one in front, over a band of the accent with the things of the dossier laid
 * end to end, as long as each takes.
 *
 * @param lead null for the band alone
 * @param minutes of each thing
 */
export async function coverPicture(
  files: FileStore,
  lead: string | null,
  minutes: readonly number[],
  { accent, on }: { accent: string; on: string },
): Promise<Buffer> {
  const all = minutes.reduce((sum, each) => sum + each, 0) || 1;
  const [gap, margin, band] = [8, 60, lead === null ? COVER.height : 150];
  const room = COVER.width - 2 * margin - gap * Math.max(0, minutes.length - 1);
  let x = margin;
  const y = COVER.height - band / 2 - 9;
  const strands = minutes.map((each) => {
    const width = Math.max(4, (each / all) * room);
    const strand = `<rect x="${x.toFixed(1)}" y="${y}" width="${width.toFixed(1)}" height="18" rx="9" fill="${on}"/>`;
    x += width + gap;
    return strand;
  });
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="${COVER.width}" height="${COVER.height}"><rect y="${COVER.height - band}" width="${COVER.width}" height="${band}" fill="${accent}"/>${strands.join('')}</svg>`;
  const picture = lead === null ? null : await documentPicture(files, lead);
  const ground = picture
    ? sharp(picture.bytes).resize(COVER.width, COVER.height, { fit: 'cover' })
    : sharp({ create: { ...COVER, channels: 3, background: accent } });
  return ground
    .composite([{ input: Buffer.from(drawn) }])
    .png()
    .toBuffer();
}
