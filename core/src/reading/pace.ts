import type { Activity } from '../model';
import { baseLanguage, silentWordsPerMinute } from '../text';

/** How fast a reader reads a language. */
export interface Pace {
  /** What the usual minutes are multiplied by. */
  factor: number;
  wordsPerMinute: number;
  /** The sittings that it was measured in. */
  sittings: number;
}

/** In a shorter sitting the beginning and the end weigh too much. */
const MIN_SITTING = { seconds: 45, words: 80 } as const;
/** Slower, the reader was somewhere else; faster, they skimmed. Words a minute; common practice. */
const PLAUSIBLE = { slowest: 60, fastest: 800 } as const;
/** So many sittings weigh as much as what is usual for everybody. */
const USUAL_WEIGHT = 4;
/** The last ones count: a pace changes with the years. */
const MAX_SITTINGS = 60;

/**
 * The reader's own pace in each language, by the median of their sittings, which a nap or a skim does not move; the fewer
 * there are, the nearer to what is usual.
 *
 * @param languageOf the language of an item; undefined when it is not known
 * @param since sittings that began before this instant are forgotten
 * @returns by ISO 639-1 code
 */
export function pacesOf(
  activities: readonly Activity[],
  languageOf: (itemId: string) => string | null | undefined,
  since: number,
): Record<string, Pace> {
  const ratios = new Map<string, number[]>();
  for (const { itemId, by, seconds, words, startedAt } of [...activities].sort((a, b) => b.startedAt - a.startedAt)) {
    if (by !== 'eyes' || startedAt < since) continue;
    if (seconds < MIN_SITTING.seconds || words < MIN_SITTING.words) continue;
    const language = languageOf(itemId);
    const wordsPerMinute = (words / seconds) * 60;
    if (language === undefined || wordsPerMinute < PLAUSIBLE.slowest || wordsPerMinute > PLAUSIBLE.fastest) continue;
    const base = baseLanguage(language);
    const known = ratios.get(base) ?? [];
    if (known.length < MAX_SITTINGS) ratios.set(base, [...known, wordsPerMinute / silentWordsPerMinute(base)]);
  }
  return Object.fromEntries(
    [...ratios].map(([base, found]) => {
      const weight = found.length / (found.length + USUAL_WEIGHT);
      const speed = 1 + (median(found) - 1) * weight;
      const wordsPerMinute = silentWordsPerMinute(base) * speed;
      return [base, { factor: 1 / speed, wordsPerMinute, sittings: found.length }];
    }),
  );
}

/** What the usual minutes of a text are multiplied by for this reader. @param language BCP 47 tag, or null */
export function paceFactor(paces: Readonly<Record<string, Pace>>, language: string | null): number {
  return paces[baseLanguage(language)]?.factor ?? 1;
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  const upper = sorted[middle] ?? 1;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? upper) + upper) / 2;
}
