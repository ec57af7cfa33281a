/// <reference lib="webworker" />
import { gistOf } from '@dorvel/core/gist';
import { createRelatedIndex, type RelatedIndex } from '@dorvel/core/relate';
import { PROFILE_VERSION, termProfile } from '@dorvel/core/terms';
import { plainText } from '@dorvel/core/text';
import { expose } from 'comlink';
import { DeviceStore } from '@/device/store/store';
import { currentCopies } from './current-copies';
import type { Relating } from './relating';

/** Below this two texts share a few words, above it a subject. Chosen by looking at the demo's library. */
const PLAINLY_NEAR = 0.25;

/** One account's index, and the copy that stands in it for each item. */
interface Opened {
  accountId: string;
  store: DeviceStore;
  index: RelatedIndex;
  copyOf: Map<string, string>;
}

let opened: Opened | undefined;
/** Questions wait for one another: two must not bring the index up to date at once. */
let last: Promise<unknown> = Promise.resolve();

function open(accountId: string): Opened {
  if (opened?.accountId === accountId) return opened;
  opened?.store.close();
  opened = {
    accountId,
    store: new DeviceStore(accountId),
    index: createRelatedIndex(),
    copyOf: new Map(),
  };
  return opened;
}

/** Brings the index up to date: only copies that are new here are read and profiled. */
async function upToDate(accountId: string): Promise<RelatedIndex> {
  const { store, index, copyOf } = open(accountId);
  const wanted = currentCopies(await store.items.toArray(), await store.copies.toCollection().primaryKeys());
  for (const id of copyOf.keys())
    if (!wanted.has(id)) {
      index.remove(id);
      copyOf.delete(id);
    }
  for (const [itemId, copyId] of wanted) {
    if (copyOf.get(itemId) === copyId) continue;
    const known = await store.profiles.get(copyId);
    if (known?.version === PROFILE_VERSION) index.put(itemId, known.profile);
    else {
      const copy = await store.copies.get(copyId);
      if (!copy) continue;
      const profile = termProfile(plainText(copy.tree).text, copy.title, copy.language);
      await store.profiles.put({ copyId, version: PROFILE_VERSION, profile });
      index.put(itemId, profile);
    }
    copyOf.set(itemId, copyId);
  }
  return index;
}

function ask<Answer>(accountId: string, question: (index: RelatedIndex) => Answer): Promise<Answer> {
  const answer = last.then(async () => question(await upToDate(accountId)));
  last = answer.catch(() => {
    // The failure goes to whoever asked; the next question starts again.
    opened?.store.close();
    opened = undefined;
  });
  return answer;
}

const relating: Relating = {
  async gist(accountId, copyId) {
    const copy = await open(accountId).store.copies.get(copyId);
    return copy ? gistOf(plainText(copy.tree), copy.language) : [];
  },
  related: (accountId, itemId, most) => ask(accountId, (index) => index.related(itemId, most)),
  closeness: (accountId, candidates, others) =>
    ask(accountId, (index) =>
      candidates
        .filter((id) => index.has(id))
        .map((id) => {
          const near = index.nearnessTo(
            id,
            others.filter((other) => other !== id),
          );
          return {
            id,
            nearness: near[0]?.nearness ?? 0,
            nearTo: near.filter(({ nearness }) => nearness >= PLAINLY_NEAR).length,
          };
        }),
    ),
};

expose(relating);
