import { canonicalAddress } from '@dorvel/core/address';
import type { Article } from '@dorvel/core/extract';
import type { Capture, Copy, Item, PageFacts } from '@dorvel/core/model';
import { applyMutation, type HybridClock } from '@dorvel/core/sync';
import { saveAgain } from '@dorvel/core/queue';
import { v7 as uuidv7 } from 'uuid';
import type { Job } from '../db/jobs';
import type { Library, LibraryWriter } from '../db/library';
import { decodePage } from './decode';
import type { Extractor } from './extractor';
import { fetchGuarded, type FetchRules } from './fetcher';
import type { FileStore } from './files';
import { keepPictures, type KeptPictures } from './pictures';
import { sameSite } from './same-site';

const PAGE_BYTES_LIMIT = 10_000_000;

export interface CaptureTools {
  extractor: Extractor;
  files: FileStore;
  rules: Omit<FetchRules, 'accept' | 'maxBytes'>;
  /** Waits between tries, in milliseconds; after the last one it is final. */
  retryWaitsMs: readonly number[];
  clock: HybridClock;
  now(): number;
}

/**
 * Does one capture: fetch, take apart, keep the pictures, store the copy; and leaves the item in a state that
 * says in words what became of it. Every end of it, failure too, is one transaction.
 */
export async function capture(job: Job, library: Library, tools: CaptureTools): Promise<void> {
  const item = await begin(job, library);
  if (!item) return;
  const fetched = await fetchGuarded(item.address, {
    ...tools.rules,
    accept: 'text/html,application/xhtml+xml,text/plain;q=0.8,*/*;q=0.5',
    maxBytes: PAGE_BYTES_LIMIT,
  });
  if (!fetched.ok) {
    if (fetched.temporary) await tryLater(job, library, tools, fetched.says, fetched.retryAfterMs);
    else await giveUp(job, library, tools, fetched.says);
    return;
  }
  const decoded = decodePage(fetched.body, fetched.contentType);
  if (!decoded.ok) return giveUp(job, library, tools, decoded.says);
  const extracted = await tools.extractor.extract(decoded.html, fetched.url);
  if (!extracted.ok) return giveUp(job, library, tools, extracted.says);
  const { article } = extracted;
  let pictures: KeptPictures;
  try {
    pictures = await keepPictures(article.tree, article.leadImageUrl, tools.files, tools.rules);
  } catch (error) {
    if (!isDiskFull(error)) throw error;
    return tryLater(job, library, tools, 'The server’s disk is full.', null);
  }
  await store(job, library, tools, {
    article,
    pictures,
    addressKey: stableKey(item.address, fetched.url, article.canonicalUrl),
  });
}

/** True for errors that say there is no room left, of the file system or of SQLite. */
export function isDiskFull(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    const code = 'code' in at ? String(at.code) : '';
    if (code === 'ENOSPC' || code === 'EDQUOT' || code.startsWith('SQLITE_FULL')) return true;
  }
  return false;
}

/** After an error nobody foresaw: try again later, and say so. */
export function postpone(job: Job, library: Library, tools: CaptureTools, error: unknown): Promise<void> {
  return tryLater(
    job,
    library,
    tools,
    isDiskFull(error) ? 'The server’s disk is full.' : 'Something went wrong on the server.',
    null,
  );
}

async function begin(job: Job, library: Library): Promise<Item | undefined> {
  return library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (!item || item.capture.sameAs) {
      await write.endJob(job.id, 'done', Date.now());
      return undefined;
    }
    await putCapture(write, item, {
      state: 'fetching',
      says: 'Fetching the page…',
      attempts: job.attempts,
      nextTryAt: null,
    });
    return item;
  });
}

function putCapture(write: LibraryWriter, item: Item, changes: Partial<Capture>): Promise<void> {
  return write.put({ ...item, capture: { ...item.capture, ...changes, revision: write.sequence } });
}

async function giveUp(job: Job, library: Library, tools: CaptureTools, says: string): Promise<void> {
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (item)
      await putCapture(write, item, {
        state: 'failed',
        says: `${says} The address is kept.`,
        nextTryAt: null,
      });
    await write.endJob(job.id, 'failed', tools.now());
  });
}

