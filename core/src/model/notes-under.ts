import type { Highlight } from './highlight';
import type { WrittenNote } from './note';

/**
 * What was written on a highlight, and on that again, in the order in which it was written.
 *
 * @param highlightId null for what was written on none of the highlights that are named
 */
export function notesUnder(
  { highlights, notes }: { highlights: readonly Highlight[]; notes: readonly WrittenNote[] },
  highlightId: string | null,
): WrittenNote[] {
  const known = new Map(notes.map((note) => [note.id, note]));
  const rootOf = ({ on }: WrittenNote, depth = 0): string | null => {
    if (on?.kind === 'highlight') return highlights.some(({ id }) => id === on.id) ? on.id : null;
    const parent = on && known.get(on.id);
    // Notes never stand on each other in a circle; a file that says so must not hang us.
    return parent && depth < notes.length ? rootOf(parent, depth + 1) : null;
  };
  return notes.filter((note) => rootOf(note) === highlightId).sort((a, b) => a.madeAt - b.madeAt);
}
