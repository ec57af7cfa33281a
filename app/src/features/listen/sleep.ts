import type { Utterance } from '@dorvel/core/speech';

/** When the voice is to fall silent by itself. */
export type Sleep =
  | { until: 'never' }
  | { until: 'part' }
  | { until: 'article' }
  /** @property at an instant, in milliseconds since 1970 */
  | { until: 'time'; at: number };

export const AWAKE: Sleep = { until: 'never' };
export const SLEEP_MINUTES = [10, 20, 30, 45, 60] as const;

/**
 * Whether it falls silent before a sentence. Asked at each sentence's beginning: no timer has to fire while the screen is
 * off, and no sentence is cut in two.
 *
 * @param isFirst true for the sentence at which listening began
 */
export function sleepsBefore(sleep: Sleep, utterance: Utterance, isFirst: boolean, now: number): boolean {
  if (sleep.until === 'time') return now >= sleep.at;
  return sleep.until === 'part' && utterance.kind === 'heading' && utterance.begins && !isFirst;
}

/** How it is said to the reader; null when there is nothing to say. */
export function sleepWords(sleep: Sleep, now: number): string | null {
  switch (sleep.until) {
    case 'never':
      return null;
    case 'part':
      return 'sleeps at the end of this part';
    case 'article':
      return 'sleeps at the end';
    case 'time':
      return `sleeps in ${Math.max(1, Math.ceil((sleep.at - now) / 60_000))} min`;
  }
}
