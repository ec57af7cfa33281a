import { canonicalAddress, type AddressReading } from '@dorvel/core/address';
import {
  NEVER,
  type Activity,
  tagKey,
  TagName,
  type HighlightKind,
  type MarkedPassage,
  type Card,
  type Recall,
  type SavedSearch,
  type WrittenNote,
  type Scope,
  type GivenText,
  type HowMuch,
  type Item,
  type Spans,
  type TextAnchor,
} from '@dorvel/core/model';
import type {
  ItemChoices,
  FeedChanges,
  HighlightChanges,
  CardChanges,
  NoteChanges,
  Mutation,
} from '@dorvel/core/records';
import { saveAgain } from '@dorvel/core/queue';
import Dexie from 'dexie';
import { v5 as uuidv5, v7 as uuidv7 } from 'uuid';
import { useAccount } from './account';
import { clock } from './clock';
import type { DeviceStore } from './store';
import { syncSoon, tellOf } from '@/device/sync/sync-loop';
import { noteDown, unwrittenOf } from './journal';

/** What a reader does wins over what it replaces, whatever the clock of who wrote that. */
const stampsOf = (registers: object): string[] =>
  Object.values(registers as Record<string, { at: string }>).map(({ at }) => at);

function store(): DeviceStore {
  const { store: open } = useAccount.getState();
  if (!open) throw new Error('nobody has signed in on this device');
  return open;
}

/** Makes changes, all or none. */
async function commit(...changes: readonly Mutation[]): Promise<void> {
  const { account } = useAccount.getState();
  const into = store();
  const written = noteDown(account?.id ?? '', changes);
  await into.commitAll(changes);
  written();
  syncSoon();
}

/** Makes the changes that were cut off when the app was closed. What cannot be made is told. */
export async function makeUnwritten(): Promise<void> {
  const { account, store: open } = useAccount.getState();
  if (!account || !open) return;
  for (const { changes, done } of unwrittenOf(account.id)) {
    try {
      await open.commitAll(changes);
    } catch (error) {
      // The store itself fails: they stay noted down until it can be written to.
      if (error instanceof Dexie.DexieError) throw error;
      tellOf([{ kind: 'refused', says: `A change that was cut off could not be made: ${String(error)}` }]);
    }
    done();
    syncSoon();
  }
}

export type SaveOutcome = { kind: 'saved'; itemId: string } | { kind: 'already-saved'; item: Item };

/**
 * Saves an address. Asks nothing and waits for nothing: the item is on this device when this returns. An address
 * that the library has already brings up the first item instead.
 *
 * @param given the part of the page that is to be kept, where only a part is wanted
 */
export async function saveAddress(
  { address }: Extract<AddressReading, { ok: true }>,
  howMuch: HowMuch,
  given?: GivenText,
): Promise<SaveOutcome> {
  const itemId = uuidv7();
  const base = () => ({ id: uuidv7(), itemId, stamp: clock.next() });
  const save: Mutation = { ...base(), type: 'save', address, savedAt: Date.now(), howMuch };
  const changes: Mutation[] = given ? [save, { ...base(), type: 'provide', given }] : [save];
  // Not even while it is looked for may it get lost.
  const written = noteDown(useAccount.getState().account?.id ?? '', changes);
  const known = await store()
    .items.where('capture.addressKey')
    .equals(canonicalAddress(address))
    .and((item) => item.capture.sameAs === null)
    .first();
  if (!known) {
    await commit(...changes);
    return { kind: 'saved', itemId };
  }
  const queue = await store().items.where('choices.stage.value').equals('queue').toArray();
  await choose(known.id, saveAgain(known, queue, Date.now()));
  if (given) await giveText(known.id, given);
  written();
  return { kind: 'already-saved', item: known };
}

/** So many changes are written together: each writing makes every list on screen anew. */
const AT_ONCE = 40;

/**
 * Saves many pages and files at once; see saveAddress. Those that the library has are brought up.
 *
 * @param wishes addresses, those of files with what is in them; their tags are added to those that an item has
 * @param isWanted asked now and then: false ends it; what is saved by then stays
 * @param done told how many are done
 * @returns ids of the items that are new
 */
