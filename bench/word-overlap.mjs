/** How much of the words that should come out did: precision, recall and F1 over the multiset of words, lower-cased. */
export function wordOverlap(text, truth) {
  const a = bag(text);
  const b = bag(truth);
  const common = [...a].reduce((total, [word, n]) => total + Math.min(n, b.get(word) ?? 0), 0);
  return {
    precision: common / Math.max(1, sum(a)),
    recall: common / Math.max(1, sum(b)),
    f1: common === 0 ? 0 : (2 * common) / (sum(a) + sum(b)),
  };
}

function bag(text) {
  const counts = new Map();
  // In scripts without spaces each character stands for a word.
  for (const word of text
    .toLowerCase()
    .match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[\p{L}\p{N}]+/gu) ?? [])
    counts.set(word, (counts.get(word) ?? 0) + 1);
  return counts;
}

function sum(counts) {
  return [...counts.values()].reduce((total, n) => total + n, 0);
}
