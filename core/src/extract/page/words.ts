/** The words of a text, in lower case: letters and digits of any script. */
export function wordsOf(text: string): string[] {
  return text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
}

/** Words in both of two texts, as a share of the words in either, 0 to 1 (Jaccard 1912). */
export function sharedWords(one: ReadonlySet<string>, other: ReadonlySet<string>): number {
  if (one.size === 0 || other.size === 0) return 0;
  let both = 0;
  for (const word of one) if (other.has(word)) both++;
  return both / (one.size + other.size - both);
}
