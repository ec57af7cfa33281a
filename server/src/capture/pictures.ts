import type { Element, Root } from 'hast';
import { GivenUp, type Workshop } from '../apart/workshop';
import { fetchGuarded, type FetchRules } from './fetcher';
import type { FileStore } from './files';
import type { Attached } from './mime';
import type { PictureInput, RewrittenPicture } from './rewrite-picture';

const PICTURES_PER_PAGE = 60;
const AT_ONCE = 2;
const FILE_LIMIT = 12_000_000;
const RASTER_LIMIT_MS = 6000;
const DRAWING_LIMIT_MS = 4000;
/** A page that has kept the decoders busy for so long has had its share. */
const PAGE_LIMIT_MS = 30_000;

/** Where pictures are written anew. Drawings apart from the others: how long one takes is in nobody's hand. */
export type Darkrooms = Readonly<Record<'raster' | 'drawing', Workshop>>;

export interface KeptPictures {
  made: { hash: string; bytes: number }[];
  /** Of the lead picture, else of the first. */
  thumbnail: string | null;
  missing: number;
}

/**
 * Fetches a text's pictures, has them written anew as WebP of a size for a phone, and points the tree at our own
 * origin. A picture that does not come through, or takes too long, keeps its place and its description, without a
 * source.
 *
 * @param tree changed in place
 * @param attached pictures that came along with the text
 */
export async function keepPictures(
  tree: Root,
  leadImageUrl: string | null,
  files: FileStore,
  rules: Omit<FetchRules, 'accept' | 'maxBytes'>,
  darkrooms: Darkrooms,
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
  const rewrite = rewriter(darkrooms);
  let next = 0;
  const work = async () => {
    for (let url = urls[next++]; url !== undefined; url = urls[next++]) {
      const original = alongside.get(url) ?? inPlace(url) ?? (await fetched(url, rules));
      const rewritten = original && (await rewrite(original, url === leadImageUrl || url === urls[0]));
      if (!rewritten) continue;
      const picture = await stored(rewritten, files);
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

/** A drawing is XML with an `svg` in it, near its beginning (WHATWG MIME Sniffing knows no signature for it). */
function isDrawing(bytes: Buffer): boolean {
  return bytes[0] === 0x1f || /^\s*(?:\ufeff)?<[\s\S]*<?svg/i.test(bytes.subarray(0, 4096).toString('utf8'));
}

/** The rewriting of one page's pictures, until the page has had its share of the time. */
function rewriter(darkrooms: Darkrooms) {
  let leftMs = PAGE_LIMIT_MS;
  const closed = new Set<keyof Darkrooms>();
  return async (original: Buffer, withThumbnail: boolean): Promise<RewrittenPicture | null> => {
    const kind = isDrawing(original) ? 'drawing' : 'raster';
    if (leftMs <= 0 || closed.has(kind)) return null;
    const input: PictureInput = { bytes: original, withThumbnail };
    const limitMs = kind === 'drawing' ? DRAWING_LIMIT_MS : RASTER_LIMIT_MS;
    try {
      const made = await darkrooms[kind].run('rewrite', input, limitMs, (ms) => (leftMs -= ms));
      return made as RewrittenPicture | null;
    } catch (error) {
      if (!(error instanceof GivenUp)) throw error;
      // Where one is a trap, its like on the same page are too.
      closed.add(kind);
      return null;
    }
  };
}

async function stored(rewritten: RewrittenPicture, files: FileStore): Promise<Picture> {
  const small = rewritten.thumbnail;
  const hash = await files.put(Buffer.from(rewritten.full));
  const thumbnail = small && (await files.put(Buffer.from(small)));
  return {
    hash,
    width: rewritten.width,
    height: rewritten.height,
    thumbnail,
    files: [
      { hash, bytes: rewritten.full.length },
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
