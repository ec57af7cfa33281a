import { createHash } from 'node:crypto';
import { canonicalAddress } from '@dorvel/core/address';
import { fateOfCopy, saysGone } from '@dorvel/core/copies';
import { type Article, articleOfTree } from '@dorvel/core/extract';
import {
  type Capture,
  type CaptureOutcome,
  type Cause,
  type Copy,
  type CopyNote,
  type Item,
  MAX_ADDRESS_LENGTH,
  MAX_COPIES,
  type PageFacts,
} from '@dorvel/core/model';
import { isOnlyPictures } from '@dorvel/core/picture';
import { saveAgain } from '@dorvel/core/queue';
import { changeMaker, itemKind, withTagsOf } from '@dorvel/core/records';
import type { HybridClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { isDiskFull } from '../db/open';
import type { FetchRules } from '../fetching/fetcher';
import { sameSite } from '../fetching/same-site';
import type { FileStore } from '../files/files';
import type { Job } from '../jobs/queue';
import type { Library, LibraryWriter } from '../library/library';
import type { Extractor } from './extractor';
import { obtain, obtainGiven } from './obtain';
import { type Darkrooms, keepPictures, type KeptPictures } from './pictures';
import { type SiteIcon, type SiteIcons, usualIconOf } from './site-icon';

export interface CaptureTools {
  extractor: Extractor;
  files: FileStore;
  darkrooms: Darkrooms;
  siteIconAt: SiteIcons;
  rules: Omit<FetchRules, 'accept' | 'maxBytes'>;
  /** Waits between tries, in milliseconds; after the last one it is final. */
  retryWaitsMs: readonly number[];
  /** How many bytes of pictures an account may have; null for any number. */
  pictureQuotaBytes: number | null;
  /** The account's own. */
  clock: HybridClock;
  now(): number;
}

/** A page that was being taken apart each time that the server ended is taken to be what ended it. */
const MAX_CRASHES = 2;

/**
 * Does one capture: fetch (or take what the reader gave), take apart, keep the pictures, store the copy; and leaves
 * the item with what became of it. Every end of it, failure too, is one transaction.
 */
export async function capture(job: Job, library: Library, tools: CaptureTools): Promise<void> {
  const item = await begin(job, library);
  if (!item) return;
  if (job.crashes >= MAX_CRASHES) return giveUp(job, library, tools, { code: 'server-ended', times: job.crashes });
  // However its tries came to nothing: there is an end to them.
  if (job.attempts > tools.retryWaitsMs.length + 2 * MAX_CRASHES + 1)
    return giveUp(job, library, tools, { code: 'tried-in-vain', times: job.attempts });
  const howMuch = item.choices.howMuch.value;
  // Writing a large picture takes as long as ten articles, which must not wait for fifty of them.
  if (howMuch === 'picture' && job.lane === 'quick') return toLongLane(job, library, tools);
  const obtained = job.given
    ? await obtainGiven(job.given, item.address, howMuch, { ...tools, lane: job.lane })
    : await obtain(item.address, howMuch, {
        ...tools,
        lane: job.lane,
        onPage: (page) => sayPage(job, library, page),
      });
  if (!obtained.ok) {
    if (obtained.long) return toLongLane(job, library, tools);
    if (obtained.temporary) await tryLater(job, library, tools, obtained.cause, obtained.retryAfterMs);
    else await giveUp(job, library, tools, obtained.cause, { gone: obtained.gone });
    return;
  }
  const { attached, reached } = obtained;
  const article = howMuch === 'picture' ? onlyPicture(obtained.article) : obtained.article;
  // A page of which nothing but a picture came through is none.
  const areItself = isOnlyPictures(article.tree) && (howMuch === 'picture' || article.cameThrough.verdict === 'whole');
  if (areItself && job.lane === 'quick') return toLongLane(job, library, tools);
  const mayKeep = await hasRoom(library, tools);
  let pictures: KeptPictures | 'long';
  let icon: SiteIcon | null;
  try {
    pictures = await keepPictures(
      article.tree,
      article.leadImageUrl,
      tools.files,
      tools.rules,
      {
        darkrooms: tools.darkrooms,
        lane: job.lane,
        mayKeep,
        areItself,
      },
      attached,
    );
    icon = mayKeep ? await tools.siteIconAt(article.iconUrl ?? usualIconOf(reached)) : null;
  } catch (error) {
    if (!isDiskFull(error)) throw error;
    return tryLater(job, library, tools, { code: 'disk-full' }, null);
  }
  if (pictures === 'long') return toLongLane(job, library, tools);
  if (areItself && mayKeep && pictures.own.length === 0 && (howMuch === 'picture' || article.wordCount === 0))
    return giveUp(job, library, tools, { code: 'picture-not-read' });
  const arrived: Arrived = {
    article,
    terms: await tools.extractor.terms(article.text, article.language, job.lane),
    pictures,
    icon,
    hash: createHash('sha256').update(JSON.stringify(article.tree)).digest('hex'),
    origin: job.given ? 'given' : 'fetched',
    addressKey: job.given ? canonicalAddress(item.address) : stableKey(item.address, reached, article.canonicalUrl),
    leadsElsewhere: !job.given && leadsToFrontDoor(item.address, reached),
  };
  await store(job, library, tools, arrived);
}

async function hasRoom(library: Library, { pictureQuotaBytes }: CaptureTools): Promise<boolean> {
  return pictureQuotaBytes === null || (await library.pictureBytes()) < pictureQuotaBytes;
}

/** Of a page whose picture alone is wanted: the one that it shows first. */
function onlyPicture(article: Article): Article {
  if (article.wordCount === 0 || !article.leadImageUrl || isOnlyPictures(article.tree)) return article;
  const src = article.leadImageUrl;
  const image = { type: 'element' as const, tagName: 'img', properties: { src, alt: '' }, children: [] };
  return {
    ...articleOfTree(
      {
        type: 'root',
        children: [{ type: 'element', tagName: 'figure', properties: {}, children: [image] }],
      },
      article.title,
      article.authors,
    ),
    siteName: article.siteName,
    leadImageUrl: src,
  };
}

/** A page that was taken down often sends its visitors to the site's front page. */
function leadsToFrontDoor(address: string, reached: string): boolean {
  const isFrontDoor = (each: string) =>
    URL.canParse(each) && new URL(each).pathname === '/' && new URL(each).search === '';
  return isFrontDoor(reached) && !isFrontDoor(address);
}

async function sayPage(job: Job, library: Library, page: number): Promise<void> {
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (item) await putCapture(write, item, { outcome: { code: 'fetching-page', page } });
  });
}

