import { stemmerOf } from '../terms';
import { baseLanguage } from '../text';

/** A word of a text as it is looked for. */
export interface SearchWord {
  /** Its stem in small letters, without diacritics; two characters in scripts that put no space between words. */
  term: string;
  /** Offsets (UTF-16 units) in the text. */
  start: number;
  end: number;
}

/** Scripts without spaces between words, in which every two neighbours are a term. */
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}ー]/u;
/** No word of any language is as long; what is, is data. Only its beginning is looked at. */
const MAX_WORD_LENGTH = 200;
/** So many words of a text can be found. */
export const MAX_WORDS = 200_000;

const WORD = /[\p{L}\p{M}\p{N}]+/gu;
const FROM_THAI_ON =
  /[\u0e00-\u0eff\u1000-\u109f\u1780-\u17ff\u3005-\u9fff\uf900-\ufaff\uff66-\uff9f\u{20000}-\u{3ffff}]/u;

/**
 * The words of a text, in order: one rule for texts and for queries, on the device and on the server.
 *
 * A word is a run of letters, marks and digits, without diacritics (fold) and then brought to its stem (Snowball).
 * Where no spaces part the words the terms are character bigrams, and the last character of a run alone, so that
 * each single character begins a term: the usual way to search Chinese and Japanese without a dictionary, whose
 * version would have to be the same everywhere (Manning, Raghavan, Schütze, Introduction to Information Retrieval, 2.2.1).
 *
 * Of a text longer than a long novel only the beginning is taken, so that one monster holds up nobody.
 *
 * @param language BCP 47 tag, or null when not known
 */
export function searchWords(text: string, language: string | null): SearchWord[] {
  const stem = stemmerOf(baseLanguage(language));
  const words: SearchWord[] = [];
  const push = (word: string, start: number) => {
    const term = stem(foldWord(word.slice(0, MAX_WORD_LENGTH)));
    if (term !== '') words.push({ term, start, end: start + word.length });
  };
  for (const { 0: run, index } of text.matchAll(WORD)) {
    if (words.length >= MAX_WORDS) break;
    if (!FROM_THAI_ON.test(run)) {
      push(run, index);
      continue;
    }
    for (const part of partsByScript(run)) {
      if (part.unspaced) pushBigrams(part.text, index + part.at, words);
      else push(part.text, index + part.at);
    }
  }
  return words;
}

/** The same without places. */
export function searchTerms(text: string, language: string | null): string[] {
  return searchWords(text, language).map(({ term }) => term);
}

/** True for a word of a script without spaces. */
export function isUnspaced(word: string): boolean {
  return UNSPACED.test(word);
}

const LETTERS: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  ð: 'd',
  þ: 'th',
  ł: 'l',
  đ: 'd',
  ħ: 'h',
  ı: 'i',
  ς: 'σ',
  ـ: '',
  ى: 'ي',
};
const PLAIN = /^[a-z0-9]*$/;

/**
 * A word in small letters, without diacritics: of Latin and Greek letters all of them, of Arabic and Hebrew the vowel
 * points; in other scripts they are part of the letter. Ligatures and wide forms become plain ones (NFKD).
 */
export function foldWord(word: string): string {
  const small = word.toLowerCase();
  if (PLAIN.test(small)) return small;
  return (
    small
      .normalize('NFKD')
      .replace(/[ßæœøðþłđħıςـى]/g, (letter) => LETTERS[letter] ?? letter)
      .replace(/(?<=[\p{Script=Latin}\p{Script=Greek}][\u0300-\u036f]*)[\u0300-\u036f]/gu, '')
      .replace(/[\u0591-\u05c7\u0610-\u061a\u064b-\u065f\u0670\u06d6-\u06ed]/g, '')
      .normalize('NFC')
      .replace(/ё/g, 'е')
      // What a wide or joined form is taken apart into may hold spaces and strokes.
      .replace(/[^\p{L}\p{M}\p{N}]/gu, '')
  );
}

function partsByScript(run: string): { text: string; at: number; unspaced: boolean }[] {
  const parts: { text: string; at: number; unspaced: boolean }[] = [];
  let at = 0;
  for (const character of run) {
    // A mark belongs to what it stands on.
    const last = parts.at(-1);
    const unspaced = /\p{M}/u.test(character) && last ? last.unspaced : UNSPACED.test(character);
    if (last?.unspaced === unspaced) last.text += character;
    else parts.push({ text: character, at, unspaced });
    at += character.length;
  }
  return parts;
}

function pushBigrams(run: string, start: number, words: SearchWord[]): void {
  const characters = Array.from(run);
  let at = start;
  characters.forEach((character, index) => {
    const next = characters[index + 1] ?? '';
    words.push({ term: foldWord(character + next), start: at, end: at + character.length + next.length });
    at += character.length;
  });
}
