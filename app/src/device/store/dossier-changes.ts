import { inOrder, type NewEntryRank, ranksAt } from '@dorvel/core/dossier';
import {
  type Dossier,
  type EntryChoices,
  type EntryPart,
  type FactColumn,
  MAX_NOTE_LENGTH,
  type NotePurpose,
} from '@dorvel/core/model';
import type { DossierChanges, Mutation } from '@dorvel/core/records';
import { commit, make, store } from './commit';
import { readDossiers } from './library';

/** Something to be put into a dossier. */
export type NewEntry = EntryPart & { text?: string; nested?: boolean };

/** Begins a dossier. @returns its id */
export async function beginDossier(title: string): Promise<string> {
  const begun = make.dossier({ title: title.trim().slice(0, 200) || 'Untitled' });
  await commit(begun);
  return begun.dossierId;
}

/**
 * Records what the reader decided about a dossier, or about columns of its facts table.
 *
 * @param began its words as the reader saw them when they began to write
 */
export async function changeDossier(
  dossierId: string,
  set: DossierChanges,
  columns: Readonly<Record<string, FactColumn>> = {},
  began?: Dossier,
): Promise<void> {
  const dossier = await store().dossiers.get(dossierId);
  if (dossier) await commit(make.changeDossier({ ...dossier, words: (began ?? dossier).words }, set, columns));
}

/**
 * Puts things into a dossier, all or none.
 *
 * @param at how many stand before them; at the end where nothing is said
 * @returns the ids of the entries
 */
export async function putInDossier(dossierId: string, things: readonly NewEntry[], at?: number): Promise<string[]> {
  const ordered = await orderedIn(dossierId);
  const { ranks, others } = ranksAt(ordered, at ?? ordered.length, things.length);
  const made = things.map(({ text, nested, ...part }, n) =>
    make.entry(dossierId, part, {
      rank: ranks[n] ?? '',
      ...(text === undefined ? {} : { text: text.slice(0, 1000) }),
      ...(nested === undefined ? {} : { nested }),
    }),
  );
  await commit(...made, ...reranked(ordered, others));
  return made.map(({ entryId }) => entryId);
}

/** Writes a note into a dossier: a note like any other, and its place. @returns the id of the entry */
export async function writeInDossier(
  dossierId: string,
  markdown: string,
  purpose: NotePurpose,
  at?: number,
): Promise<string> {
  const ordered = await orderedIn(dossierId);
  const { ranks, others } = ranksAt(ordered, at ?? ordered.length, 1);
  const note = make.note({ itemId: null, on: { kind: 'nothing' } }, { text: markdown.slice(0, MAX_NOTE_LENGTH) });
  const entry = make.entry(dossierId, { kind: 'note', noteId: note.noteId }, { rank: ranks[0] ?? '', purpose });
  await commit(note, entry, ...reranked(ordered, others));
  return entry.entryId;
}

/** Records what the reader decided about things in a dossier, all or none. */
export async function changeEntries(
  ids: readonly string[],
  set: Partial<EntryChoices>,
  cells: Readonly<Record<string, string | null>> = {},
): Promise<void> {
  const known = await store().entries.bulkGet([...ids]);
  await commit(...known.flatMap((entry) => (entry ? [make.changeEntry(entry, set, cells)] : [])));
}

/** Gives things in dossiers other places, all or none. */
export async function rerankEntries(ranks: readonly NewEntryRank[]): Promise<void> {
  const known = await store().entries.bulkGet(ranks.map(({ id }) => id));
  await commit(
    ...reranked(
      known.flatMap((entry) => entry ?? []),
      ranks,
    ),
  );
}

/** The dossier that was changed or filled last. */
export const lastDossier = async (): Promise<Dossier | null> => (await readDossiers(store()))[0] ?? null;

const orderedIn = async (dossierId: string) => inOrder(await store().entries.toArray(), dossierId);

function reranked(
  entries: readonly Parameters<typeof make.changeEntry>[0][],
  ranks: readonly NewEntryRank[],
): Mutation[] {
  return ranks.flatMap(({ id, rank }) => {
    const entry = entries.find((each) => each.id === id);
    return entry ? [make.changeEntry(entry, { rank })] : [];
  });
}
