import { z } from 'zod';
import { Id, instantOf, type Note, NoteText, onlyVersion, Stamp } from '../model';
import { ownNote } from '../notes';
import type { NoteMutation } from './note';
import { untouched } from './registers';

const Register = z.object({ value: NoteText, at: Stamp });
const Noted = z.looseObject({
  id: Id,
  itemId: Id.optional(),
  choices: z.looseObject({
    note: Register.optional(),
    removed: z.object({ value: z.boolean(), at: Stamp }).optional(),
  }),
});

/**
 * An item or a highlight from when it had its note within it, as the record that it is now and its note.
 *
 * @returns the record as it is, when it has none within it
 */
export function apartFromNote(stored: unknown): { record: unknown; note: Note | null } {
  const earlier = Noted.safeParse(stored).data;
  if (!earlier?.choices.note) return { record: stored, note: null };
  const { note, ...choices } = earlier.choices;
  const { id, itemId } = earlier;
  return {
    record: { ...earlier, choices },
    note:
      note.value === ''
        ? null
        : {
            ...(itemId === undefined ? ownNote.ofItem(id) : ownNote.ofHighlight({ id, itemId })),
            madeAt: instantOf(note.at),
            versions: [onlyVersion(note)],
            choices: {
              task: untouched('none'),
              dueOn: untouched(null),
              removed: choices.removed ?? untouched(false),
            },
          },
  };
}

const Noting = z.looseObject({
  id: Id,
  stamp: Stamp,
  type: z.enum(['choose', 'change-mark']),
  itemId: Id,
  highlightId: Id.optional(),
  set: z.looseObject({ note: NoteText }),
});

/**
 * A change from when the notes of items and highlights were changed with them, as the changes that it is now. The last of
 * them has its id.
 *
 * @param newId gives an id for what becomes a change of its own
 */
export function asChangesNow(change: unknown, newId: () => string): unknown[] {
  const earlier = Noting.safeParse(change).data;
  if (!earlier) return [change];
  const { note: text, ...set } = earlier.set;
  const { id, itemId, highlightId, stamp } = earlier;
  const rest = Object.keys(set).length > 0;
  const subject = highlightId === undefined ? ownNote.ofItem(itemId) : ownNote.ofHighlight({ id: highlightId, itemId });
  const written: NoteMutation = {
    id: rest ? newId() : id,
    stamp,
    type: 'write',
    noteId: subject.id,
    madeAt: instantOf(stamp),
    noteItemId: itemId,
    on: subject.on,
    set: { text },
  };
  return rest ? [written, { ...earlier, set }] : [written];
}
