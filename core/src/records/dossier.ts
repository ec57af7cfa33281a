import { z } from 'zod';
import {
  ColumnKey,
  Dossier,
  DossierChoices,
  DossierEntry,
  DossierWords,
  EntryChoices,
  EntryPart,
  EVERY_DEVICE,
  FactColumn,
  Id,
  Instant,
  MAX_CELL_LENGTH,
  NEW_DOSSIER,
  Seen,
} from '../model';
import { mergeVersions, withoutLater } from '../notes';
import { CHANGE, decisions, type Kind } from './kind';
import { mergeRegisters, untouched, withChanges } from './registers';

/** A dossier is begun, or something about it decided; only what is named changes. */
const DossierMutation = z.object({
  ...CHANGE,
  type: z.literal('dossier'),
  dossierId: Id,
  madeAt: Instant,
  set: DossierChoices.extend(DossierWords.shape).partial(),
  columns: z.record(ColumnKey, FactColumn).default({}),
  /** What of its words the writer had seen; all of them before this change, where nothing is said. */
  sees: Seen.optional(),
});
export type DossierMutation = z.infer<typeof DossierMutation>;
export type DossierChanges = DossierMutation['set'];

/** Something is put into a dossier, or something about it decided; only what is named changes. */
const EntryMutation = z.object({
  ...CHANGE,
  type: z.literal('entry'),
  entryId: Id,
  dossierId: Id,
  madeAt: Instant,
  part: EntryPart,
  set: EntryChoices.partial(),
  cells: z.record(ColumnKey, z.string().trim().max(MAX_CELL_LENGTH).nullable()).default({}),
});
export type EntryMutation = z.infer<typeof EntryMutation>;
export type EntryChanges = EntryMutation['set'];

/** Stands where nobody has decided: before all that was put in its place. */
const NO_CHOICES: EntryChoices = { rank: 'a0', text: '', purpose: 'bridge', nested: false, removed: false };

/** Registers that nobody has touched. */
const blank = <Fields extends object>(fields: Fields) =>
  Object.fromEntries(Object.entries(fields).map(([field, value]) => [field, untouched(value)])) as {
    [Field in keyof Fields]: { value: Fields[Field]; at: string };
  };

function applyDossierMutation(dossier: Dossier | undefined, mutation: DossierMutation): Dossier {
  const { dossierId: id, madeAt, set, columns, stamp, sees = { [EVERY_DEVICE]: stamp } } = mutation;
  const { introduction, closing, ...decided } = set;
  const choices = withChanges(dossier?.choices ?? blank(NEW_DOSSIER), decided, stamp);
  const written = (text: string | undefined) =>
    text === undefined ? [] : [{ at: stamp, text, sees: withoutLater(sees, stamp) }];
  const words = { introduction: written(introduction), closing: written(closing) };
  const made: Dossier = { id, madeAt, choices, columns: withChanges({}, columns, stamp), words };
  return dossier ? mergeDossiers(dossier, made) : made;
}

/** Joins two states of one dossier: each choice and each column by its latest stamp, and all that was written apart. */
function mergeDossiers(a: Dossier, b: Dossier): Dossier {
  return {
    ...a,
    ...b,
    madeAt: Math.min(a.madeAt, b.madeAt),
    choices: mergeRegisters(a.choices, b.choices),
    columns: mergeRegisters(a.columns, b.columns),
    words: {
      introduction: mergeVersions(a.words.introduction, b.words.introduction),
      closing: mergeVersions(a.words.closing, b.words.closing),
    },
  };
}

function applyEntryMutation(entry: DossierEntry | undefined, mutation: EntryMutation): DossierEntry {
  const { entryId: id, dossierId, madeAt, part, set, cells, stamp } = mutation;
  const choices = withChanges(entry?.choices ?? blank(NO_CHOICES), set, stamp);
  const made: DossierEntry = { id, dossierId, madeAt, part, choices, cells: withChanges({}, cells, stamp) };
  return entry ? mergeEntries(entry, made) : made;
}

/** Joins two states of one entry: what it stands for as it was said first, the rest by its latest stamp. */
function mergeEntries(a: DossierEntry, b: DossierEntry): DossierEntry {
  const [first] = [a, b].sort((x, y) => x.madeAt - y.madeAt || (place(x) < place(y) ? -1 : 1)) as [DossierEntry];
  return {
    ...a,
    ...b,
    dossierId: first.dossierId,
    madeAt: first.madeAt,
    part: first.part,
    choices: mergeRegisters(a.choices, b.choices),
    cells: mergeRegisters(a.cells, b.cells),
  };
}

const place = ({ dossierId, part }: DossierEntry): string => JSON.stringify([dossierId, part]);

/** A chosen, ordered set. */
export const dossierKind: Kind<Dossier, DossierMutation> = {
  name: 'dossier',
  plural: 'dossiers',
  version: 2,
  schema: Dossier,
  mutation: DossierMutation,
  types: ['dossier'],
  idOf: ({ dossierId }) => dossierId,
  itemIdOf: () => null,
  apply: applyDossierMutation,
  merge: mergeDossiers,
  restate({ id: dossierId, madeAt, choices, columns, words }, base) {
    const about = { type: 'dossier' as const, dossierId, madeAt };
    return [
      { ...base(), ...about, set: {}, columns: {} },
      ...decisions(choices, (stamp, set): DossierMutation => ({ ...base(stamp), ...about, set, columns: {} })),
      ...decisions(columns, (stamp, set): DossierMutation => ({ ...base(stamp), ...about, set: {}, columns: set })),
      ...(['introduction', 'closing'] as const).flatMap((field) =>
        words[field].map(({ at, text, sees }): DossierMutation => ({
          ...base(at),
          ...about,
          set: { [field]: text },
          columns: {},
          sees,
        })),
      ),
    ];
  },
};

/** One thing in a dossier. It stays when its item goes: its place, and what was written in its row, are the reader's. */
export const entryKind: Kind<DossierEntry, EntryMutation> = {
  name: 'entry',
  plural: 'entries',
  version: 1,
  schema: DossierEntry,
  mutation: EntryMutation,
  types: ['entry'],
  idOf: ({ entryId }) => entryId,
  itemIdOf: () => null,
  apply: applyEntryMutation,
  merge: mergeEntries,
  restate({ id: entryId, dossierId, madeAt, part, choices, cells }, base) {
    const about = { type: 'entry' as const, entryId, dossierId, madeAt, part };
    return [
      { ...base(), ...about, set: {}, cells: {} },
      ...decisions(choices, (stamp, set): EntryMutation => ({ ...base(stamp), ...about, set, cells: {} })),
      ...decisions(cells, (stamp, set): EntryMutation => ({ ...base(stamp), ...about, set: {}, cells: set })),
    ];
  },
};
