/// <reference lib="webworker" />
import type { Item, Passage, SearchRequest } from '@dorvel/core/model';
import { find, type Found, passageOf, readQuery, tagCounts } from '@dorvel/core/search';
import { expose } from 'comlink';
import { liveQuery } from 'dexie';
import { followedItems } from '@/device/store/item-feed';
import { DeviceStore } from '@/device/store/store';
import { FindableLibrary, type Snapshot, snapshotOf } from './findable-library';
import type { Finding } from './finding';

interface Opened {
  accountId: string;
  library: FindableLibrary;
  /** The updates that were asked for, one after the other. */
  updated: Promise<void>;
  close(): void;
}

let opened: Opened | undefined;
/** The last answer: its passages are asked for next. */
let last: { key: string; found: Found } | undefined;

function open(accountId: string, changed: () => void): Opened {
  const store = new DeviceStore(accountId);
  const library = new FindableLibrary(store);
  let begin: (first: Promise<void>) => void = () => undefined;
  const made: Opened = {
    library,
    accountId,
    updated: new Promise<void>((resolve) => (begin = resolve)),
    close: () => undefined,
  };
  let isFirst = true;
  let [items, snapshot]: [ReadonlyMap<string, Item> | null, Snapshot | null] = [null, null];
  const bringUp = () => {
    if (!items || !snapshot) return;
    const [read, besides] = [items, snapshot];
    const update = (isFirst ? Promise.resolve() : made.updated.catch(() => undefined)).then(() =>
      library.update(read, besides),
    );
    if (isFirst) begin(update);
    else made.updated = update;
    isFirst = false;
    update.then(() => {
      last = undefined;
      changed();
    }, reportError);
  };
  // Dexie tells of every change of these tables, made in this tab or in another.
  const followed = followedItems(store, (now) => {
    items = now;
    bringUp();
  });
  const watch = liveQuery(() => snapshotOf(store)).subscribe({
    next(now) {
      snapshot = now;
      bringUp();
    },
    error: reportError,
  });
  made.close = () => {
    followed.end();
    watch.unsubscribe();
    store.close();
  };
  return made;
}

function now(): Opened {
  if (!opened) throw new Error('no account has been opened');
  return opened;
}

async function answer(question: SearchRequest): Promise<Found & { faults: string[] }> {
  const { updated, library } = now();
  await updated;
  const at = Date.now();
  const query = readQuery(question.written, { ...question, now: at });
  const key = JSON.stringify(question);
  if (last?.key !== key) last = { key, found: await find(query, question.scope, library.index, library.facts, at) };
  return { ...last.found, faults: query.faults };
}

const finding: Finding = {
  async open(accountId, changed) {
    if (opened?.accountId !== accountId) {
      opened?.close();
      last = undefined;
      opened = open(accountId, changed);
    }
    await opened.updated;
  },
  async find(question) {
    const { by, hits, also, faults } = await answer(question);
    const { facts, withoutText } = now().library;
    const found = hits.flatMap(({ id }) => facts.get(id) ?? []);
    const idsOf = (of: Found['hits']) => of.map(({ id }) => id);
    return { by, ids: idsOf(hits), count: null, also: idsOf(also), faults, tags: tagCounts(found), withoutText };
  },
  async passages(question, ids) {
    const { marks } = await answer(question);
    const passages: Record<string, Passage | null> = {};
    for (const id of ids) {
      const of = marks.length > 0 ? await now().library.textOf(id) : null;
      passages[id] = of && passageOf(of.text, of.language, marks);
    }
    return passages;
  },
};
expose(finding);
