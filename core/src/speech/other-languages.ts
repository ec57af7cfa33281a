import { toString } from 'hast-util-to-string';
import { baseLanguage, elementsIn, type TextBlock, type TextRange } from '../text';

/** A part of a text and the language it is in. */
interface PhraseInLanguage extends TextRange {
  language: string;
}

/** Phrases that say they are in another language than the text. One word alone is left to the text's own voice. */
export function passagesInOtherLanguages(block: TextBlock, language: string | null): PhraseInLanguage[] {
  return elementsIn(block).flatMap(({ element, start, end }) => {
    const { lang } = element.properties;
    const isOther = typeof lang === 'string' && baseLanguage(lang) !== baseLanguage(language);
    return isOther && toString(element).trim().includes(' ') ? [{ start, end, language: lang }] : [];
  });
}

/** A sentence cut where phrases in other languages begin and end. */
export function dividedBy(
  foreign: readonly PhraseInLanguage[],
  sentence: TextRange,
  blockStart: number,
): (TextRange & { language: string | null })[] {
  const parts: (TextRange & { language: string | null })[] = [];
  let at = sentence.start;
  for (const { start, end, language } of foreign) {
    const [from, to] = [Math.max(at, start - blockStart), Math.min(sentence.end, end - blockStart)];
    if (from >= to) continue;
    if (from > at) parts.push({ start: at, end: from, language: null });
    parts.push({ start: from, end: to, language });
    at = to;
  }
  if (at < sentence.end) parts.push({ start: at, end: sentence.end, language: null });
  return parts;
}
