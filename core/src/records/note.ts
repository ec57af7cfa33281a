import { z } from 'zod';
import { Day, EVERY_DEVICE, Id, Instant, Note, NoteSubject, NoteText, Seen, subjectOf, TaskState } from '../model';
import { mergeVersions, withoutLater } from '../notes';
import { CHANGE, decisions, type Kind } from './kind';
import { mergeRegisters, untouched, withChanges } from './registers';

/** A note is written, or changed; only the fields named change. */
const NoteMutation = z.object({
  ...CHANGE,
  type: z.literal('write'),
  noteId: Id,
  madeAt: Instant,
  noteItemId: Id.nullable(),
  /** Null in those that were made before all notes said on what they stand. */
  on: NoteSubject.nullable(),
  set: z.object({ text: NoteText, task: TaskState, dueOn: Day.nullable(), removed: z.boolean() }).partial(),
  /** What of its text the writer had seen; all of it before this change, where nothing is said. */
  sees: Seen.optional(),
});
export type NoteMutation = z.infer<typeof NoteMutation>;
export type NoteChanges = NoteMutation['set'];

/** What a note is after a mutation: the same on a device and on the server. Pure, and harmless to repeat. */
function applyNoteMutation(note: Note | undefined, mutation: NoteMutation): Note {
  const { noteId, madeAt, noteItemId, stamp, sees = { [EVERY_DEVICE]: stamp } } = mutation;
  const { text, ...set } = mutation.set;
  const blank: Note = {
    id: noteId,
    madeAt,
    itemId: noteItemId,
    on: subjectOf(noteItemId, mutation.on),
    versions: [],
    choices: { task: untouched('none'), dueOn: untouched(null), removed: untouched(false) },
  };
  const known = note ?? blank;
  return mergeNotes(known, {
    ...blank,
    versions: text === undefined ? [] : [{ at: stamp, text, sees: withoutLater(sees, stamp) }],
    choices: withChanges(known.choices, set, stamp),
  });
}

/** Joins two states of one note: each choice by its latest stamp, and all that was written apart. */
function mergeNotes(a: Note, b: Note): Note {
  const place = ({ madeAt, itemId, on }: Note) => JSON.stringify([madeAt, itemId, on]);
  const first = a.madeAt < b.madeAt || (a.madeAt === b.madeAt && place(a) <= place(b)) ? a : b;
  return {
    ...a,
    ...b,
    ...first,
    versions: mergeVersions(a.versions, b.versions),
    choices: mergeRegisters(a.choices, b.choices),
  };
}

/** The reader's own writing. */
export const noteKind: Kind<Note, NoteMutation> = {
  name: 'note',
  plural: 'notes',
  version: 2,
  schema: Note,
  mutation: NoteMutation,
  types: ['write'],
  idOf: ({ noteId }) => noteId,
  itemIdOf: ({ itemId }) => itemId,
  movedTo: (note, itemId) => ({ ...note, itemId }),
  apply: applyNoteMutation,
  merge: mergeNotes,
  restate({ id: noteId, madeAt, itemId: noteItemId, on, versions, choices }, base) {
    const about = { type: 'write' as const, noteId, madeAt, noteItemId, on };
    return [
      ...versions.map(({ at, text, sees }): NoteMutation => ({ ...base(at), ...about, set: { text }, sees })),
      ...decisions(choices, (stamp, set): NoteMutation => ({ ...base(stamp), ...about, set })),
    ];
  },
};
