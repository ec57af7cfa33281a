import type { Placed } from '@dorvel/core/highlight';
import type { Highlight as Mark } from '@dorvel/core/model';

/** A highlight with its place in a text; null when it has lost it. */
export interface PlacedHighlight {
  mark: Mark;
  placed: Placed | null;
}

const AT_MARK = 'mark.';

/** Names a highlight as the place at which a text is to be opened. */
export function atHighlight(id: string): string {
  return `${AT_MARK}${id}`;
}

/** A place at which a text is to be opened, as offsets: where the highlight that it names stands now. */
export function placeAtHighlight(at: string | undefined, marks: readonly PlacedHighlight[]): string | undefined {
  if (!at?.startsWith(AT_MARK)) return at;
  const placed = marks.find(({ mark }) => atHighlight(mark.id) === at)?.placed;
  return placed ? `${placed.start}-${placed.end}` : undefined;
}
