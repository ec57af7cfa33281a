import { LRUCache } from 'lru-cache';
import { GivenUp } from '../apart/workshop';
import { fetchGuarded, type FetchRules } from '../fetching/fetcher';
import type { FileStore } from '../files/files';
import { type Darkrooms, isDrawing } from './pictures';
import type { Rewritten } from './rewrite-picture';

const FILE_LIMIT = 500_000;
const LIMIT_MS = 1000;
/** A text does not wait longer for it. */
const FETCH_MS = 3000;
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

/** Where a site's icon stands that its pages do not link to (HTML Living Standard, link type "icon"); null for what is on no site. */
export const usualIconOf = (address: string): string | null =>
  /^https?:/.test(address) ? new URL('/favicon.ico', address).href : null;

/** The icons of sites, small and written again; nothing waits long for one. */
export function createSiteIcons(darkrooms: Darkrooms, files: FileStore, rules: Rules): SiteIcons {
  const remembered = new LRUCache<string, Promise<Uint8Array>>(REMEMBERED);
  const timeoutMs = Math.min(rules.timeoutMs, FETCH_MS);

  async function made(url: string): Promise<Uint8Array> {
    const accept = 'image/png,image/*;q=0.8';
    const answer = await fetchGuarded(url, { ...rules, timeoutMs, accept, maxBytes: FILE_LIMIT });
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
    // Many pages of a site may come at once: they wait for the same.
    const making = remembered.get(url) ?? made(url);
    remembered.set(url, making);
    const icon = await making.catch((error: unknown) => {
      remembered.delete(url);
      throw error;
    });
    return icon === NONE ? null : { hash: await files.put(Buffer.from(icon)), bytes: icon.length };
  };
}
