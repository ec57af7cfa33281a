/**
 * Whether a text has all the words that are looked for, or words that have them in them; case and marks on letters aside.
 *
 * @param sought words with spaces between them; empty is in every text
 */
export function hasWords(text: string, sought: string): boolean {
  const folded = withoutMarks(text);
  return withoutMarks(sought)
    .split(/\s+/)
    .every((word) => folded.includes(word));
}

function withoutMarks(words: string): string {
  return words.trim().normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}
