import { type AddressReading, canonicalAddress } from '@dorvel/core/address';
import {
  type Activity,
  type Card,
  type GivenText,
  type Highlight,
  type HighlightKind,
  type HowMuch,
  type Item,
  type MarkedPassage,
  MAX_NOTE_LENGTH,
  type Note,
  type PinSubject,
  type Place,
  type Recall,
  type SavedSearch,
  type Scope,
  type Silenced,
  silenceName,
  SILENCES,
  type Spans,
  tagKey,
  TagName,
  type TextAnchor,
  type WordPutRight,
} from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import { saveAgain } from '@dorvel/core/queue';
import {
  type CardChanges,
  type FeedChanges,
  type HighlightChanges,
  type ItemChoices,
  type Mutation,
  type NoteChanges,
  noteKind,
  type TagChanges,
} from '@dorvel/core/records';
import { v5 as uuidv5 } from 'uuid';
import { syncSoon, tellOf } from '@/device/sync/sync-loop';
import { useAccount } from './account';
import { commit, make, store } from './commit';
import { journalChanges, journalledChanges } from './journal';
import { replay } from './replay';

/** The items in the Queue, as they are now. */
export async function readQueue(): Promise<Item[]> {
  return store()
    .items.where('choices.stage.value')
    .equals('queue')
    .and(({ capture }) => capture.duplicateOf === null)
    .toArray();
}

/** Makes the changes that were cut off when the app was closed. What cannot be made is told. */
export async function replayJournal(): Promise<void> {
  const { account, store: open } = useAccount.getState();
  if (!account || !open) return;
  await replay(open, journalledChanges(account.id), (says) => tellOf([{ kind: 'refused', says }]));
  syncSoon();
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
  const save = make.save({ address, howMuch });
  const { itemId } = save;
  const changes: Mutation[] = given ? [save, make.provide(itemId, given)] : [save];
  // Not even while it is looked for may it get lost.
  const noted = journalChanges(useAccount.getState().account?.id ?? '', changes);
  const known = await store()
    .items.where('capture.addressKey')
    .equals(canonicalAddress(address))
    .and((item) => item.capture.duplicateOf === null)
    .first();
  if (!known) {
    await commit(...changes);
    return { kind: 'saved', itemId };
  }
  await choose(known.id, saveAgain(known, await readQueue(), Date.now()));
  if (given) await giveText(known.id, given);
  noted.done();
  return { kind: 'already-saved', item: known };
}

/** So many changes are written together: each writing makes every list on screen again. */
const AT_ONCE = 40;

/** A page, or a file with what is in it, to be saved with what is known of it. */
export interface ToSave {
  address: string;
  given?: GivenText;
  /** Where it is another than that of all. */
  howMuch?: HowMuch;
  tags?: readonly string[];
  /** When it was saved first, elsewhere: milliseconds since 1970. */
  savedAt?: number;
  /** What it was called where it comes from. */
  title?: string;
  /** Where it is from, of a picture. */
  place?: Place;
  /** It was read elsewhere already. */
  isRead?: boolean;
  /** What the reader wrote on it. */
  note?: string;
}

/** A title has no more characters. */
const MAX_TITLE_LENGTH = 500;

/**
 * Saves many pages and files at once; see saveAddress. Those that the library has are brought up.
 *
 * @param requests addresses, those of files with what is in them; their tags are added to those that an item has. A date of
 *   saving is kept for what is new
 * @param isWanted asked now and then: false ends it; what is saved by then stays
 * @param done told how many are done
 * @returns ids of the items that are new
 */
