import { canonicalAddress, readAddress } from '@dorvel/core/address';
import type { ReadEntry, ReadFeed } from '@dorvel/core/formats';
import {
  type Cause,
  type Feed,
  FeedEntry,
  type FeedOutcome,
  type FeedState,
  MAX_ENTRIES,
  wellFormed,
  withinBounds,
} from '@dorvel/core/model';
import type { HybridClock } from '@dorvel/core/sync';
import { GivenUp, type Workshop } from '../apart/workshop';
import { type Fetched, fetchGuarded, type FetchRules } from '../fetching/fetcher';
import type { DueFeed, FeedMemory } from '../library/feeds';
import type { Library, LibraryWriter } from '../library/library';
import { saveFor } from '../library/save-for';
import { nextPollAt } from './when';

export interface FeedTools {
  /** Where feeds are read; with the tasks of tasks/texts.child.ts. */
  workshop: Workshop;
  rules: Omit<FetchRules, 'accept' | 'maxBytes' | 'unless'>;
  clock: HybridClock;
  now(): number;
  /** No feed is looked at more often than this. */
  shortestMs: number;
}

const FEED_BYTES_LIMIT = 4_000_000;
const READ_LIMIT_MS = 5000;
const ACCEPT =
  'application/atom+xml,application/rss+xml,application/feed+json,application/rdf+xml;q=0.9,application/xml;q=0.8,text/xml;q=0.8,application/json;q=0.7,text/html;q=0.5,*/*;q=0.3';
/** So many keys of entries are remembered, so that one that leaves a feed and comes back is no news. */
const MAX_KEYS = 2000;

/** What a look has brought. */
type Outcome =
  | { kind: 'read'; read: ReadFeed; found: Extract<Fetched, { ok: true }>; address: string }
  | { kind: 'unchanged' }
  | { kind: 'failed'; cause: Cause; onNamedPage?: boolean; retryAfterMs: number | null };

/** Looks at a feed once: what is new in it is put before the reader, or saved; every end of it is one transaction. */
export async function pollFeed(due: DueFeed, library: Library, tools: FeedTools): Promise<void> {
  const known = await library.change((write) => write.feed(due.id));
  if (!known) return;
  const outcome = await look(known.feed, known.memory, tools);
  await library.change((write) => settle(write, due.id, outcome, tools));
}

/** What the file that was found is: a feed, or a page that may name one. */
type Looked = { read: ReadFeed | null; named: string | null } | { cause: Cause };

async function readApart(found: Extract<Fetched, { ok: true }>, workshop: Workshop): Promise<Looked> {
  const { body, contentType, url } = found;
  try {
    return (await workshop.run('feed', { body, contentType, url }, READ_LIMIT_MS)) as Looked;
  } catch (error) {
    // Not the feed's fault: it is due again in some minutes, as it is.
    if (error instanceof GivenUp && error.why === 'ended') throw error;
    return {
      cause:
        error instanceof GivenUp && error.why === 'time'
          ? { code: 'feed-too-slow', seconds: READ_LIMIT_MS / 1000 }
          : { code: 'feed-not-readable' },
    };
  }
}

async function look(feed: Feed, memory: FeedMemory, { rules, workshop }: FeedTools): Promise<Outcome> {
  const ask = (address: string, unless?: FetchRules['unless']) =>
    fetchGuarded(address, {
      ...rules,
      accept: ACCEPT,
      maxBytes: FEED_BYTES_LIMIT,
      ...(unless ? { unless } : {}),
    });
  const address = memory.address ?? feed.address;
  const found = await ask(address, memory);
  if (!found.ok) return found.unchanged ? { kind: 'unchanged' } : { kind: 'failed', ...found };
  const failed = (cause: Cause, onNamedPage = false): Outcome => ({
    kind: 'failed',
    cause,
    onNamedPage,
    retryAfterMs: null,
  });
  const first = await readApart(found, workshop);
  if ('cause' in first) return failed(first.cause);
  if (first.read) return { kind: 'read', read: first.read, found, address: found.movedTo ?? address };
  if (first.named === null) return failed({ code: 'no-feed' });
  const second = await ask(first.named);
  if (!second.ok) return failed(second.cause, true);
  const named = await readApart(second, workshop);
  if ('cause' in named) return failed(named.cause);
  return named.read
    ? { kind: 'read', read: named.read, found: second, address: second.movedTo ?? first.named }
    : failed({ code: 'named-feed-is-none' });
}

