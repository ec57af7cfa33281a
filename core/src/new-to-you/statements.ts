import { isUnspaced, plainWord, stemmerOf, stopWordsOf, wordsIn } from '../terms';
import { baseLanguage, type PlainText, sentences, type TextRange } from '../text';
import { isDenial, isOfCalendar, numberOf, oppositesOf } from './words-that-decide';

/** What a sentence says, as far as it can be compared with what another one says. */
export interface Statement extends TextRange {
  /** All its words as they stand, without case and points. */
  words: readonly string[];
  /** The stems of the words that carry it. */
  terms: ReadonlySet<string>;
  /** Its numbers, however they are written, and its months and days. */
  numbers: ReadonlySet<string>;
  /** Its names, in the order in which they come, each once; empty in languages that write every noun as a name. */
  names: readonly string[];
  /** How often it denies something is even or odd: two denials make none. */
  denies: boolean;
  /** The words it has of which another is the opposite, each with that opposite. */
  turns: ReadonlyMap<string, string>;
  /** Of its terms, those that stand behind the words that lead it in: behind who says it, in an interview. */
  carried: ReadonlySet<string>;
}

/** Of these languages a capital tells a name from other words. */
const CAPITALS_ARE_NAMES = /^(?:en|fr|es|it|pt|nl|da|sv|nb|no|fi)$/;
/** At most so many words lead a sentence in: *Halvard Osgood the elder: My father painted the boat.* */
const LEAD_IN = /^\p{Lu}[^\s:.!?]*(?:\s[^\s:.!?]+){0,4}:\s/u;
const SENTENCE_BLOCK = /^(?:p|li|dd|dt|blockquote|td|th|figcaption|div|tr)$/;

/**
 * What the sentences of a text say, in its order. Headings, code and sentences without words are left out.
 *
 * @param language BCP 47 tag, or null when not known
 * @param until an offset: what begins at or behind it is left out
 */
export function statementsOf(plain: PlainText, language: string | null, until = Infinity): Statement[] {
  const base = baseLanguage(language);
  return plain.blocks.flatMap((block) => {
    if (block.start >= until || !SENTENCE_BLOCK.test(block.element.tagName)) return [];
    const text = plain.text.slice(block.start, block.end);
    return sentences(text, language).flatMap(({ start, end }) => {
      if (block.start + start >= until) return [];
      const said = statement(text.slice(start, end), base);
      return said.words.length === 0 ? [] : [{ ...said, start: block.start + start, end: block.start + end }];
    });
  });
}

/** What one sentence says. @param language ISO 639-1 code */
function statement(sentence: string, language: string): Omit<Statement, 'start' | 'end'> {
  const stem = stemmerOf(language);
  const stopWords = stopWordsOf(language);
  const opposites = oppositesOf(language);
  const leadIn = LEAD_IN.exec(sentence)?.[0].length ?? 0;
  const terms = new Set<string>();
  const carried = new Set<string>();
  const numbers = new Set<string>();
  const names: string[] = [];
  const turns = new Map<string, string>();
  let denials = 0;
  const words: string[] = [];
  for (const { form, start } of wordsIn(sentence, language)) {
    const plain = plainWord(form);
    words.push(form.toLowerCase());
    if (isDenial(form.toLowerCase(), language)) denials += 1;
    const opposite = opposites.get(plain);
    if (opposite !== undefined) turns.set(plain, opposite);
    const number = numberOf(plain, sentence.slice(start), language);
    if (number !== null) numbers.add(number);
    else if (/^\p{L}/u.test(form) && isOfCalendar(plain, language)) numbers.add(plain);
    else if (!stopWords.has(plain) && /\p{L}/u.test(plain) && plain.length >= (isUnspaced(plain) ? 1 : 2)) {
      const term = stem(plain);
      terms.add(term);
      if (start >= leadIn) carried.add(term);
      if (words.length > 1 && CAPITALS_ARE_NAMES.test(language) && /^\p{Lu}/u.test(form) && !names.includes(term))
        names.push(term);
    }
  }
  return { words, terms, numbers, names, denies: denials % 2 === 1, turns, carried };
}
