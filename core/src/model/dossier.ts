import { z } from 'zod';
import { extensible } from './extensible';
import { ContentHash, Id, Instant, NEVER } from './ids';
import { NoteText, onlyVersion, TextVersions } from './note';
import { Rank } from './rank';
import { stamped, stampedEach } from './register';

/** How the page of a dossier is set: designs of its typography. */
export const DossierDesign = z.enum(['quiet', 'report', 'almanac', 'poster', 'sheets']);
export type DossierDesign = z.infer<typeof DossierDesign>;
export const DossierAccent = z.enum(['plum', 'moss', 'ochre', 'brick', 'ink']);
export type DossierAccent = z.infer<typeof DossierAccent>;
export const DossierTypeface = z.enum(['literata', 'source-serif', 'atkinson']);
export type DossierTypeface = z.infer<typeof DossierTypeface>;

const MAX_COLUMNS = 80;
export const MAX_CELL_LENGTH = 400;

/** A column of the facts table: by its key, what the reader decided about it. */
export const FactColumn = z.object({
  /** What the reader calls it; null for its usual name. */
  title: z.string().trim().max(60).nullable(),
  hidden: z.boolean(),
});
export type FactColumn = z.infer<typeof FactColumn>;
/** `own-` and an id for a column of the reader's; else the key of what pages state, see fact.ts. */
export const ColumnKey = z.string().min(1).max(80);

const limited = (most: number) => (value: object) => Object.keys(value).length <= most;

/** What the reader decides about a dossier as a whole; each field a register of its own. */
export const DossierChoices = z.object({
  title: z.string().trim().min(1).max(200),
  /** A picture of what is in it. */
  lead: ContentHash.nullable(),
  design: DossierDesign,
  accent: DossierAccent,
  typeface: DossierTypeface,
  /** Whether the page that others see tells the owner's name. */
  named: z.boolean(),
  /** Whether the facts table is part of what is handed on. */
  withFacts: z.boolean(),
  /** Whether its items are read aloud in the reader's podcast, as a feed of their own. */
  heard: z.boolean(),
  removed: z.boolean(),
});
export type DossierChoices = z.infer<typeof DossierChoices>;

export const NEW_DOSSIER: DossierChoices = {
  title: 'Untitled',
  lead: null,
  design: 'quiet',
  accent: 'plum',
  typeface: 'literata',
  named: false,
  withFacts: false,
  heard: false,
  removed: false,
};

/** The reader's words around what is in a dossier, in Markdown. Not one value each: what two devices write apart both stays. */
export const DossierWords = z.object({ introduction: NoteText, closing: NoteText });
export type DossierWords = z.infer<typeof DossierWords>;

const DossierNow = extensible({
  id: Id,
  madeAt: Instant,
  choices: stampedEach(DossierChoices, { heard: false }),
  /** Of the facts table, by key, each a register of its own. */
  columns: z.record(ColumnKey, stamped(FactColumn)).refine(limited(MAX_COLUMNS), 'too-many-columns'),
  words: z.object({ introduction: TextVersions, closing: TextVersions }),
});

/** A dossier as it was when the words around it were one value each, of which the latest won. */
const EarlierDossier = z.looseObject({
  choices: z.looseObject({ introduction: stamped(NoteText), closing: stamped(NoteText) }),
});

/** A stored dossier with its words as they are kept now; what is none, or has them so, as it is. */
export function withWordsApart(stored: unknown): unknown {
  const earlier = EarlierDossier.safeParse(stored).data;
  if (!earlier || 'words' in earlier) return stored;
  const { introduction, closing, ...choices } = earlier.choices;
  const versions = (register: typeof closing) => (register.at === NEVER ? [] : [onlyVersion(register)]);
  return { ...earlier, choices, words: { introduction: versions(introduction), closing: versions(closing) } };
}

/** A chosen, ordered set of things with the reader's words between them. What is in it are its entries. */
export const Dossier = z.preprocess(withWordsApart, DossierNow);
export type Dossier = z.infer<typeof DossierNow>;

/** What a note between the things is for. */
export const NotePurpose = z.enum(['bridge', 'summary', 'judgement', 'question', 'next-step']);
export type NotePurpose = z.infer<typeof NotePurpose>;

/** What an entry stands for. A search finds what it finds at the moment; of a heading and a search the words are `text`. */
export const EntryPart = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('item'), itemId: Id }),
  z.object({ kind: z.literal('passage'), itemId: Id, highlightId: Id }),
  z.object({ kind: z.literal('picture'), itemId: Id, hash: ContentHash }),
  z.object({ kind: z.literal('note'), noteId: Id }),
  z.object({ kind: z.literal('heading') }),
  z.object({ kind: z.literal('search') }),
]);
export type EntryPart = z.infer<typeof EntryPart>;

export const EntryChoices = z.object({
  rank: Rank,
  /** The words of a heading, what a search looks for, what a picture shows. */
  text: z.string().max(1000),
  /** Of a note. */
  purpose: NotePurpose,
  /** A section within a section: of a heading. */
  nested: z.boolean(),
  removed: z.boolean(),
});
export type EntryChoices = z.infer<typeof EntryChoices>;

/** One thing in a dossier, at its place. */
export const DossierEntry = extensible({
  id: Id,
  dossierId: Id,
  madeAt: Instant,
  part: EntryPart,
  choices: stampedEach(EntryChoices),
  /** Of its row in the facts table, what the reader wrote; null where they took that back. By column, each a register. */
  cells: z
    .record(ColumnKey, stamped(z.string().trim().max(MAX_CELL_LENGTH).nullable()))
    .refine(limited(MAX_COLUMNS), 'too-many-cells'),
});
export type DossierEntry = z.infer<typeof DossierEntry>;
