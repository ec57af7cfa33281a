import { ranksAfter } from '@dorvel/core/dossier';
import {
  type EntryPart,
  type GivenText,
  type HighlightKind,
  type HowMuch,
  isPushable,
  type MarkedPassage,
  MAX_NOTE_LENGTH,
  type Note,
  type Silenced,
  silenceName,
  SILENCES,
} from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import {
  type ChangeMaker,
  changeMaker,
  entryKind,
  type EntryMutation,
  type ItemChoices,
  type Mutation,
  noteKind,
  type TagChanges,
} from '@dorvel/core/records';
import { createClock, type HybridClock } from '@dorvel/core/sync';
import { v5 as uuidv5, v7 as uuidv7 } from 'uuid';
import { type Pairing, storage } from './storage';

let clock: HybridClock | undefined;
let aheadMs = 0;

/** Changes by the server's clock, as on all devices of the reader. */
async function maker(): Promise<ChangeMaker> {
  aheadMs = await storage.serverAheadMs();
  clock ??= createClock(await storage.device(), () => Date.now() + aheadMs, await storage.lastStamp());
  return changeMaker({ clock, newId: uuidv7, now: Date.now });
}

/** What is to be saved. */
export interface SaveRequest {
  address: string;
  howMuch: HowMuch;
  /** The page, or the part of it, as the browser shows it. */
  given?: GivenText;
  /** By key, as in a change of tags. */
  tags?: Record<string, string>;
  title?: string;
  note?: string;
}

/** What cannot be sent is fetched by the server, as far as it can. */
const isSendable = (given: GivenText | undefined) => given !== undefined && isPushable(given.body);

/** Writes a save down, to be sent. @returns the new item's id */
export async function keepSave(pairing: Pairing, request: SaveRequest): Promise<string> {
  const { address, howMuch, given, tags, title, note } = request;
  const make = await maker();
  const save = make.save({ address, howMuch });
  const { itemId } = save;
  const mutations: Mutation[] = [save];
  if (given && isSendable(given)) mutations.push(make.provide(itemId, given));
  if (title !== undefined) mutations.push(make.choose(itemId, { title }));
  if (note !== undefined) mutations.push(make.note(ownNote.ofItem(itemId), { text: note }));
  if (tags) mutations.push(make.tag(itemId, tags));
  await storage.outbox.add(pairing.account.id, mutations);
  return itemId;
}

/** Writes down that things are put at the end of a dossier. @returns the changes, by which they can be taken out again */
export async function keepEntries(
  pairing: Pairing,
  { dossierId, end, parts }: { dossierId: string; end: string | null; parts: readonly EntryPart[] },
): Promise<EntryMutation[]> {
  const make = await maker();
  const ranks = ranksAfter(end, parts.length);
  const made = parts.map((part, n) => make.entry(dossierId, part, { rank: ranks[n] ?? '' }));
  await storage.outbox.add(pairing.account.id, made);
  return made;
}

/** The same, taken out again. */
export async function keepTakenOut(pairing: Pairing, entries: readonly EntryMutation[]): Promise<void> {
  const make = await maker();
  const known = entries.flatMap((entry) => entryKind.apply(undefined, entry) ?? []);
  await storage.outbox.add(
    pairing.account.id,
    known.map((entry) => make.changeEntry(entry, { removed: true })),
  );
}

/** Writes down what the reader decided about an item. */
export async function keepChoice(pairing: Pairing, itemId: string, set: ItemChoices): Promise<void> {
  await storage.outbox.add(pairing.account.id, [(await maker()).choose(itemId, set)]);
}

/**
 * Writes down what the reader wrote in the note of an item.
 *
 * @param before as the reader saw it; null when there was none
 * @returns the note as its writer knows it now
 */
export async function keepNote(
  pairing: Pairing,
  itemId: string,
  before: Note | null,
  text: string,
): Promise<Note | null> {
  const make = await maker();
  const set = { text: text.slice(0, MAX_NOTE_LENGTH), removed: false };
  const change = before ? make.changeNote(before, set) : make.note(ownNote.ofItem(itemId), set);
  await storage.outbox.add(pairing.account.id, [change]);
  return noteKind.apply(before ?? undefined, change) ?? null;
}

/** Writes down tags put on, or taken off as null. */
export async function keepTags(pairing: Pairing, itemId: string, set: TagChanges): Promise<void> {
  await storage.outbox.add(pairing.account.id, [(await maker()).tag(itemId, set)]);
}

/** Writes down that another amount is to be kept, with the page again where it is here. */
export async function keepHowMuch(
  pairing: Pairing,
  itemId: string,
  howMuch: HowMuch,
  given: GivenText | undefined,
): Promise<void> {
  const make = await maker();
  await storage.outbox.add(pairing.account.id, [
    make.choose(itemId, { howMuch }),
    given && isSendable(given) ? make.provide(itemId, given) : make.refetch(itemId),
  ]);
}

/** Writes down that a passage was marked. @returns the highlight's id */
export async function keepHighlight(
  pairing: Pairing,
  itemId: string,
  kind: HighlightKind,
  passage: MarkedPassage,
): Promise<string> {
  const highlight = (await maker()).highlight(itemId, kind, passage);
  await storage.outbox.add(pairing.account.id, [highlight]);
  return highlight.highlightId;
}

/** Writes down that something is silenced, or, with `silenced` false, may speak again. */
export async function keepSilence(pairing: Pairing, what: Silenced, silenced: boolean): Promise<void> {
  const id = uuidv5(silenceName(what), SILENCES);
  await storage.outbox.add(pairing.account.id, [(await maker()).silence(id, what, silenced)]);
}