export async function saveAll(
  wishes: readonly { address: string; given?: GivenText; tags?: readonly string[] }[],
  howMuch: HowMuch,
  isWanted: () => boolean,
  done: (count: number) => void,
): Promise<string[]> {
  const items = await store().items.toArray();
  const standing = new Map(
    items.filter(({ capture }) => capture.sameAs === null).map((item) => [item.capture.addressKey, item]),
  );
  const queue = items.filter((item) => item.choices.stage.value === 'queue');
  const made: string[] = [];
  for (let at = 0; at < wishes.length && isWanted(); at += AT_ONCE) {
    const part = wishes.slice(at, at + AT_ONCE);
    const mutations = part.flatMap(({ address, given, tags = [] }): Mutation[] => {
      const known = standing.get(canonicalAddress(address));
      const itemId = known?.id ?? uuidv7();
      const base = () => ({ id: uuidv7(), itemId, stamp: clock.next() });
      const set = Object.fromEntries(tags.map((name) => [tagKey(name), name]));
      const stamp = known ? clock.next(...stampsOf(known.tags)) : clock.next();
      const tagged: Mutation[] = tags.length > 0 ? [{ ...base(), stamp, type: 'tag', set }] : [];
      if (known) {
        const raised = clock.next(...stampsOf(known.choices));
        return [
          { ...base(), stamp: raised, type: 'choose', set: saveAgain(known, queue, Date.now()) },
          ...tagged,
        ];
      }
      made.push(itemId);
      const save: Mutation = { ...base(), type: 'save', address, savedAt: Date.now(), howMuch };
      return [save, ...(given ? [{ ...base(), type: 'provide' as const, given }] : []), ...tagged];
    });
    await commit(...mutations);
    done(at + part.length);
  }
  return made;
}

/** Records what the reader decided about many items: all of it at once, or none. */
export async function chooseAll(changes: readonly { itemId: string; set: ItemChoices }[]): Promise<void> {
  const items = await store().items.bulkGet(changes.map(({ itemId }) => itemId));
  await commit(
    ...changes.map(({ itemId, set }, at) => ({
      type: 'choose' as const,
      id: uuidv7(),
      itemId,
      set,
      stamp: clock.next(...stampsOf(items[at]?.choices ?? {})),
    })),
  );
}

/** Puts tags on many items, or takes them off: all of it at once, or none. See tag. */
export async function tagAll(
  changes: readonly { itemId: string; set: Readonly<Record<string, string | null>> }[],
): Promise<void> {
  const items = await store().items.bulkGet(changes.map(({ itemId }) => itemId));
  await commit(
    ...changes.map(({ itemId, set }, at) => ({
      type: 'tag' as const,
      id: uuidv7(),
      itemId,
      set,
      stamp: clock.next(...stampsOf(items[at]?.tags ?? {})),
    })),
  );
}

/** Records what the reader decided about an item. */
export async function choose(itemId: string, set: ItemChoices): Promise<void> {
  const item = await store().items.get(itemId);
  const stamp = clock.next(...stampsOf(item?.choices ?? {}));
  await commit({ type: 'choose', id: uuidv7(), itemId, set, stamp });
}

/**
 * Puts tags on an item, or takes them off.
 *
 * @param set by key (see tagKey): the tag as the reader writes it, or null to take it off
 */
export async function tag(itemId: string, set: Readonly<Record<string, string | null>>): Promise<void> {
  const item = await store().items.get(itemId);
  const stamp = clock.next(...stampsOf(item?.tags ?? {}));
  await commit({ type: 'tag', id: uuidv7(), itemId, set, stamp });
}

/** Records how far the reader is, and what of the text went by ear. */
export async function recordProgress(
  itemId: string,
  furthest: number,
  position: TextAnchor,
  heard: Spans = [],
): Promise<void> {
  const item = await store().items.get(itemId);
  const stamp = clock.next(item?.progress.position?.at ?? NEVER);
  await commit({ type: 'progress', id: uuidv7(), itemId, furthest, position, heard, stamp });
}

/** Records a sitting, or that it has grown. */
export async function recordActivity(activity: Activity): Promise<void> {
  await commit({
    type: 'activity',
    id: uuidv7(),
    itemId: activity.itemId,
    activity,
    stamp: clock.next(),
  });
}

/** Gives an item its text by hand; it is made ready as soon as there is a connection. */
export async function giveText(itemId: string, given: GivenText): Promise<void> {
  await commit({ type: 'provide', id: uuidv7(), itemId, given, stamp: clock.next() });
}

/** Asks the server to fetch the page again. */
export async function fetchAgain(itemId: string): Promise<void> {
  await commit({ type: 'refetch', id: uuidv7(), itemId, stamp: clock.next() });
}

/** A feed to be followed. */
export interface Followed {
  address: string;
  /** As it is called where it comes from; the feed's own title otherwise. */
  title: string | null;
  /** Put on what is saved from it. */
  tag: string | null;
}

/** The id of the feed at an address: the same on every device (RFC 9562, 5.5), so that it is followed once. */
export function feedIdOf(address: string): string {
  return uuidv5(canonicalAddress(address), uuidv5.URL);
}