function whatCame(isTwin: boolean, entries: number, fresh: number): FeedOutcome {
  if (isTwin) return { code: 'followed-twice' };
  if (entries === 0) return { code: 'no-entries' };
  return fresh === 0 ? { code: 'nothing-new' } : { code: 'new', count: fresh };
}

async function settle(write: LibraryWriter, id: string, outcome: Outcome, tools: FeedTools): Promise<void> {
  const known = await write.feed(id);
  if (!known) return;
  const { feed, memory } = known;
  const now = tools.now();
  const put = (state: Partial<FeedState>, next: FeedMemory, dueAt: number) =>
    write.putFeed(
      { ...feed, state: { ...feed.state, ...state, checkedAt: now, revision: write.sequence } },
      next,
      feed.choices.following.value ? dueAt : null,
    );
  const when = {
    now,
    restMinutes: null,
    maxAgeSeconds: null,
    retryAfterMs: null,
    shortestMs: tools.shortestMs,
  };
  const datesOf = (entries: readonly { publishedAt: string | null; arrivedAt?: number }[]) =>
    entries
      .map(({ publishedAt, arrivedAt }) => (publishedAt ? Date.parse(publishedAt) : (arrivedAt ?? NaN)))
      .filter((date) => !Number.isNaN(date));
  if (outcome.kind === 'failed') {
    const failures = memory.failures + 1;
    return put(
      {
        state: 'broken',
        outcome: {
          code: 'failed',
          cause: outcome.cause,
          onNamedPage: outcome.onNamedPage ?? false,
          entriesStay: feed.state.entries.length > 0,
        },
        brokenSince: feed.state.brokenSince ?? now,
      },
      { ...memory, failures },
      nextPollAt({ ...when, entryDates: [], failures, retryAfterMs: outcome.retryAfterMs }),
    );
  }
  if (outcome.kind === 'unchanged')
    return put(
      { state: 'working', outcome: { code: 'nothing-new' }, brokenSince: null },
      { ...memory, failures: 0 },
      nextPollAt({ ...when, entryDates: datesOf(feed.state.entries), failures: 0 }),
    );

  const { read, found, address } = outcome;
  const twin = (await write.otherFeeds(id)).find(
    (other) => other.choices.following.value && other.state.feedAddress === address,
  );
  const seen = new Set(memory.keys);
  const fresh = read.entries.filter(({ key }) => key !== '' && !seen.has(key) && seen.add(key));
  const arrived = fresh.flatMap((entry) => arrivalOf(entry, now)).slice(0, MAX_ENTRIES);
  if (feed.choices.mode.value === 'save-all')
    for (const entry of [...arrived].reverse()) await save(write, entry, feed, tools);
  const latest = [...datesOf(read.entries)];
  await put(
    {
      state: 'working',
      outcome: whatCame(twin !== undefined, read.entries.length, arrived.length),
      title: read.title ?? feed.state.title,
      siteUrl: read.siteUrl,
      feedAddress: address,
      brokenSince: null,
      entries: [...arrived, ...feed.state.entries].slice(0, MAX_ENTRIES),
    },
    {
      address,
      etag: found.etag,
      lastModified: found.lastModified,
      failures: 0,
      keys: [...fresh.map(({ key }) => key), ...memory.keys].slice(0, MAX_KEYS),
    },
    nextPollAt({
      ...when,
      entryDates: latest,
      restMinutes: read.restMinutes,
      maxAgeSeconds: found.maxAgeSeconds,
      failures: 0,
    }),
  );
}

/** An entry as it is kept; none when it leads to no page, as nothing could be saved of it. */
function arrivalOf(entry: ReadEntry, now: number): FeedEntry[] {
  const reading = entry.address ? readAddress(entry.address) : null;
  if (!reading?.ok) return [];
  const bounded = withinBounds(FeedEntry, {
    key: wellFormed(entry.key).slice(0, 2000),
    address: reading.address,
    title: entry.title,
    authors: entry.authors,
    publishedAt: entry.publishedAt ?? entry.updatedAt,
    summary: entry.summary,
    arrivedAt: now,
  });
  return bounded.ok ? [bounded.record] : [];
}

/** Saves what a feed brought, as a device of the reader's would; what the library has already stays as it is. */
async function save(write: LibraryWriter, entry: FeedEntry, feed: Feed, tools: FeedTools): Promise<void> {
  if (await write.itemAt(canonicalAddress(entry.address), '')) return;
  const tag = feed.choices.tag.value;
  await saveFor(write, { address: entry.address, tags: tag === null ? [] : [tag] }, tools);
}
