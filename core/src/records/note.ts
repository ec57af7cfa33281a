import { z } from 'zod';
import { Day, Id, Instant, Note, TaskState, WrittenNote } from '../model';
import { CHANGE, decisions, type Kind } from './kind';
import { mergeRegisters, untouched, withChanges } from './registers';

/** A note is written, or changed; only the fields named change. */
const NoteMutation = z.object({
  ...CHANGE,
  type: z.literal('write'),
  noteId: Id,
  madeAt: Instant,
  noteItemId: WrittenNote.shape.itemId,
  on: WrittenNote.shape.on,
  set: z.object({ text: Note, task: TaskState, dueOn: Day.nullable(), removed: z.boolean() }).partial(),
});
export type NoteMutation = z.infer<typeof NoteMutation>;
export type NoteChanges = NoteMutation['set'];

/** What a note is after a mutation: the same on a device and on the server. Pure, and harmless to repeat. */
function applyNoteMutation(note: WrittenNote | undefined, mutation: NoteMutation): WrittenNote {
  const blank: WrittenNote = {
    id: mutation.noteId,
    madeAt: mutation.madeAt,
    itemId: mutation.noteItemId,
    on: mutation.on,
    choices: {
      text: untouched(''),
      task: untouched('none'),
      dueOn: untouched(null),
      removed: untouched(false),
    },
  };
  const known = note ?? blank;
  return mergeNotes(known, { ...known, choices: withChanges(known.choices, mutation.set, mutation.stamp) });
}

/** Joins two states of one note: each choice by its latest stamp. */
function mergeNotes(a: WrittenNote, b: WrittenNote): WrittenNote {
  const first = a.madeAt <= b.madeAt ? a : b;
  return { ...a, ...b, ...first, choices: mergeRegisters(a.choices, b.choices) };
}

/** The reader's own writing. */
export const noteKind: Kind<WrittenNote, NoteMutation> = {
  name: 'note',
  plural: 'notes',
  version: 1,
  schema: WrittenNote,
  mutation: NoteMutation,
  types: ['write'],
  idOf: ({ noteId }) => noteId,
  itemIdOf: ({ itemId }) => itemId,
  movedTo: (note, itemId) => ({ ...note, itemId }),
  apply: applyNoteMutation,
  merge: mergeNotes,
  restate: ({ id: noteId, madeAt, itemId: noteItemId, on, choices }, base) =>
    decisions(choices, (stamp, set): NoteMutation => ({
      ...base(stamp),
      type: 'write',
      noteId,
      madeAt,
      noteItemId,
      on,
      set,
    })),
};