/** Follows feeds, at once or not at all. @returns their ids */
export async function followFeeds(feeds: readonly Followed[]): Promise<string[]> {
  const known = await store().feeds.bulkGet(feeds.map(({ address }) => feedIdOf(address)));
  const mutations = feeds.flatMap(({ address, title, tag: written }, at): Mutation[] => {
    const feedId = feedIdOf(address);
    const tagName = TagName.safeParse(written ?? '');
    const set = {
      ...(title?.trim() ? { title: title.trim().slice(0, 500) } : {}),
      ...(tagName.success ? { tag: tagName.data } : {}),
    };
    const base = () => ({ id: uuidv7(), feedId, stamp: clock.next(...stampsOf(known[at]?.choices ?? {})) });
    return [
      { ...base(), type: 'follow', address, followedAt: Date.now() },
      ...(Object.keys(set).length > 0 ? [{ ...base(), type: 'feed' as const, set }] : []),
    ];
  });
  await commit(...mutations);
  return feeds.map(({ address }) => feedIdOf(address));
}

/** Records what the reader decided about a feed. */
export async function changeFeed(feedId: string, set: FeedChanges): Promise<void> {
  const feed = await store().feeds.get(feedId);
  const stamp = clock.next(...stampsOf(feed?.choices ?? {}));
  await commit({ type: 'feed', id: uuidv7(), feedId, set, stamp });
}

/** Marks a passage. @returns the highlight's id */
export async function mark(itemId: string, kind: HighlightKind, passage: MarkedPassage): Promise<string> {
  const highlightId = uuidv7();
  await commit({
    type: 'mark',
    id: uuidv7(),
    itemId,
    highlightId,
    madeAt: Date.now(),
    kind,
    passage,
    stamp: clock.next(),
  });
  return highlightId;
}

/** Records what the reader decided about a highlight. */
export async function changeMark(highlightId: string, set: HighlightChanges): Promise<void> {
  const highlight = await store().highlights.get(highlightId);
  if (!highlight) return;
  const { itemId } = highlight;
  const stamp = clock.next(...stampsOf(highlight.choices));
  await commit({ type: 'change-mark', id: uuidv7(), itemId, highlightId, set, stamp });
}

/** Keeps a search. @returns its id */
export async function keepSearch(written: string, scope: Scope): Promise<string> {
  const searchId = uuidv7();
  const stamp = clock.next();
  await putSearch({ id: searchId, madeAt: Date.now() }, { written, scope, removed: false }, stamp);
  return searchId;
}

/** Keeps a search no longer, or, with `removed` false, keeps it again. */
export async function removeSearch(search: SavedSearch, removed: boolean): Promise<void> {
  const { written, scope } = search.choices;
  const stamp = clock.next(...stampsOf(search.choices));
  await putSearch(search, { written: written.value, scope: scope.value, removed }, stamp);
}

async function putSearch(
  { id, madeAt }: Pick<SavedSearch, 'id' | 'madeAt'>,
  set: { written: string; scope: Scope; removed: boolean },
  stamp: string,
): Promise<void> {
  await commit({ type: 'search', id: uuidv7(), searchId: id, madeAt, set, stamp });
}

type NewNote = Pick<WrittenNote, 'itemId' | 'on'>;

/** Writes a note. @returns its id */
export async function writeNote({ itemId, on }: NewNote, set: NoteChanges): Promise<string> {
  const noteId = uuidv7();
  await putNote({ id: noteId, madeAt: Date.now(), itemId, on }, set, clock.next());
  return noteId;
}

/** Records what the reader decided about a note. */
export async function changeNote(note: WrittenNote, set: NoteChanges): Promise<void> {
  await putNote(note, set, clock.next(...stampsOf(note.choices)));
}

async function putNote(
  { id, madeAt, itemId, on }: Pick<WrittenNote, 'id' | 'madeAt' | 'itemId' | 'on'>,
  set: NoteChanges,
  stamp: string,
): Promise<void> {
  const [noteId, noteItemId] = [id, itemId];
  await commit({ type: 'write', id: uuidv7(), noteId, madeAt, noteItemId, on, set, stamp });
}

/** Makes cards, all or none. @returns their ids */
export async function makeCards(
  cards: readonly (Pick<Card, 'source'> & { front: string; back: string })[],
): Promise<string[]> {
  const mutations = cards.map(({ source, front, back }) => ({
    type: 'card' as const,
    id: uuidv7(),
    cardId: uuidv7(),
    madeAt: Date.now(),
    source,
    set: { front, back },
    stamp: clock.next(),
  }));
  await commit(...mutations);
  return mutations.map(({ cardId }) => cardId);
}

/** Records what the reader decided about a card. */
export async function changeCard({ id, madeAt, source, choices }: Card, set: CardChanges): Promise<void> {
  const stamp = clock.next(...stampsOf(choices));
  await commit({ type: 'card', id: uuidv7(), cardId: id, madeAt, source, set, stamp });
}

/** Records an answer, or that it is taken back. */
export async function recall(cardId: string, answer: Recall): Promise<void> {
  await commit({ type: 'recall', id: uuidv7(), cardId, recall: answer, stamp: clock.next() });
}
