import { LRUCache } from 'lru-cache';
import { GivenUp } from '../apart/workshop';
import { fetchGuarded, type FetchRules } from '../fetching/fetcher';
import type { FileStore } from '../files/files';
import { type Darkrooms, isDrawing } from './pictures';
import type { Rewritten } from './rewrite-picture';

const FILE_LIMIT = 500_000;
const LIMIT_MS = 1000;
/** Articles come from few sites: an icon is fetched once a day, whether there is one or not. */
const REMEMBERED = { max: 500, ttl: 24 * 3_600_000 };
const NONE = new Uint8Array();

type Rules = Omit<FetchRules, 'accept' | 'maxBytes'>;

/** The file of a site's icon. */
export interface SiteIcon {
  hash: string;
  bytes: number;
}

/** @returns null for what has none, or none that can be read */
export type SiteIcons = (url: string | null) => Promise<SiteIcon | null>;

/** The icons of sites, small and written again; nothing waits long for one. */
export function createSiteIcons(darkrooms: Darkrooms, files: FileStore, rules: Rules): SiteIcons {
  const remembered = new LRUCache<string, Uint8Array>(REMEMBERED);

  async function made(url: string): Promise<Uint8Array> {
    const answer = await fetchGuarded(url, { ...rules, accept: 'image/png,image/*;q=0.8', maxBytes: FILE_LIMIT });
    if (!answer.ok) return NONE;
    const room = isDrawing(answer.body) ? 'large' : 'small';
    try {
      const input = { bytes: answer.body, withThumbnail: false, isIcon: true, room };
      const rewritten = (await darkrooms[room].run('rewrite', input, LIMIT_MS)) as Rewritten;
      return rewritten === null || rewritten === 'too large' ? NONE : rewritten.full;
    } catch (error) {
      if (!(error instanceof GivenUp) || error.why === 'ended') throw error;
      return NONE;
    }
  }

  return async (url) => {
    if (url === null) return null;
    const icon = remembered.get(url) ?? (await made(url));
    remembered.set(url, icon);
    return icon === NONE ? null : { hash: await files.put(Buffer.from(icon)), bytes: icon.length };
  };
}