/** After an error nobody foresaw: try again later, and say so. */
export function postpone(job: Job, library: Library, tools: CaptureTools, error: unknown): Promise<void> {
  return tryLater(job, library, tools, { code: isDiskFull(error) ? 'disk-full' : 'server-fault' }, null);
}

async function begin(job: Job, library: Library): Promise<Item | undefined> {
  return library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (!item || item.capture.duplicateOf) {
      await write.endJob(job.id, 'done', Date.now());
      return undefined;
    }
    await putCapture(write, item, {
      state: 'fetching',
      outcome: { code: 'fetching' },
      attempts: job.attempts,
      nextTryAt: null,
    });
    return item;
  });
}

function putCapture(write: LibraryWriter, item: Item, changes: Partial<Capture>): Promise<void> {
  return write.put({ ...item, capture: { ...item.capture, ...changes, revision: write.sequence } });
}

async function giveUp(
  job: Job,
  library: Library,
  tools: CaptureTools,
  cause: Cause,
  { gone = false, tries = null }: { gone?: boolean; tries?: number | null } = {},
): Promise<void> {
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (item) {
      const hasCopy = item.capture.page !== null && item.capture.page.copyId !== null;
      await putCapture(write, item, {
        // An item whose page is gone is still there to be read.
        state: hasCopy || item.choices.howMuch.value === 'address-only' ? 'arrived' : 'failed',
        outcome: { code: 'failed', cause, copyStays: hasCopy, tries },
        nextTryAt: null,
        goneSince: gone ? (item.capture.goneSince ?? tools.now()) : item.capture.goneSince,
      });
    }
    await write.endJob(job.id, 'failed', tools.now());
  });
}

