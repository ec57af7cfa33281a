import type { HighlightKind } from '../model';

/** A highlight that was made elsewhere, as far as a file tells of it. */
export interface ForeignHighlight {
  quotation: string;
  kind: HighlightKind;
  note: string;
  /** What its source is called, and where it stands; empty when it is not said. */
  title: string;
  address: string;
  /** The place in its source, as it is written: `page 12`; empty when it is not said. */
  place: string;
  /** Instant, or null. */
  madeAt: number | null;
  prefix: string;
  suffix: string;
}

/** What was found in a file of highlights. */
export interface HighlightFile {
  highlights: ForeignHighlight[];
  /** What could not be read, in words. */
  faults: string[];
}

export const MAX_QUOTATION_LENGTH = 20_000;
export const NOTHING_SAID = {
  kind: 'key',
  note: '',
  title: '',
  address: '',
  place: '',
  madeAt: null,
  prefix: '',
  suffix: '',
} as const;
