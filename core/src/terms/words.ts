/** A word of a text and where it stands, in UTF-16 units. */
export interface Word {
  form: string;
  start: number;
  end: number;
}

const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;

/** Whether a text is of a script that puts no spaces between its words. */
export function isUnspaced(text: string): boolean {
  return UNSPACED.test(text);
}

/**
 * The words of a text in their order: runs of letters and digits, or what the language's segmenter (UAX 29) says they
 * are where no spaces part them.
 *
 * @param language ISO 639-1 code
 */
export function* wordsIn(text: string, language: string): Generator<Word> {
  if (!isUnspaced(text)) {
    for (const { 0: form, index } of text.matchAll(/[\p{L}\p{M}\p{N}]+(?:['’][\p{L}\p{M}]+)*/gu))
      yield { form, start: index, end: index + form.length };
    return;
  }
  for (const { segment, index, isWordLike } of wordSegmenter(language).segment(text))
    if (isWordLike) yield { form: segment, start: index, end: index + segment.length };
}

const segmenters = new Map<string, Intl.Segmenter>();
function wordSegmenter(language: string): Intl.Segmenter {
  const known = segmenters.get(language);
  if (known) return known;
  const made = new Intl.Segmenter(language.length === 2 ? language : 'en', { granularity: 'word' });
  segmenters.set(language, made);
  return made;
}

/** A word without its case and its possessive. */
export const plainWord = (form: string): string => form.toLowerCase().replace(/['’]s?$/u, '');
