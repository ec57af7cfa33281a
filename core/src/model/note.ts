import { z } from 'zod';
import { extensible } from './extensible';
import { Day, Id, Instant } from './ids';
import { Note } from './item';
import { stamped } from './register';

/** What a note stands on, besides its item: a highlight of it, or another note. */
const NoteParent = z.object({ kind: z.enum(['highlight', 'note']), id: Id });

/** Whether a note is something to be done. */
export const TaskState = z.enum(['none', 'open', 'done']);
export type TaskState = z.infer<typeof TaskState>;

/** The reader's own writing: on an item, on a highlight or a note of it, or free-standing. */
export const WrittenNote = extensible({
  id: Id,
  madeAt: Instant,
  /** The item that it leads back to; null for one that stands free. */
  itemId: Id.nullable(),
  on: NoteParent.nullable(),
  choices: extensible({
    /** In Markdown. */
    text: stamped(Note),
    task: stamped(TaskState),
    dueOn: stamped(Day.nullable()),
    removed: stamped(z.boolean()),
  }),
});
export type WrittenNote = z.infer<typeof WrittenNote>;
