import { z } from 'zod';
import { extensible } from './extensible';
import { Day, Id, Instant, Stamp } from './ids';
import { stamped } from './register';

export const MAX_NOTE_LENGTH = 20_000;

/** The reader's own words, in Markdown. */
export const NoteText = z.string().max(MAX_NOTE_LENGTH);

/** What a note stands on: the whole of its item, a highlight, another note, or nothing at all. */
export const NoteSubject = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('nothing') }),
  z.object({ kind: z.literal('item') }),
  z.object({ kind: z.literal('highlight'), id: Id }),
  z.object({ kind: z.literal('note'), id: Id }),
]);
export type NoteSubject = z.infer<typeof NoteSubject>;

/** Whether a note is something to be done. */
export const TaskState = z.enum(['none', 'open', 'done']);
export type TaskState = z.infer<typeof TaskState>;

/** Stands for each device in what a writer had seen. */
export const EVERY_DEVICE = '*';
const MAX_DEVICES = 200;
const MAX_VERSIONS = 200;

/** What had been written, as far as a writer had seen it: of each device, by its name, all up to that stamp. */
export const Seen = z
  .record(z.string().max(36), Stamp)
  .refine((seen) => Object.keys(seen).length <= MAX_DEVICES, 'too-many-devices');
export type Seen = z.infer<typeof Seen>;

/** What a note said after one writing of it. */
const TextVersion = extensible({ at: Stamp, text: NoteText, sees: Seen });
export type TextVersion = z.infer<typeof TextVersion>;
/** Those of a text from which it is made (core/notes), the earliest first. */
export const TextVersions = z.array(TextVersion).max(MAX_VERSIONS);

const NoteNow = extensible({
  id: Id,
  madeAt: Instant,
  /** The item that it leads back to; null for one that stands free. */
  itemId: Id.nullable(),
  on: NoteSubject,
  versions: TextVersions,
  choices: extensible({
    task: stamped(TaskState),
    dueOn: stamped(Day.nullable()),
    removed: stamped(z.boolean()),
  }),
});

/** A note as it was when its text was one value of which the latest won. */
const EarlierNote = z.looseObject({
  itemId: Id.nullable(),
  on: NoteSubject.nullable(),
  choices: z.looseObject({ text: stamped(NoteText) }),
});

/** The reader's own writing: on an item, on a highlight or a note of it, or free-standing. */
export const Note = z.preprocess((stored) => {
  const earlier = EarlierNote.safeParse(stored).data;
  if (!earlier) return stored;
  const { text, ...choices } = earlier.choices;
  return { ...earlier, on: subjectOf(earlier.itemId, earlier.on), versions: [onlyVersion(text)], choices };
}, NoteNow);
export type Note = z.infer<typeof NoteNow>;

/** What a note stands on, where null was said of all but highlights and notes. */
export function subjectOf(itemId: string | null, on: NoteSubject | null): NoteSubject {
  return on ?? { kind: itemId === null ? 'nothing' : 'item' };
}

/** Of a text that was one value, of which the latest won: whoever wrote it replaced all before it. */
export function onlyVersion({ value, at }: { value: string; at: Stamp }): TextVersion {
  return { at, text: value, sees: { [EVERY_DEVICE]: at } };
}