export async function saveAll(
  requests: readonly ToSave[],
  howMuch: HowMuch,
  isWanted: () => boolean,
  done: (count: number) => void,
): Promise<string[]> {
  const items = await store().allItems();
  const canonical = new Map(
    items.filter(({ capture }) => capture.duplicateOf === null).map((item) => [item.capture.addressKey, item]),
  );
  const queue = items.filter((item) => item.choices.stage.value === 'queue');
  const made: string[] = [];
  for (let at = 0; at < requests.length && isWanted(); at += AT_ONCE) {
    const part = requests.slice(at, at + AT_ONCE);
    const mutations = part.flatMap((request): Mutation[] => {
      const { address, given, tags = [], savedAt, title, isRead, note, place } = request;
      const known = canonical.get(canonicalAddress(address));
      const save = make.save({
        address,
        howMuch: request.howMuch ?? howMuch,
        ...(savedAt === undefined ? {} : { savedAt }),
      });
      const itemId = known?.id ?? save.itemId;
      const set = Object.fromEntries(tags.map((name) => [tagKey(name), name]));
      const tagged = tags.length > 0 ? [make.tag(itemId, set, known)] : [];
      if (known) return [make.choose(itemId, saveAgain(known, queue, Date.now()), known), ...tagged];
      made.push(itemId);
      const chosen: ItemChoices = {
        ...(title === undefined ? {} : { listedAs: title.slice(0, MAX_TITLE_LENGTH) }),
        ...(place ? { place } : {}),
        ...(isRead ? { stage: 'finished', finishedAt: savedAt ?? Date.now() } : {}),
      };
      const written =
        note === undefined ? [] : [make.note(ownNote.ofItem(itemId), { text: note.slice(0, MAX_NOTE_LENGTH) })];
      return [
        save,
        ...(given ? [make.provide(itemId, given)] : []),
        ...(Object.keys(chosen).length > 0 ? [make.choose(itemId, chosen)] : []),
        ...tagged,
        ...written,
      ];
    });
    await commit(...mutations);
    done(at + part.length);
  }
  return made;
}

/** Records what the reader decided about many items: all of it at once, or none. */
export async function chooseAll(changes: readonly { itemId: string; set: ItemChoices }[]): Promise<void> {
  const items = await store().items.bulkGet(changes.map(({ itemId }) => itemId));
  await commit(...changes.map(({ itemId, set }, at) => make.choose(itemId, set, items[at])));
}

/** Puts tags on many items, or takes them off: all of it at once, or none. */
export async function tagAll(changes: readonly { itemId: string; set: TagChanges }[]): Promise<void> {
  const items = await store().items.bulkGet(changes.map(({ itemId }) => itemId));
  await commit(...changes.map(({ itemId, set }, at) => make.tag(itemId, set, items[at])));
}

/** Puts a word right that stands in an item's picture. @param place see placeOfWord */
export async function putRight(itemId: string, place: string, word: WordPutRight): Promise<void> {
  await commit(make.putRight(itemId, { [place]: word }, await store().items.get(itemId)));
}

/** Records what the reader decided about an item. */
export const choose = (itemId: string, set: ItemChoices) => chooseAll([{ itemId, set }]);

/** Puts tags on an item, or takes them off. */
export const tag = (itemId: string, set: TagChanges) => tagAll([{ itemId, set }]);

/** Records how far the reader is, and what of the text went by ear. */
export async function recordProgress(
  itemId: string,
  furthest: number,
  position: TextAnchor,
  heard: Spans = [],
): Promise<void> {
  const item = await store().items.get(itemId);
  await commit(make.progress(itemId, { furthest, position, heard }, item));
}

/** Records a sitting, or that it has grown. */
export const recordActivity = (activity: Activity) => commit(make.activity(activity));

/** Gives an item its text by hand; it is made ready as soon as there is a connection. */
export const giveText = (itemId: string, given: GivenText) => commit(make.provide(itemId, given));

/** Asks the server to fetch the page again. */
export const fetchAgain = (itemId: string) => commit(make.refetch(itemId));

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
    return [
      make.follow(feedId, address, known[at]),
      ...(Object.keys(set).length > 0 ? [make.changeFeed(feedId, set, known[at])] : []),
    ];
  });
  await commit(...mutations);
  return feeds.map(({ address }) => feedIdOf(address));
}

