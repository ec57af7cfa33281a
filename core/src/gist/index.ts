import { keyPhrases, shownIn, stemmerOf, stopWordsOf } from '../terms';
import { baseLanguage, type PlainText, sentences } from '../text';
import { pageRank } from './rank';

/** A sentence of a text that carries it. */
export interface GistSentence {
  text: string;
  /** Offset of its first character in the plain text. */
  start: number;
}

const WANTED = 3;
/** The beginning of a long text says what it is about; ranking all of it would cost the square of its length. */
const MAX_SENTENCES = 150;
/** Shorter ones say little, longer ones are no gist. In characters. */
const SHORTEST = 40;
const LONGEST = 320;
/** Two sentences more alike than this say the same. */
const TOO_ALIKE = 0.5;
/** How much the first paragraphs are raised: writers begin with what matters. At most so much, fading over the text. */
const LEAD_RAISE = 0.4;
/** So many of the names and terms that a text makes most of are what it is about. */
const SUBJECTS = 10;
/** How much a sentence is raised that has all of them: no sentence has, so that in truth it is a third of this. */
const SUBJECT_RAISE = 1;

/**
 * The few sentences that carry a text, in its order: those most like many others that are like many others themselves
 * (continuous LexRank; Erkan, Radev, LexRank: graph-based lexical centrality as salience in text summarization, JAIR 22,
 * 2004), raised where they speak of what the text makes most of (see keyPhrases), leaving out what says the same as one
 * already taken (maximal marginal relevance; Carbonell, Goldstein 1998).
 *
 * @param plain of the clean tree; only its paragraphs count
 * @param title of the text; null when it has none
 * @param language BCP 47 tag, or null when not known
 * @returns at most three; fewer, or none, when the text has no more
 */
export function gistOf(plain: PlainText, title: string | null, language: string | null): GistSentence[] {
  const candidates = candidatesOf(plain, language);
  if (candidates.length === 0) return [];
  const subjects = subjectsSpokenOf(plain, title, language);
  const vectors = vectorsOf(candidates, language);
  const likeness = vectors.map((a, i) => vectors.map((b, j) => (i === j ? 0 : cosine(a, b))));
  const ranks = pageRank(likeness).map(
    (rank, at) =>
      rank *
      (1 + LEAD_RAISE * (1 - at / candidates.length)) *
      (1 + SUBJECT_RAISE * subjects(candidates[at]?.text ?? '')),
  );
  const byRank = candidates.map((_, at) => at).sort((a, b) => (ranks[b] ?? 0) - (ranks[a] ?? 0) || a - b);
  const taken: number[] = [];
  for (const at of byRank) {
    if (taken.length === WANTED) break;
    if (taken.every((other) => (likeness[at]?.[other] ?? 0) <= TOO_ALIKE)) taken.push(at);
  }
  return taken.sort((a, b) => a - b).flatMap((at) => candidates[at] ?? []);
}

function candidatesOf(plain: PlainText, language: string | null): GistSentence[] {
  const found: GistSentence[] = [];
  for (const { element, start, end } of plain.blocks) {
    if (element.tagName !== 'p') continue;
    const block = plain.text.slice(start, end);
    for (const range of sentences(block, language)) {
      const text = block.slice(range.start, range.end).replace(/\s+/g, ' ');
      // A question leads up to something, and a line that ends in a colon to what follows it: neither stands alone.
      if (text.length >= shortest(text) && text.length <= LONGEST && /[.!。！…]["'”’»」)]*$/u.test(text))
        found.push({ text, start: start + range.start });
      if (found.length === MAX_SENTENCES) return found;
    }
  }
  return found;
}

/** How much of what a text makes most of a sentence speaks of, 0 to 1. */
function subjectsSpokenOf(
  plain: PlainText,
  title: string | null,
  language: string | null,
): (sentence: string) => number {
  const subjects = keyPhrases(plain.text, { title, language, ...shownIn(plain) }).slice(0, SUBJECTS);
  const whole = subjects.reduce((sum, { salience }) => sum + salience, 0) || 1;
  const stem = stemmerOf(baseLanguage(language));
  return (sentence) => {
    const stems = ` ${wordsOf(sentence.toLowerCase()).map(stem).join(' ')} `;
    return subjects.reduce((sum, { key, salience }) => sum + (stems.includes(` ${key} `) ? salience : 0), 0) / whole;
  };
}

/** Chinese and Japanese say in a third of the characters what others say. */
function shortest(text: string): number {
  return /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u.test(text) ? SHORTEST / 3 : SHORTEST;
}

type Vector = ReadonlyMap<string, number>;

/** TF-IDF over the text's own sentences, of length 1. */
function vectorsOf(candidates: readonly GistSentence[], language: string | null): Vector[] {
  const base = baseLanguage(language);
  const stem = stemmerOf(base);
  const stopWords = stopWordsOf(base);
  const counts = candidates.map(({ text }) => {
    const seen = new Map<string, number>();
    for (const word of wordsOf(text.toLowerCase())) {
      if (stopWords.has(word)) continue;
      const term = stem(word);
      seen.set(term, (seen.get(term) ?? 0) + 1);
    }
    return seen;
  });
  const having = new Map<string, number>();
  for (const seen of counts) for (const term of seen.keys()) having.set(term, (having.get(term) ?? 0) + 1);
  return counts.map((seen) => {
    const weighted = [...seen].map(([term, count]): [string, number] => [
      term,
      count * Math.log(1 + candidates.length / (having.get(term) ?? 1)),
    ]);
    const norm = Math.hypot(...weighted.map(([, weight]) => weight)) || 1;
    return new Map(weighted.map(([term, weight]) => [term, weight / norm]));
  });
}

/** Words between spaces and signs; characters of scripts that have neither count one by one. */
function wordsOf(text: string): string[] {
  return text.match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[\p{L}\p{M}\p{N}]+/gu) ?? [];
}

function cosine(a: Vector, b: Vector): number {
  let sum = 0;
  const [small, large] = a.size <= b.size ? [a, b] : [b, a];
  for (const [term, weight] of small) sum += weight * (large.get(term) ?? 0);
  return sum;
}