async function tryLater(
  job: Job,
  library: Library,
  tools: CaptureTools,
  says: string,
  retryAfterMs: number | null,
): Promise<void> {
  const wait = tools.retryWaitsMs[job.attempts - 1];
  if (wait === undefined) {
    const tries = `${job.attempts} ${job.attempts === 1 ? 'try' : 'tries'}`;
    return giveUp(job, library, tools, `${says} That was the last of ${tries}.`);
  }
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    // Up to a fifth more, so that captures that failed together do not come back together.
    const runAt = Math.round(tools.now() + Math.max(wait * (1 + Math.random() / 5), retryAfterMs ?? 0));
    if (item)
      await putCapture(write, item, {
        state: 'waiting',
        says: `${says} The address is kept, and tried again.`,
        nextTryAt: runAt,
      });
    await write.postponeJob(job.id, runAt, tools.now());
  });
}

interface Arrived {
  article: Article;
  pictures: KeptPictures;
  addressKey: string;
}

async function store(job: Job, library: Library, tools: CaptureTools, arrived: Arrived): Promise<void> {
  const { article, pictures, addressKey } = arrived;
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (!item) return write.endJob(job.id, 'done', tools.now());
    const standing = await write.itemAt(addressKey, item.id);
    if (standing && standing.savedAt <= item.savedAt) {
      await standFor(write, standing, item, tools);
      return write.endJob(job.id, 'done', tools.now());
    }
    const copy: Copy = {
      id: uuidv7(),
      itemId: item.id,
      madeAt: tools.now(),
      title: article.title,
      language: article.language,
      tree: article.tree,
    };
    await write.putPictures(pictures.made);
    await write.putCopy(copy);
    const page = factsOf(article, pictures, copy.id);
    await putCapture(write, item, {
      state: 'arrived',
      says: arrivalInWords(page, pictures.missing),
      nextTryAt: null,
      addressKey,
      page,
    });
    await write.endJob(job.id, 'done', tools.now());
  });
}

/** The page was in the library already, under another address: the item saved first goes on for both. */
async function standFor(
  write: LibraryWriter,
  standing: Item,
  item: Item,
  tools: CaptureTools,
): Promise<void> {
  await putCapture(write, item, {
    state: 'arrived',
    says: 'Already saved.',
    nextTryAt: null,
    sameAs: standing.id,
  });
  const raised = applyMutation(standing, {
    type: 'choose',
    id: uuidv7(),
    itemId: standing.id,
    stamp: tools.clock.next(),
    set: saveAgain(standing, await write.inQueue(), tools.now()),
  });
  if (raised) await write.put(raised);
}

function factsOf(article: Article, pictures: KeptPictures, copyId: string): PageFacts {
  return {
    title: article.title,
    byline: article.byline,
    siteName: article.siteName,
    publishedAt: article.publishedAt,
    language: article.language,
    excerpt: article.excerpt,
    wordCount: article.wordCount,
    minutes: article.minutes,
    pictureCount: article.pictureCount,
    thumbnail: pictures.thumbnail,
    copyId,
    cameThrough: article.cameThrough,
  };
}

function arrivalInWords(page: PageFacts, missing: number): string {
  const { verdict, reasons } = page.cameThrough;
  if (verdict === 'failed') return `The text did not come through. ${reasons.join(' ')} The address is kept.`;
  const pictures =
    page.pictureCount === 0
      ? ''
      : `, ${page.pictureCount === 1 ? 'one picture' : `${page.pictureCount} pictures`}`;
  const gaps =
    missing === 0 ? '' : ` ${missing === 1 ? 'One picture' : `${missing} pictures`} did not come through.`;
  return verdict === 'whole'
    ? `Came through whole${pictures}.${gaps}`
    : `Came through in part${pictures}. ${reasons.join(' ')}${gaps}`;
}

/**
 * The key of the page that was reached. The page's own canonical address is believed when it is of the same
 * site and not just the site's front door, which careless templates put on every page.
 */
function stableKey(address: string, reached: string, canonicalUrl: string | null): string {
  const key = canonicalAddress(address);
  if (!canonicalUrl || !sameSite(canonicalUrl, reached)) return key;
  const canonical = canonicalAddress(canonicalUrl);
  const isFrontDoor = (each: string) => new URL(each).pathname === '/' && new URL(each).search === '';
  return isFrontDoor(canonical) && !isFrontDoor(canonicalAddress(reached)) ? key : canonical;
}
