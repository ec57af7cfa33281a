/** The synthesizer reads its text as markup: these three would begin some. */
const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };

/** A text as the synthesizer has to be given it. */
export function toMarkup(text: string): string {
  return text.replace(/[&<>]/g, (char) => ESCAPES[char] ?? char);
}

/**
 * The way back from a place in the markup to the text.
 *
 * @returns for each code point of the markup, the offset of its character in the text, in UTF-16 units
 */
export function offsetsOfMarkup(text: string): number[] {
  const offsets: number[] = [];
  let offset = 0;
  for (const char of text) {
    for (let length = ESCAPES[char]?.length ?? 1; length > 0; length--) offsets.push(offset);
    offset += char.length;
  }
  return offsets;
}
