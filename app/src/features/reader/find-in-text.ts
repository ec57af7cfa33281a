/** A text as it is searched: without case and diacritics, with the way back. */
export interface FoldedText {
  folded: string;
  /** For each character of the folded text, its offset in the text; one more for the end. */
  offsets: readonly number[];
}

/** Folds a text for searching in it. */
export function foldText(text: string): FoldedText {
  let folded = '';
  const offsets: number[] = [];
  for (let at = 0; at < text.length;) {
    const char = String.fromCodePoint(text.codePointAt(at) ?? 0);
    const plain = /\s/.test(char) ? ' ' : char.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
    offsets.push(...Array.from({ length: plain.length }, () => at));
    folded += plain;
    at += char.length;
  }
  offsets.push(text.length);
  return { folded, offsets };
}

const MOST = 2000;

/** Where some words stand in a text, in order; none for less than two letters. */
export function findInText({ folded, offsets }: FoldedText, words: string): { start: number; end: number }[] {
  const sought = foldText(words.trim()).folded;
  const found: { start: number; end: number }[] = [];
  if (sought.length < 2) return found;
  for (let at = folded.indexOf(sought); at !== -1 && found.length < MOST; at = folded.indexOf(sought, at + 1))
    found.push({ start: offsets[at] ?? 0, end: offsets[at + sought.length] ?? 0 });
  return found;
}
