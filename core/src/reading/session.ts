import type { Activity, Carrier } from '../model';

/** How long a screen of text may hold the eyes without a sign of life. Common practice. */
const MAX_LOOK_S = 150;
/** What is counted of a longer silence: the reader looked a while, then went. */
const COUNTED_OF_SILENCE_S = 30;
/** A silence after which coming back is another sitting. */
const NEW_SITTING_AFTER_S = 30 * 60;
/** Nobody reads faster than about 700 words a minute; beyond it the text was skimmed (common practice). */
const FASTEST_WORDS_A_SECOND = 12;

/** A sitting under way. */
export interface ReadingSession {
  activity: Activity;
  /** When the last sign of life came, in milliseconds. */
  lastAt: number;
  /** The word that the reader was at. */
  lastWord: number;
}

/** Begins a sitting at a word of the text. */
export function beginSession(
  start: { id: string; itemId: string; day: string; by: Carrier },
  at: number,
  word: number,
): ReadingSession {
  return { activity: { ...start, startedAt: at, seconds: 0, words: 0 }, lastAt: at, lastWord: word };
}

/**
 * A sign of life: the reader is at a word now. Time counts as long as signs come; words count where they were passed
 * at a speed at which they can be read.
 *
 * @returns the sitting as it goes on, or null when the silence was so long that another one has to begin
 */
export function moveOn(session: ReadingSession, at: number, word: number): ReadingSession | null {
  const silence = Math.max(0, (at - session.lastAt) / 1000);
  if (silence > NEW_SITTING_AFTER_S) return null;
  const seconds = silence <= MAX_LOOK_S ? silence : COUNTED_OF_SILENCE_S;
  const passed = word - session.lastWord;
  const read = passed > 0 && passed <= seconds * FASTEST_WORDS_A_SECOND ? passed : 0;
  return withMore(session, at, word, seconds, read);
}

/** A sentence was heard. @param seconds how long it took */
export function hearOn(sitting: ReadingSession, at: number, seconds: number, words: number): ReadingSession {
  return withMore(sitting, at, sitting.lastWord + words, seconds, words);
}

function withMore(sitting: ReadingSession, at: number, word: number, seconds: number, words: number): ReadingSession {
  const { activity } = sitting;
  return {
    activity: {
      ...activity,
      seconds: Math.min(86_400, activity.seconds + seconds),
      words: Math.min(1_000_000, activity.words + words),
    },
    lastAt: at,
    lastWord: word,
  };
}
