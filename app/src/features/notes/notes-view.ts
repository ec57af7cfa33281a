import type { Note } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { hasWords } from '@dorvel/core/text';

export type NotesWanted = 'all' | 'open' | 'done';

/** A note with those that were written on it, in the order in which they were written. */
export interface NoteThread {
  note: Note;
  replies: NoteThread[];
}

/** Deeper ones stand beside the one above: no screen is wide enough. */
export const DEEPEST = 4;

/**
 * Notes as threads, the latest first; to do: those with a day first, the next one on top.
 *
 * @param itemId of one item, or null for all
 * @param words that a note of the thread has; empty for any
 */
export function threadsOf(
  notes: readonly Note[],
  { wanted, words, itemId }: { wanted: NotesWanted; words: string; itemId: string | null },
): NoteThread[] {
  const here = itemId === null ? notes : notes.filter((note) => note.itemId === itemId);
  if (wanted !== 'all')
    return here
      .filter((note) => note.choices.task.value === wanted && hasWords(noteText(note), words))
      .sort(byDue)
      .map((note) => ({ note, replies: [] }));
  const known = new Set(here.map(({ id }) => id));
  const children = new Map<string, Note[]>();
  const tops: Note[] = [];
  for (const note of here) {
    // What stands on a note that is gone stands by itself: it is never lost with it.
    const parent = note.on.kind === 'note' && known.has(note.on.id) ? note.on.id : null;
    if (parent === null) tops.push(note);
    else children.set(parent, [...(children.get(parent) ?? []), note]);
  }
  const thread = (note: Note): NoteThread => ({
    note,
    replies: (children.get(note.id) ?? []).sort((a, b) => a.madeAt - b.madeAt).map(thread),
  });
  return tops
    .sort((a, b) => b.madeAt - a.madeAt)
    .map(thread)
    .filter((each) => anySays(each, words));
}

function byDue(a: Note, b: Note): number {
  const due = ({ choices }: Note) => choices.dueOn.value ?? '9999';
  return due(a) < due(b) ? -1 : due(a) > due(b) ? 1 : b.madeAt - a.madeAt;
}

const anySays = ({ note, replies }: NoteThread, words: string): boolean =>
  hasWords(noteText(note), words) || replies.some((reply) => anySays(reply, words));

/**
 * Notes of no item that have the words of a query; those on items are found with their items.
 *
 * @param written a query with its filters, which do not concern notes; see core/search
 */
export function notesFound(notes: readonly Note[], written: string): Note[] {
  const words = written
    .replace(/(?:^|\s)-?[a-z]+:(?:"[^"]*"?|\S*)/gi, ' ')
    .replace(/(?:^|\s)-\S+/g, ' ')
    .replace(/["*]/g, ' ')
    .trim();
  if (words === '') return [];
  return notes.filter((note) => note.itemId === null && hasWords(noteText(note), words));
}
