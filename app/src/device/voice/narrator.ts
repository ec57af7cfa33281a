import type { Utterance } from '@dorvel/core/speech';

/** What a narrator tells while it speaks. */
export interface NarratorEvents {
  /** A sentence begins to be heard. */
  begun(index: number): void;
  /** A sentence has been heard to its end; `seconds` is how long that took the listener. */
  heard(index: number, seconds: number): void;
  /** The last sentence has been heard. */
  ended(): void;
  /** Something else took the sound, a telephone call say: it is silent until it is told to go on. */
  interrupted(): void;
  /** It cannot go on; `says` is for the reader. */
  failed(says: string): void;
}

/** Reads sentences aloud, one behind the other, whatever its voice is made of. */
export interface Narrator {
  /** Speaks from a sentence on, whatever it was doing. */
  play(from: number): void;
  pause(): void;
  /** Goes on where it was paused. */
  resume(): void;
  /** Jumps by this many seconds of the listener's time; stays within what there is. Speaks on if it was speaking. */
  skip(seconds: number): void;
  /** @param rate 0.7 to 3, the pitch stays */
  setRate(rate: number): void;
  /** How far into the text of its sentence the voice is, as an offset of what is said; null where it cannot tell. */
  saidUntil(): number | null;
  /** Sleep timer for good and gives back what it holds. */
  close(): void;
}

/** Makes a narrator for some sentences. */
export type NarratorMaker = (spoken: readonly Utterance[], rate: number, events: NarratorEvents) => Narrator;
