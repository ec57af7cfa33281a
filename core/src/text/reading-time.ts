import { baseLanguage } from './base-language';
import { countWords } from './words';

/** Silent reading of English non-fiction by adults, words a minute: Brysbaert 2019, J. Memory and Language 109:104047 (from memory). */
const ENGLISH_SILENT = 238;

/**
 * Words a minute by language in one test, IReST: Trauzettel-Klosinski and Dietz 2012, Invest. Ophthalmol.
 * Vis. Sci. 53:5452 (from memory). Used as ratios to English, so that a language with longer words gets its due.
 */
const IREST: Readonly<Record<string, number>> = {
  en: 228,
  es: 218,
  it: 188,
  fr: 195,
  ru: 184,
  de: 179,
  pl: 166,
  tr: 166,
  fi: 161,
  nl: 202,
  pt: 181,
  sv: 199,
  sl: 180,
  he: 187,
  ar: 138,
};

/** Characters a minute for scripts without spaces, from the same IReST table (from memory). */
const CHARACTERS_PER_MINUTE: Readonly<Record<string, number>> = { zh: 255, ja: 357 };

/** Common practice: a picture in an article holds the eye for a few seconds. */
const SECONDS_PER_PICTURE = 5;

const CJK_CHARACTER = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}ー]/gu;

/**
 * How long a text takes to read silently.
 *
 * @param text plain text
 * @param language BCP 47 tag, or null when not known (then taken for English)
 * @param pictures how many pictures stand in it
 * @param words how many it has, where they have been counted
 * @returns minutes, not rounded
 */
export function readingMinutes(text: string, language: string | null, pictures = 0, words?: number): number {
  const base = baseLanguage(language);
  const perCharacter = CHARACTERS_PER_MINUTE[base];
  const pictureMinutes = (pictures * SECONDS_PER_PICTURE) / 60;
  if (perCharacter !== undefined) {
    const characters = text.match(CJK_CHARACTER)?.length ?? 0;
    const rest = countWords(text.replace(CJK_CHARACTER, ' '), 'en');
    return characters / perCharacter + rest / ENGLISH_SILENT + pictureMinutes;
  }
  return (words ?? countWords(text, language)) / silentWordsPerMinute(base) + pictureMinutes;
}

/** How many words of a language adults read in a minute, silently. @param language BCP 47 tag; null is taken for English */
export function silentWordsPerMinute(language: string | null): number {
  const base = baseLanguage(language);
  return (ENGLISH_SILENT * (IREST[base] ?? 228)) / 228;
}

/**
 * What the voice is set to, in words a minute at a rate of 1: near what people speak when they read aloud to
 * others, 183 in Brysbaert 2019 (from memory).
 */
export const SPOKEN_WORDS_PER_MINUTE = 175;

/**
 * How long a text takes to hear.
 *
 * @param words how many it has
 * @param rate 0.7 to 3
 * @returns minutes, not rounded
 */
export function listeningMinutes(words: number, rate: number): number {
  return words / (SPOKEN_WORDS_PER_MINUTE * rate);
}
