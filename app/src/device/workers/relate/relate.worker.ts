/// <reference lib="webworker" />
import { hostOf } from '@dorvel/core/address';
import { createEchoIndex, echoesOf, type EchoIndex, passageOn } from '@dorvel/core/echo';
import { gistOf } from '@dorvel/core/gist';
import { subjectsOf } from '@dorvel/core/look-back';
import { knownIn } from '@dorvel/core/new-to-you';
import { closenessOf, createRelatedIndex, namedTags, type RelatedIndex } from '@dorvel/core/relate';
import { PROFILE_VERSION, profileOf, shownIn } from '@dorvel/core/terms';
import { plainText, wordStarts } from '@dorvel/core/text';
import { expose } from 'comlink';
import { type FollowedItems, followedItems } from '@/device/store/item-feed';
import { DeviceStore } from '@/device/store/store';
import { currentCopies } from './current-copies';
import type { Relating } from './relating';

/** So many subjects of a week or month are told. */
const SUBJECTS = 6;
/** What retells a text is among those nearest to it; so many of them are read. */
const READ_FOR_KNOWN = 40;

/** One account's index, and the copy that stands in it for each item. */
interface Opened {
  accountId: string;
  store: DeviceStore;
  followed: FollowedItems;
  index: RelatedIndex;
  echoes: EchoIndex;
  /** Sites by item. */
  hosts: ReadonlyMap<string, string>;
  copyOf: Map<string, string>;
}

let opened: Opened | undefined;
/** Questions wait for one another: two must not bring the index up to date at once. */
let last: Promise<unknown> = Promise.resolve();

function close(): void {
  opened?.followed.end();
  opened?.store.close();
  opened = undefined;
}

function open(accountId: string): Opened {
  if (opened?.accountId === accountId) return opened;
  close();
  const store = new DeviceStore(accountId);
  opened = {
    accountId,
    store,
    followed: followedItems(store),
    index: createRelatedIndex(),
    echoes: createEchoIndex(),
    hosts: new Map(),
    copyOf: new Map(),
  };
  return opened;
}

/** Brings the index up to date: only copies that are new here are read and profiled. */
async function upToDate(accountId: string): Promise<Opened> {
  const now = open(accountId);
  const { store, index, echoes, copyOf } = now;
  const items = [...(await now.followed.now()).values()];
  now.hosts = new Map(items.map(({ id, address }) => [id, hostOf(address)]));
  const wanted = currentCopies(items, await store.copies.toCollection().primaryKeys());
  for (const id of copyOf.keys())
    if (!wanted.has(id)) {
      index.remove(id);
      echoes.remove(id);
      copyOf.delete(id);
    }
  for (const [itemId, copyId] of wanted) {
    if (copyOf.get(itemId) === copyId) continue;
    const known = await store.profiles.get(copyId);
    let profile = known?.version === PROFILE_VERSION ? known.profile : null;
    if (!profile) {
      const copy = await store.copies.get(copyId);
      if (!copy) continue;
      profile = profileOf(plainText(copy.tree), copy.title, copy.language);
      await store.profiles.put({ copyId, version: PROFILE_VERSION, profile });
    }
    index.put(itemId, profile);
    echoes.put(itemId, profile);
    copyOf.set(itemId, copyId);
  }
  return now;
}

/** The profiles of some items; those without a text here are left out. */
async function profiled({ store, copyOf }: Opened, ids: readonly string[]) {
  const kept = await store.profiles.bulkGet(ids.map((id) => copyOf.get(id) ?? ''));
  return kept.flatMap((known, n) => (known ? [{ id: ids[n] ?? '', profile: known.profile }] : []));
}

function ask<Answer>(accountId: string, question: (now: Opened) => Answer | Promise<Answer>): Promise<Answer> {
  const answer = last.then(async () => question(await upToDate(accountId)));
  last = answer.catch(() => {
    // The failure goes to whoever asked; the next question starts again.
    close();
  });
  return answer;
}

const relating: Relating = {
  async gist(accountId, copyId) {
    const copy = await open(accountId).store.copies.get(copyId);
    return copy ? gistOf(plainText(copy.tree), copy.title, copy.language) : [];
  },
  related: (accountId, itemId, most) => ask(accountId, ({ index }) => index.related(itemId, most)),
  namedTags: (accountId, itemId, language, tags) =>
    ask(accountId, ({ index }) => namedTags(index.subjectsOf(itemId), tags, language)),
  closeness: (accountId, candidates, others) => ask(accountId, ({ index }) => closenessOf(index, candidates, others)),
  echoes: (accountId, { itemId, copyId, density, silenced }) =>
    ask(accountId, async ({ store, echoes, hosts }) => {
      const copy = await store.copies.get(copyId);
      if (!copy) return [];
      const plain = plainText(copy.tree);
      const silencedHosts = new Set(silenced.hosts);
      const { title, language } = copy;
      const about = { title, language, words: wordStarts(plain.text, language).length, ...shownIn(plain) };
      return echoesOf(plain.text, about, echoes, {
        density,
        silenced: new Set(silenced.terms),
        not: (id) => id === itemId || silencedHosts.has(hosts.get(id) ?? ''),
      });
    }),
  known: (accountId, itemId, copyId) =>
    ask(accountId, async ({ store, index, copyOf }) => {
      const copy = await store.copies.get(copyId);
      if (!copy) return [];
      const near = index.related(itemId, READ_FOR_KNOWN).map(({ id }) => id);
      const items = (await store.items.bulkGet(near)).filter((item) => item && item.progress.furthest > 0);
      const copies = await store.copies.bulkGet(items.map((item) => copyOf.get(item?.id ?? '') ?? ''));
      const passed = copies.flatMap((theirs, n) => {
        const item = items[n];
        if (!theirs || !item) return [];
        const plain = plainText(theirs.tree);
        const starts = wordStarts(plain.text, theirs.language);
        const until = starts[Math.floor(item.progress.furthest * starts.length)] ?? plain.text.length;
        return [{ id: item.id, plain, language: theirs.language, until }];
      });
      const plain = plainText(copy.tree);
      const texts = new Map(passed.map((each) => [each.id, each.plain.text]));
      return knownIn(plain, copy.language, passed).map((known) => ({
        ...known,
        form: plain.text.slice(known.start, known.end),
        metAs: texts.get(known.id)?.slice(known.met.start, known.met.end) ?? '',
      }));
    }),
  parts: (accountId, itemIds) =>
    ask(accountId, async (now) => (await profiled(now, itemIds)).map(({ id, profile: { parts } }) => ({ id, parts }))),
  subjects: (accountId, now, before) =>
    ask(accountId, async (opened) => subjectsOf(await profiled(opened, now), await profiled(opened, before), SUBJECTS)),
  passages: (accountId, key, itemIds) =>
    ask(accountId, async ({ store, copyOf }) => {
      const copies = await store.copies.bulkGet(itemIds.map((id) => copyOf.get(id) ?? ''));
      return copies.flatMap((copy, n) => {
        const passage = copy && passageOn(key, plainText(copy.tree), copy);
        return passage ? [{ ...passage, itemId: itemIds[n] ?? '' }] : [];
      });
    }),
};

expose(relating);
