import type { WrittenNote } from '@dorvel/core/model';

export type NotesWanted = 'all' | 'open' | 'done';

/** A note with those that were written on it, in the order in which they were written. */
export interface NoteThread {
  note: WrittenNote;
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
  notes: readonly WrittenNote[],
  { wanted, words, itemId }: { wanted: NotesWanted; words: string; itemId: string | null },
): NoteThread[] {
  const here = itemId === null ? notes : notes.filter((note) => note.itemId === itemId);
  const sought = words.trim().toLowerCase();
  if (wanted !== 'all')
    return here
      .filter(({ choices }) => choices.task.value === wanted && says(choices.text.value, sought))
      .sort(byDue)
      .map((note) => ({ note, replies: [] }));
  const known = new Set(here.map(({ id }) => id));
  const children = new Map<string, WrittenNote[]>();
  const tops: WrittenNote[] = [];
  for (const note of here) {
    // What stands on a note that is gone stands by itself: it is never lost with it.
    const parent = note.on?.kind === 'note' && known.has(note.on.id) ? note.on.id : null;
    if (parent === null) tops.push(note);
    else children.set(parent, [...(children.get(parent) ?? []), note]);
  }
  const thread = (note: WrittenNote): NoteThread => ({
    note,
    replies: (children.get(note.id) ?? []).sort((a, b) => a.madeAt - b.madeAt).map(thread),
  });
  return tops
    .sort((a, b) => b.madeAt - a.madeAt)
    .map(thread)
    .filter((each) => anySays(each, sought));
}

function byDue(a: WrittenNote, b: WrittenNote): number {
  const due = ({ choices }: WrittenNote) => choices.dueOn.value ?? '9999';
  return due(a) < due(b) ? -1 : due(a) > due(b) ? 1 : b.madeAt - a.madeAt;
}

const says = (text: string, sought: string): boolean => text.toLowerCase().includes(sought);
const anySays = ({ note, replies }: NoteThread, sought: string): boolean =>
  says(note.choices.text.value, sought) || replies.some((reply) => anySays(reply, sought));
