import { isOnWeb } from '@dorvel/core/address';
import { type Article, joinPages } from '@dorvel/core/extract';
import type { Cause, GivenText, HowMuch } from '@dorvel/core/model';
import { fetchGuarded, type FetchRules } from '../fetching/fetcher';
import { sameSite } from '../fetching/same-site';
import type { Lane } from '../jobs/queue';
import type { Extracted, Extractor } from './extractor';
import type { Attached } from './mime';

const PAGE_BYTES_LIMIT = 10_000_000;
/** Longer articles than this are not cut into pages; what goes on for longer is a listing. */
const MAX_PAGES = 25;

export interface Obtained {
  ok: true;
  article: Article;
  attached: Attached[];
  /** Where it was found in the end. */
  reached: string;
}
export interface NotObtained {
  ok: false;
  /** It is for the long lane; nothing else is known of it. */
  long?: true;
  cause: Cause;
  temporary: boolean;
  retryAfterMs: number | null;
  /** The page is not there any more. */
  gone: boolean;
}

export interface Sources {
  extractor: Extractor;
  lane: Lane;
  rules: Omit<FetchRules, 'accept' | 'maxBytes'>;
  /** Called before each further page of an article, counted from 1. */
  onPage(page: number): Promise<void>;
}

/** Fetches a page and takes it apart; of an article in several pages, all of them. */
export async function obtain(address: string, howMuch: HowMuch, sources: Sources): Promise<Obtained | NotObtained> {
  const first = await onePage(address, howMuch, sources);
  if (!first.ok) return first;
  const further: Article[] = [];
  const seen = new Set([first.reached]);
  let next = first.article.nextPageUrl;
  let missing: number | null = null;
  while (next && further.length < MAX_PAGES && sameSite(next, first.reached) && !seen.has(next)) {
    seen.add(next);
    await sources.onPage(further.length + 2);
    const page = await onePage(next, howMuch, sources);
    if (!page.ok && page.long) return page;
    if (!page.ok) {
      missing = further.length + 2;
      break;
    }
    further.push(page.article);
    next = page.article.nextPageUrl;
  }
  if (further.length === 0 && missing === null) return first;
  const article = joinPages(first.article, further);
  return { ...first, article: missing === null ? article : inPart(article, missing) };
}

function inPart(article: Article, missing: number): Article {
  const { signs } = article.cameThrough;
  return {
    ...article,
    cameThrough: {
      verdict: 'partial',
      signs: [...signs, { code: 'pages-missing', from: missing }],
    },
  };
}

async function onePage(
  address: string,
  howMuch: HowMuch,
  { extractor, lane, rules }: Sources,
): Promise<Obtained | NotObtained> {
  const fetched = await fetchGuarded(address, {
    ...rules,
    accept:
      howMuch === 'picture'
        ? 'image/webp,image/png,image/jpeg,image/*;q=0.8,text/html;q=0.5'
        : 'text/html,application/xhtml+xml,application/pdf;q=0.9,text/markdown;q=0.9,text/plain;q=0.8,image/*;q=0.7,*/*;q=0.5',
    maxBytes: PAGE_BYTES_LIMIT,
  });
  if (!fetched.ok) return { ...fetched, gone: fetched.gone ?? false };
  return taken(
    await extractor.extract(
      {
        body: fetched.body,
        contentType: fetched.contentType,
        url: fetched.url,
        howMuch,
      },
      lane,
    ),
    fetched.url,
  );
}

/** Where what came from no page is thought to lie, for its relative addresses. Reserved by RFC 2606. */
const NOWHERE = 'https://nowhere.invalid/';

/** Takes apart what the reader gave by hand. All of a pasted part is the text; a file is a page of its own. */
export async function obtainGiven(
  given: GivenText,
  address: string,
  howMuch: HowMuch,
  { extractor, lane }: Pick<Sources, 'extractor' | 'lane'>,
): Promise<Obtained | NotObtained> {
  const body = Buffer.from(given.body, given.encoding);
  const contentType = given.type.startsWith('text/') ? `${given.type}; charset=utf-8` : given.type;
  const url = isOnWeb(address) ? address : NOWHERE + encodeURIComponent(given.name ?? '');
  return taken(await extractor.extract({ body, contentType, url, howMuch }, lane), address);
}

function taken(outcome: Extracted, reached: string): Obtained | NotObtained {
  if (outcome.ok) return { ...outcome, reached };
  const not = { ok: false, temporary: false, retryAfterMs: null, gone: false } as const;
  return 'long' in outcome
    ? { ...not, long: true, cause: { code: 'too-much-memory' } }
    : { ...not, cause: outcome.cause };
}