/** Records what the reader decided about a feed. */
export async function changeFeed(feedId: string, set: FeedChanges): Promise<void> {
  await commit(make.changeFeed(feedId, set, await store().feeds.get(feedId)));
}

/** Marks a passage. @returns the highlight's id */
export async function addHighlight(
  itemId: string,
  kind: HighlightKind,
  passage: MarkedPassage,
  madeAt?: number,
): Promise<string> {
  const highlight = make.highlight(itemId, kind, passage, madeAt);
  await commit(highlight);
  return highlight.highlightId;
}

/** What is marked in an item as this device has it now, which a screen shows a moment later. */
export const highlightsNowIn = (itemId: string): Promise<Highlight[]> => store().highlightsOf(itemId);

/** Records what the reader decided about a highlight. */
export async function changeHighlight(highlightId: string, set: HighlightChanges): Promise<void> {
  const highlight = await store().highlights.get(highlightId);
  if (highlight) await commit(make.changeHighlight(highlight, set));
}

/** Keeps a search. @returns its id */
export async function keepSearch(written: string, scope: Scope): Promise<string> {
  const kept = make.keepSearch(written, scope);
  await commit(kept);
  return kept.searchId;
}

/** Keeps a search no longer, or, with `removed` false, keeps it again. */
export const removeSearch = (search: SavedSearch, removed: boolean) => commit(make.removeSearch(search, removed));

/** Silences a term or a site for good, or, with `silenced` false, lets it speak again. */
export async function silence(what: Silenced, silenced: boolean): Promise<void> {
  const id = uuidv5(silenceName(what), SILENCES);
  await commit(make.silence(id, what, silenced, await store().silences.get(id)));
}

/** Pins something to Now, or, with `pinned` false, takes it off. @param id of what is pinned */
export async function pin(id: string, of: PinSubject, pinned: boolean): Promise<void> {
  await commit(make.pin(id, of, pinned, await store().pins.get(id)));
}

/** Writes a note. @returns its id */
export async function writeNote(
  about: Pick<Note, 'itemId' | 'on'>,
  set: NoteChanges,
  madeAt?: number,
): Promise<string> {
  const note = make.note(about, set, madeAt);
  await commit(note);
  return note.noteId;
}

/**
 * Writes the note that an item or a highlight has a field for.
 *
 * @param before as the reader saw it when they began to write; null when there was none
 * @returns the note as its writer knows it now
 */
export async function writeOwnNote(
  subject: ReturnType<typeof ownNote.ofItem>,
  before: Note | null,
  text: string,
): Promise<Note | null> {
  const set = { text: text.slice(0, MAX_NOTE_LENGTH), removed: false };
  const change = before ? make.changeNote(before, set) : make.note(subject, set);
  await commit(change);
  return noteKind.apply(before ?? undefined, change) ?? null;
}

/** The note that an item or a highlight has a field for, as it is now. */
export const ownNoteOf = async (id: string): Promise<Note | null> => (await store().notes.get(id)) ?? null;

/** Records what the reader decided about a note. */
export const changeNote = (note: Note, set: NoteChanges) => commit(make.changeNote(note, set));

/** Makes cards, all or none. @returns their ids */
export async function makeCards(
  cards: readonly (Pick<Card, 'source'> & { front: string; back: string })[],
): Promise<string[]> {
  const made = cards.map(({ source, front, back }) => make.card(source, { front, back }));
  await commit(...made);
  return made.map(({ cardId }) => cardId);
}

/** Records what the reader decided about a card. */
export const changeCard = (card: Card, set: CardChanges) => commit(make.changeCard(card, set));

/** Records an answer, or that it is taken back. */
export const recall = (cardId: string, answer: Recall) => commit(make.recall(cardId, answer));
