import type { Highlight, Note } from '../model';

/**
 * What was written on a highlight, and on that again, in the order in which it was written.
 *
 * @param highlightId null for what was written on none of the highlights that are named
 */
export function notesUnder(
  { highlights, notes }: { highlights: readonly Highlight[]; notes: readonly Note[] },
  highlightId: string | null,
): Note[] {
  const known = new Map(notes.map((note) => [note.id, note]));
  const rootOf = ({ on }: Note, depth = 0): string | null => {
    if (on.kind === 'highlight') return highlights.some(({ id }) => id === on.id) ? on.id : null;
    const parent = on.kind === 'note' ? known.get(on.id) : undefined;
    // Notes never stand on each other in a circle; a file that says so must not hang us.
    return parent && depth < notes.length ? rootOf(parent, depth + 1) : null;
  };
  return notes.filter((note) => rootOf(note) === highlightId).sort((a, b) => a.madeAt - b.madeAt);
}
