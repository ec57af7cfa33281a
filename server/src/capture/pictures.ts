import type { Element, Root } from 'hast';
import sharp from 'sharp';
import { fetchGuarded, type FetchRules } from './fetcher';
import type { FileStore } from './files';
import type { Attached } from './mime';

/** Pictures wider than this are scaled down: a phone's screen at three device pixels to the point. */
const WIDTH_LIMIT = 1280;
const THUMBNAIL_WIDTH = 160;
const PICTURES_PER_PAGE = 60;
const AT_ONCE = 3;
const PIXEL_LIMIT = 60_000_000;
const FILE_LIMIT = 20_000_000;

sharp.concurrency(1);
sharp.cache(false);

export interface KeptPictures {
  made: { hash: string; bytes: number }[];
  /** Of the lead picture, else of the first. */
  thumbnail: string | null;
  missing: number;
}

/**
 * Fetches a text's pictures, writes them anew as WebP of a size for a phone, and points the tree at our own
 * origin. A picture that does not come through keeps its place and its description, without a source.
 *
 * @param tree changed in place
 * @param attached pictures that came along with the text
 */
export async function keepPictures(
  tree: Root,
  leadImageUrl: string | null,
  files: FileStore,
  rules: Omit<FetchRules, 'accept' | 'maxBytes'>,
  attached: readonly Attached[] = [],
): Promise<KeptPictures> {
  const alongside = new Map(attached.map(({ address, body }) => [address, body]));
  const images = imagesIn(tree);
  const urls = [...new Set([...(leadImageUrl ? [leadImageUrl] : []), ...images.map(sourceOf)])].slice(
    0,
    PICTURES_PER_PAGE,
  );
  const kept = new Map<string, Picture>();
  const made: KeptPictures['made'] = [];
  let next = 0;
  const work = async () => {
    for (let url = urls[next++]; url !== undefined; url = urls[next++]) {
      const original = alongside.get(url) ?? inPlace(url) ?? (await fetched(url, rules));
      const picture = original
        ? await rewrite(Buffer.from(original), files, url === leadImageUrl || url === urls[0])
        : null;
      if (!picture) continue;
      kept.set(url, picture);
      made.push(...picture.files);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  let missing = 0;
  for (const image of images) {
    const picture = kept.get(sourceOf(image));
    if (picture) {
      Object.assign(image.properties, {
        src: `/api/pictures/${picture.hash}.webp`,
        width: picture.width,
        height: picture.height,
      });
    } else {
      missing++;
      delete image.properties.src;
    }
  }
  const lead = kept.get(leadImageUrl ?? '') ?? kept.get(urls[0] ?? '');
  return { made, thumbnail: lead?.thumbnail ?? null, missing };
}

async function fetched(url: string, rules: Omit<FetchRules, 'accept' | 'maxBytes'>): Promise<Buffer | null> {
  const answer = await fetchGuarded(url, {
    ...rules,
    accept: 'image/webp,image/png,image/jpeg,image/*;q=0.8',
    maxBytes: FILE_LIMIT,
  });
  return answer.ok ? answer.body : null;
}

/** A picture that stands in the page itself (RFC 2397). */
function inPlace(url: string): Buffer | null {
  const data = /^data:image\/\w+;base64,(.+)$/s.exec(url)?.[1];
  return data === undefined ? null : Buffer.from(data, 'base64');
}

interface Picture {
  hash: string;
  width: number;
  height: number;
  thumbnail: string | null;
  files: { hash: string; bytes: number }[];
}

async function rewrite(original: Buffer, files: FileStore, withThumbnail: boolean): Promise<Picture | null> {
  let full: { data: Buffer; info: sharp.OutputInfo };
  let small: Buffer | null;
  try {
    const source = sharp(original, { limitInputPixels: PIXEL_LIMIT, failOn: 'error' }).rotate();
    full = await source
      .clone()
      .resize({ width: WIDTH_LIMIT, withoutEnlargement: true })
      .webp({ quality: 78 })
      .toBuffer({ resolveWithObject: true });
    small = withThumbnail
      ? await source
          .clone()
          .resize({ width: THUMBNAIL_WIDTH, height: THUMBNAIL_WIDTH, fit: 'cover' })
          .webp({ quality: 70 })
          .toBuffer()
      : null;
  } catch {
    // Whatever sharp cannot read is no picture: the text keeps its description in its place.
    return null;
  }
  const hash = await files.put(full.data);
  const thumbnail = small && (await files.put(small));
  return {
    hash,
    width: full.info.width,
    height: full.info.height,
    thumbnail,
    files: [
      { hash, bytes: full.data.length },
      ...(small && thumbnail ? [{ hash: thumbnail, bytes: small.length }] : []),
    ],
  };
}

function imagesIn(tree: Root): Element[] {
  const images: Element[] = [];
  const visit = (node: Root['children'][number]) => {
    if (node.type !== 'element') return;
    if (node.tagName === 'img') images.push(node);
    node.children.forEach(visit);
  };
  tree.children.forEach(visit);
  return images;
}

function sourceOf(image: Element): string {
  return typeof image.properties.src === 'string' ? image.properties.src : '';
}