/** A large or slow text waits among its like, one at a time. */
async function toLongLane(job: Job, library: Library, tools: CaptureTools): Promise<void> {
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (item)
      await putCapture(write, item, {
        state: 'waiting',
        outcome: { code: 'waits-its-turn' },
      });
    await write.toLongLane(job.id, tools.now());
  });
}

async function tryLater(
  job: Job,
  library: Library,
  tools: CaptureTools,
  cause: Cause,
  retryAfterMs: number | null,
): Promise<void> {
  const wait = tools.retryWaitsMs[job.attempts - 1];
  if (wait === undefined) return giveUp(job, library, tools, cause, { tries: job.attempts });
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    // Up to a fifth more, so that captures that failed together do not come back together.
    const runAt = Math.round(tools.now() + Math.max(wait * (1 + Math.random() / 5), retryAfterMs ?? 0));
    if (item)
      await putCapture(write, item, {
        state: 'waiting',
        outcome: { code: 'tried-again', cause },
        nextTryAt: runAt,
      });
    await write.postponeJob(job.id, runAt, tools.now());
  });
}

interface Arrived {
  article: Article;
  /** The words of its text; null when they could not be made. */
  terms: string | null;
  pictures: KeptPictures;
  /** Of its site. */
  icon: SiteIcon | null;
  /** SHA-256 of the tree. */
  hash: string;
  origin: CopyNote['origin'];
  addressKey: string;
  /** The address now leads to the front page of its site. */
  leadsElsewhere: boolean;
}

async function store(job: Job, library: Library, tools: CaptureTools, arrived: Arrived): Promise<void> {
  await library.change(async (write) => {
    const item = await write.item(job.itemId);
    if (!item) return write.endJob(job.id, 'done', tools.now());
    const canonical = await write.itemAt(arrived.addressKey, item.id);
    if (canonical && canonical.savedAt <= item.savedAt) {
      await mergeInto(write, canonical, item, tools);
      return write.endJob(job.id, 'done', tools.now());
    }
    await putCapture(write, item, await withCopy(write, item, arrived, tools.now()));
    if (arrived.pictures.own.length > 0) await write.enqueueLooking(item.id, tools.now());
    await write.endJob(job.id, 'done', tools.now());
  });
}

/** The item's capture with what has arrived: as the copy to be read, beside it, or not at all. */
async function withCopy(write: LibraryWriter, item: Item, arrived: Arrived, now: number): Promise<Partial<Capture>> {
  const { article, terms, pictures, hash, origin, addressKey } = arrived;
  const { capture: known } = item;
  const settled = { state: 'arrived', nextTryAt: null } as const;
  if (item.choices.howMuch.value === 'address-only' && origin === 'fetched') {
    const page = known.page ?? factsOf(arrived, null);
    await write.putPictures(filesOf(arrived));
    return { ...settled, outcome: { code: 'address-only' }, addressKey, page };
  }
  const fate = fateOf(known, arrived);
  if (fate === 'dropped') {
    const gone = arrived.leadsElsewhere || saysGone(article.cameThrough.signs);
    return {
      ...settled,
      outcome: worse('nothing', article, arrived.leadsElsewhere),
      goneSince: gone ? (known.goneSince ?? now) : known.goneSince,
    };
  }
  if (fate === 'unchanged') return { ...settled, outcome: { code: 'fetched-unchanged' }, goneSince: null };
  const copy: Copy = {
    id: uuidv7(),
    itemId: item.id,
    madeAt: now,
    title: article.title,
    language: article.language,
    hash,
    tree: article.tree,
    ...(article.doubts.length > 0 ? { doubts: article.doubts } : {}),
  };
  await write.putPictures(filesOf(arrived));
  await write.putCopy(copy, terms);
  const note: CopyNote = { id: copy.id, madeAt: now, hash, wordCount: article.wordCount, origin };
  const copies = [note, ...known.copies].slice(0, MAX_COPIES);
  const page = factsOf(arrived, copy.id);
  if (fate === 'beside')
    return {
      ...settled,
      outcome: worse('part', article, false),
      copies,
    };
  return {
    ...settled,
    outcome: { code: 'arrived', missingPictures: pictures.missing },
    addressKey,
    page: origin === 'given' ? withKnownFacts(page, known.page) : page,
    copies,
    goneSince: origin === 'given' ? known.goneSince : null,
  };
}

