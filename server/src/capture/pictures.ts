import type { PictureFacts } from '@dorvel/core/model';
import type { Element, Root } from 'hast';
import pLimit from 'p-limit';
import { visit } from 'unist-util-visit';
import { GivenUp, type Workshop } from '../apart/workshop';
import { fetchGuarded, type FetchRules } from '../fetching/fetcher';
import type { FileStore } from '../files/files';
import type { Lane } from '../jobs/queue';
import type { Attached } from './mime';
import type { PictureInput, Rewritten, RewrittenPicture } from './rewrite-picture';

const PICTURES_PER_PAGE = 60;
const AT_ONCE = 2;
const FILE_LIMIT = 12_000_000;
const LIMIT_MS = { small: 6000, large: 10_000 } as const;
/** In the quick lane, a drawing that is not done by then belongs into the long one. */
const QUICK_DRAWING_MS = 1000;
/** A page that has kept the decoders busy for so long has had its share. */
const PAGE_LIMIT_MS = 30_000;

/**
 * Where pictures are written again: the large ones, and drawings, of which nobody knows how long they take, apart from the
 * others.
 */
export type Darkrooms = Readonly<Record<Room, Workshop>>;
type Room = 'small' | 'large';

export interface KeptPictures {
  made: { hash: string; bytes: number }[];
  /** Of the lead picture, else of the first. */
  thumbnail: string | null;
  missing: number;
  /** The pictures of what is nothing but pictures, in order. */
  own: PictureFacts[];
}

interface KeepingOptions {
  darkrooms: Darkrooms;
  lane: Lane;
  /** Whether its reader has room for more. */
  mayKeep: boolean;
  /** Whether the pictures are what was saved, and no parts of a text. */
  areItself?: boolean;
}

/**
 * Fetches a text's pictures, has them written again as WebP of a size for a phone, and points the tree at our own
 * origin. A picture that does not come through, or takes too long, keeps its place and its description, without a
 * source.
 *
 * @param tree changed in place
 * @param attached pictures that came along with the text
 * @returns `long` for pictures that would hold up the quick lane
 */
export async function keepPictures(
  tree: Root,
  leadImageUrl: string | null,
  files: FileStore,
  rules: Omit<FetchRules, 'accept' | 'maxBytes'>,
  { darkrooms, lane, mayKeep, areItself = false }: KeepingOptions,
  attached: readonly Attached[] = [],
): Promise<KeptPictures | 'long'> {
  const alongside = new Map(attached.map(({ address, body }) => [address, body]));
  const images = imagesIn(tree);
  const urls = [...new Set([...(leadImageUrl ? [leadImageUrl] : []), ...images.map(sourceOf)])].slice(
    0,
    mayKeep ? PICTURES_PER_PAGE : 0,
  );
  const kept = new Map<string, Picture>();
  const made: KeptPictures['made'] = [];
  const rewrite = rewriter(darkrooms, lane, areItself);
  const limit = pLimit(AT_ONCE);
  const keep = async (url: string) => {
    const original = alongside.get(url) ?? inPlace(url) ?? (await fetched(url, rules));
    const rewritten = original && (await rewrite(original, url === leadImageUrl || url === urls[0]));
    if (!rewritten) return;
    const picture = await stored(rewritten, files);
    kept.set(url, picture);
    made.push(...picture.files);
  };
  try {
    await limit.map(urls, keep);
  } catch (error) {
    limit.clearQueue();
    if (error instanceof ForLongLane) return 'long';
    throw error;
  }
  const wanted = new Map(images.map((image) => [image, sourceOf(image)]));
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
  const own = areItself ? images.flatMap((image) => kept.get(wanted.get(image) ?? '')?.facts ?? []) : [];
  return { made, thumbnail: lead?.thumbnail ?? null, missing, own };
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
  facts: PictureFacts | null;
  files: { hash: string; bytes: number }[];
}

/** A drawing is XML with an `svg` in it, near its beginning (WHATWG MIME Sniffing knows no signature for it). */
export function isDrawing(bytes: Buffer): boolean {
  return bytes[0] === 0x1f || /^\s*(?:\ufeff)?<[\s\S]*<?svg/i.test(bytes.subarray(0, 4096).toString('utf8'));
}

/** A picture that is not for the quick lane. */
class ForLongLane extends Error {
  override readonly name = 'ForLongLane';
}

/** The rewriting of one page's pictures, until the page has had its share of the time. */
function rewriter(darkrooms: Darkrooms, lane: Lane, isItself: boolean) {
  let leftMs = PAGE_LIMIT_MS;
  const closed = new Set<Room>();
  const inRoom = async (room: Room, input: Omit<PictureInput, 'room'>): Promise<Rewritten> => {
    if (leftMs <= 0 || closed.has(room)) return null;
    const isTried = lane === 'quick' && room === 'large';
    try {
      const spent = (ms: number) => void (leftMs -= ms);
      const limitMs = isTried ? QUICK_DRAWING_MS : LIMIT_MS[room];
      return (await darkrooms[room].run('rewrite', { ...input, room }, limitMs, spent)) as Rewritten;
    } catch (error) {
      if (!(error instanceof GivenUp) || error.why === 'ended') throw error;
      if (isTried) throw new ForLongLane();
      // Where one is a trap, its like on the same page are too.
      closed.add(room);
      return null;
    }
  };
  return async (bytes: Buffer, withThumbnail: boolean): Promise<RewrittenPicture | null> => {
    const input = { bytes, withThumbnail, isItself };
    const made = await inRoom(isDrawing(bytes) ? 'large' : 'small', input);
    if (made !== 'too large') return made;
    if (lane === 'quick') throw new ForLongLane();
    const again = await inRoom('large', input);
    return again === 'too large' ? null : again;
  };
}

async function stored(rewritten: RewrittenPicture, files: FileStore): Promise<Picture> {
  const { full, width, height, sizes } = rewritten;
  const made: Picture['files'] = [];
  const put = async (bytes: Uint8Array) => {
    const hash = await files.put(Buffer.from(bytes));
    made.push({ hash, bytes: bytes.length });
    return hash;
  };
  const hash = await put(full);
  const thumbnail = rewritten.thumbnail && (await put(rewritten.thumbnail));
  const facts = sizes && {
    hash,
    small: await put(sizes.small),
    large: await put(sizes.large),
    width,
    height,
    seen: null,
  };
  return { hash, width, height, thumbnail, facts, files: made };
}

function imagesIn(tree: Root): Element[] {
  const images: Element[] = [];
  visit(tree, 'element', (node) => {
    if (node.tagName === 'img') images.push(node);
  });
  return images;
}

function sourceOf(image: Element): string {
  return typeof image.properties.src === 'string' ? image.properties.src : '';
}
