/** Words may be off by one letter, long ones by two: common practice. */
const allowed = (word: string) => (word.length < 4 ? 0 : word.length < 8 ? 1 : 2);
const MAX_NEAR = 3;

/**
 * The terms spelled most like some words: those at the least distance, the commonest first.
 *
 * @param words at least one of them is meant
 * @param terms all there are, each with how many texts have it
 * @returns at most three; none when nothing is near enough
 */
export function nearestTerms(words: readonly string[], terms: Iterable<readonly [string, number]>): string[] {
  let least = Infinity;
  let near: { term: string; texts: number }[] = [];
  const meant = words.map((word) => ({ word, letters: lettersOf(word) }));
  for (const [term, texts] of terms)
    for (const { word, letters } of meant) {
      const most = Math.min(allowed(word), least);
      if (most === 0 || Math.abs(term.length - word.length) > most) continue;
      // Most terms are told to be far by their letters alone, which takes a fraction of the time.
      if (countOfBits(letters ^ lettersOf(term)) > 2 * most) continue;
      const distance = distanceWithin(word, term, most);
      if (distance === null) continue;
      if (distance < least) near = [];
      least = distance;
      near.push({ term, texts });
    }
  return [
    ...new Set(near.sort((a, b) => b.texts - a.texts || (a.term < b.term ? -1 : 1)).map(({ term }) => term)),
  ].slice(0, MAX_NEAR);
}

/** Lower-case letters of the part of Unicode that a letter stands in, 128 signs at a time: `a` to `z` for any of them. */
function lettersLike(letter: string): string[] {
  const from = (letter.codePointAt(0) ?? 0) & ~127;
  return Array.from({ length: 128 }, (_, at) => String.fromCodePoint(from + at)).filter((each) =>
    /[\p{Ll}\p{Lo}]/u.test(each),
  );
}

/**
 * The words that a word may be meant for when its first letter is wrong: one too many or too few, another, or swapped with the
 * second. Few slips are made there (Yannakoudakis and Fawthrop, The rules of spelling errors, 1983, from memory), so that these can be asked
 * for one by one, and all others are among the terms that begin as the word does.
 *
 * @returns none for a word that is too short to be read as another
 */
export function withOtherStart(word: string): string[] {
  if (allowed(word) === 0) return [];
  const [first = '', second = '', ...rest] = word;
  const end = rest.join('');
  const others = lettersLike(first).flatMap((letter) => [`${letter}${second}${end}`, `${letter}${word}`]);
  return [...new Set([`${second}${end}`, `${second}${first}${end}`, ...others])].filter((each) => each !== word);
}

/**
 * The letters that a word has, as bits: an edit changes two of them at most (signature hashing, as Boytsov
 * 2011 has it too).
 */
export function lettersOf(word: string): number {
  let letters = 0;
  for (let at = 0; at < word.length; at++) letters |= 1 << (word.charCodeAt(at) & 31);
  return letters;
}

export function countOfBits(bits: number): number {
  let left = bits;
  let count = 0;
  for (; left !== 0; count++) left &= left - 1;
  return count;
}

/**
 * Damerau–Levenshtein distance, restricted (optimal string alignment): letters put in, left out, exchanged, or two
 * neighbours swapped. Boytsov, Indexing methods for approximate dictionary searching (2011), section 2.
 *
 * @returns null when it is more than `most`
 */
export function distanceWithin(a: string, b: string, most: number): number | null {
  let beforeLast: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, index) => index);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let cost = Math.min((last[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (last[j - 1] ?? 0) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, (beforeLast[j - 2] ?? 0) + 1);
      row.push(cost);
      least = Math.min(least, cost);
    }
    if (least > most) return null;
    beforeLast = last;
    last = row;
  }
  const distance = last[b.length] ?? Infinity;
  return distance <= most ? distance : null;
}