function fateOf(
  known: Capture,
  { article, hash, pictures: { own }, leadsElsewhere }: Arrived,
): ReturnType<typeof fateOfCopy> {
  if (leadsElsewhere && known.page?.copyId) return 'dropped';
  if (own.length === 0 || !known.page || known.page.pictures.length === 0)
    return fateOfCopy(known, { ...article, hash });
  // The words in pictures are read afterwards: that there are none yet makes them no worse.
  const before = new Set(known.page.pictures.map((picture) => picture.large));
  return own.every(({ large }) => before.has(large)) && own.length === before.size ? 'unchanged' : 'read';
}

/** A pasted text says nothing of its author or date: what the page stated stands. */
function withKnownFacts(page: PageFacts, known: PageFacts | null): PageFacts {
  if (!known) return page;
  return {
    ...page,
    title: known.title ?? page.title,
    authors: page.authors.length > 0 ? page.authors : known.authors,
    siteName: page.siteName ?? known.siteName,
    icon: page.icon ?? known.icon,
    publishedAt: page.publishedAt ?? known.publishedAt,
    facts: page.facts.length > 0 ? page.facts : known.facts,
  };
}

/** The page was in the library already, under another address: the item saved first goes on for both. */
async function mergeInto(write: LibraryWriter, canonical: Item, item: Item, tools: CaptureTools): Promise<void> {
  await putCapture(write, item, {
    state: 'arrived',
    outcome: { code: 'already-saved' },
    nextTryAt: null,
    duplicateOf: canonical.id,
  });
  await write.moveRecords(item.id, canonical.id);
  const make = changeMaker({ ...tools, newId: uuidv7 });
  const raised = itemKind.apply(
    canonical,
    make.choose(canonical.id, saveAgain(canonical, await write.inQueue(), tools.now()), canonical),
  );
  if (raised) await write.put(withTagsOf(raised, item));
}

const filesOf = ({ pictures: { made }, icon }: Arrived) => (icon ? [...made, icon] : made);

function factsOf({ article, pictures, icon }: Arrived, copyId: string | null): PageFacts {
  return {
    title: article.title,
    authors: article.authors,
    siteName: article.siteName,
    publishedAt: article.publishedAt,
    modifiedAt: article.modifiedAt,
    licenceUrl: article.licenceUrl,
    facts: article.facts,
    language: article.language,
    excerpt: article.excerpt,
    wordCount: article.wordCount,
    minutes: article.minutes,
    pictureCount: article.pictureCount,
    thumbnail: pictures.thumbnail,
    icon: icon?.hash ?? null,
    copyId,
    pictures: pictures.own,
    cameThrough: article.cameThrough,
  };
}

function worse(came: 'nothing' | 'part', { cameThrough }: Article, leadsElsewhere: boolean): CaptureOutcome {
  return { code: 'fetched-worse', came, signs: cameThrough.signs, leadsElsewhere };
}

/**
 * The key of the page that was reached. The page's own canonical address is believed when it is of the same
 * site and not just the site's front door, which careless templates put on every page.
 */
function stableKey(address: string, reached: string, canonicalUrl: string | null): string {
  const key = canonicalAddress(address);
  if (!canonicalUrl || !sameSite(canonicalUrl, reached)) return key;
  const canonical = canonicalAddress(canonicalUrl);
  // Too long for an address: somebody's joke, and nobody's name for a page.
  if (canonical.length > MAX_ADDRESS_LENGTH) return key;
  const isFrontDoor = (each: string) => new URL(each).pathname === '/' && new URL(each).search === '';
  return isFrontDoor(canonical) && !isFrontDoor(canonicalAddress(reached)) ? key : canonical;
}
