import type { Excerpt } from '../model';
import { keyPhrases, shownIn, type TermProfile, termsOfTitle } from '../terms';
import { type PlainText, sentences, type TextRange } from '../text';

/** So many terms of each item: the tail of what a text speaks of reminds nobody of it. */
const MAX_EXCERPTS = 16;
/** So many characters of the sentence around a term, at most. */
const MAX_LENGTH = 110;

/**
 * The names and terms of a text that others may be reminded of, each with the words around it where it stands first.
 *
 * @returns at most 16, those that it makes most of first
 */
export function excerptsOf(plain: PlainText, title: string | null, language: string | null): Excerpt[] {
  const ends = sentences(plain.text, language);
  return keyPhrases(plain.text, { title, language, ...shownIn(plain) })
    .filter(({ key, isName, count }) => isName || count > 1 || key.includes(' '))
    .slice(0, MAX_EXCERPTS)
    .map(({ key, count, salience, first }) => {
      const sentence = ends.find(({ start, end }) => start <= first.start && first.start < end) ?? first;
      const { start, end } = first;
      const rounded = Math.max(0.01, Math.round(salience * 100) / 100);
      return [key, count, rounded, start, plain.text.slice(start, end), around(plain.text, sentence, first)];
    });
}

/** The words around a term in its sentence, no more of them than so many characters; what is cut off is shown to be. */
function around(text: string, { start, end }: TextRange, term: TextRange): string {
  const from = end - start <= MAX_LENGTH ? start : Math.max(start, term.start - MAX_LENGTH / 2);
  const to = end - start <= MAX_LENGTH ? end : Math.min(end, Math.max(term.end, from + MAX_LENGTH));
  // At the joints of words, but never inside the term.
  const before = text.slice(from, term.start).replace(from > start ? /^\S*\s/u : '', from > start ? '… ' : '');
  const after = text.slice(term.end, to).replace(to < end ? /\s\S*$/u : '', to < end ? ' …' : '');
  return `${before}${text.slice(term.start, term.end)}${after}`.replace(/\s+/gu, ' ').trim();
}

/** Excerpts of an item, with its title and language, as what an index of echoes takes. */
export const asPhrases = (
  excerpts: readonly Excerpt[],
  { title, language }: { title: string; language: string | null },
): Pick<TermProfile, 'phrases' | 'title'> => ({
  phrases: excerpts.map(([key, count, salience, , form]) => [key, form, count, salience]),
  title: termsOfTitle(title, language),
});
