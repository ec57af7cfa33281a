/** Something to be saved, as a file from elsewhere tells of it. */
export interface Found {
  /** As it is written there; null for a text that does not say where it is from. */
  address: string | null;
  title: string | null;
  tags: string[];
  /** When it was saved there, or else made: milliseconds since 1970; null when it is not said. */
  savedAt: number | null;
  /** What was written on it. */
  note: string | null;
  /** Whether it was read there; null when it is not said. */
  isRead: boolean | null;
  /** Its text, where the file has it. */
  text: FoundText | null;
}

export interface FoundText {
  type: 'text/html' | 'text/markdown' | 'text/plain';
  body: string;
  /** The name of the file that it was in. */
  name: string;
}

/** What a file from elsewhere has. */
export interface Findings {
  found: Found[];
  /** What of it could not be read, each with its reason, for the reader. */
  faults: { written: string; says: string }[];
}

/** What is not said of something that was found. */
export const UNSAID: Found = {
  address: null,
  title: null,
  tags: [],
  savedAt: null,
  note: null,
  isRead: null,
  text: null,
};
