import {
  type Dossier,
  type DossierChoices,
  type DossierEntry,
  type DossierWords,
  type EntryChoices,
  type EntryPart,
  NEW_DOSSIER,
  onlyVersion,
} from '../model';

const by = <Value>(value: Value) => ({ value, at: '000000001-0000-a' });
const registers = <Fields extends object>(fields: Fields) =>
  Object.fromEntries(Object.entries(fields).map(([field, value]) => [field, by(value)])) as {
    [Field in keyof Fields]: { value: Fields[Field]; at: string };
  };

/** A dossier of which only that is said which is named. */
export function dossierFrom({
  id,
  columns = {},
  introduction = '',
  closing = '',
  ...choices
}: {
  id: string;
  columns?: Record<string, { title: string | null; hidden: boolean }>;
} & Partial<DossierChoices & DossierWords>): Dossier {
  return {
    id,
    madeAt: 1,
    choices: registers({ ...NEW_DOSSIER, ...choices }),
    columns: registers(columns),
    words: { introduction: [onlyVersion(by(introduction))], closing: [onlyVersion(by(closing))] },
  };
}

/** Something in a dossier, first of all where no rank is named. */
export function entryFrom({
  id,
  dossierId,
  part,
  cells = {},
  ...choices
}: {
  id: string;
  dossierId: string;
  part: EntryPart;
  cells?: Record<string, string | null>;
} & Partial<EntryChoices>): DossierEntry {
  const whole = { rank: 'a0', text: '', purpose: 'bridge' as const, nested: false, removed: false, ...choices };
  return { id, dossierId, madeAt: 1, part, choices: registers(whole), cells: registers(cells) };
}
