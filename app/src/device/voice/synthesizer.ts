import type { ShippedVoiceId } from '@dorvel/core/listening';
import type { WordMark } from '@dorvel/core/voice';

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
  /**
   * @param silence before and behind the sentence, in milliseconds
   * @throws Error when the voice is neither on this device nor to be had, and when the engine does not start
   */
  synthesize(text: string, voice: ShippedVoiceId, silence: { leadMs: number; pauseMs: number }): Promise<Spoken>;
  /** Reads a voice in before a sentence is asked of it. @throws Error when it cannot be had, or the engine does not start */
  prepare(voice: ShippedVoiceId): Promise<void>;
}
