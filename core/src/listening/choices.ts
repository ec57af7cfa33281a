/** How the reader wants a word to be said. */
export interface Pronunciation {
  written: string;
  said: string;
}

/** What the reader chose to hear of what is not running text. */
export interface SpeechChoices {
  /** A heading is said to be one. */
  headings: boolean;
  /** A table: what it is about, or all its rows, or nothing of it. */
  tables: 'summary' | 'rows' | 'nothing';
  /** Footnotes at the end are read. Their marks in the text never are. */
  footnotes: boolean;
  own: readonly Pronunciation[];
}

export const USUAL_SPEECH: SpeechChoices = { headings: true, tables: 'summary', footnotes: false, own: [] };
