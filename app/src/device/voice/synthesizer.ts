import type { SHIPPED_LANGUAGES } from '@dorvel/core/speech';

/** The voices that ship, by the synthesizer's own names. */
export const SHIPPED_VOICES = {
  'en-gb': { language: 'en-GB', name: 'English, British' },
  'en-us': { language: 'en-US', name: 'English, American' },
  de: { language: 'de', name: 'German' },
  fr: { language: 'fr', name: 'French' },
  es: { language: 'es', name: 'Spanish' },
} as const satisfies Record<string, { language: `${(typeof SHIPPED_LANGUAGES)[number]}${string}`; name: string }>;
export type ShippedVoice = keyof typeof SHIPPED_VOICES;

/** A place in what was said, and when it is heard. */
interface WordMark {
  /** Offset in the text that was asked for, in UTF-16 units. */
  offset: number;
  /** From the start of the sound, in milliseconds. */
  atMs: number;
}

/** What was said, as sound. */
export interface Spoken {
  /** A WAV file: 16 bit, mono. */
  wav: Uint8Array<ArrayBuffer>;
  seconds: number;
  words: WordMark[];
}

/**
 * Turns a sentence into sound. The one interface that an engine stands behind, so that it can be exchanged. The
 * sound is made at a rate of 1; whoever plays it changes the speed, and the marks stay in the sound's own time.
 */
export interface Synthesizer {
  /** @param silence before and behind the sentence, in milliseconds */
  synthesize(text: string, voice: ShippedVoice, silence: { leadMs: number; pauseMs: number }): Promise<Spoken>;
}
