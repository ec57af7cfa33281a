import { baseLanguage } from '../text';
import { plainWord, wordsIn } from './words';

/** Of a text, so many hashes are kept: two of them tell the resemblance of their texts to about a twentieth. */
const SIZE = 128;
/** Words that follow one another and count as one. */
const SHINGLE = 3;

/**
 * A sketch of how a text goes, word for word: the smallest hashes of its shingles of three words (min-wise sampling without
 * replacement, "bottom-k": Broder 1997, "On the resemblance and containment of documents").
 *
 * @param language BCP 47 tag, or null when not known
 * @returns at most 128 whole numbers, ascending; fewer for a short text
 */
export function sketchOf(text: string, language: string | null): number[] {
  const words = [...wordsIn(text, baseLanguage(language))].map(({ form }) => plainWord(form));
  const hashes = new Set<number>();
  for (let at = 0; at + SHINGLE <= words.length; at++) hashes.add(hashOf(words.slice(at, at + SHINGLE).join(' ')));
  return [...hashes].sort((a, b) => a - b).slice(0, SIZE);
}

/**
 * How much of what two texts say, word for word, both say: an estimate of the Jaccard index of their shingles, 0 to 1.
 *
 * @param a a sketch of each
 */
export function resemblance(a: readonly number[], b: readonly number[]): number {
  const inBoth = new Set(a);
  const shared = new Set(b.filter((hash) => inBoth.has(hash)));
  const union = [...new Set([...a, ...b])].sort((one, other) => one - other).slice(0, SIZE);
  return union.length === 0 ? 0 : union.filter((hash) => shared.has(hash)).length / union.length;
}

/** FNV-1a of 32 bits (Fowler, Noll, Vo; RFC 9923), its bits mixed once more: the smallest have to be a fair sample. */
function hashOf(words: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < words.length; at++) hash = Math.imul(hash ^ words.charCodeAt(at), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  return (hash ^ (hash >>> 13)) >>> 0;
}
