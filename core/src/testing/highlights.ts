import { type Highlight, type HighlightKind, type MarkedPassage, NOT_WORKED_OVER, type WorkedOver } from '../model';

interface Known extends Pick<Highlight, 'id' | 'itemId'> {
  madeAt?: number;
  kind?: HighlightKind;
  passage?: Partial<MarkedPassage>;
  removed?: boolean;
  workedOver?: Partial<WorkedOver>;
}

/** A highlight of which only that is said which is named: a key passage at the beginning. */
export function highlightFrom({
  id,
  itemId,
  madeAt = 1,
  kind = 'key',
  passage,
  removed = false,
  workedOver,
}: Known): Highlight {
  const by = <Value>(value: Value) => ({ value, at: '000000001-0000-a' });
  return {
    id,
    itemId,
    madeAt,
    choices: {
      kind: by(kind),
      passage: by({ exact: 'Roots hold sand.', prefix: '', suffix: '', start: 0, copyId: null, ...passage }),
      removed: by(removed),
      workedOver: by({ ...NOT_WORKED_OVER, ...workedOver }),
    },
  };
}
