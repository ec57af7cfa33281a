import { diffArrays, diffWordsWithSpace } from 'diff';
import type { Root } from 'hast';
import { plainText } from '../text';

/** A stretch of a paragraph: on both sides, only in the later copy, or only in the earlier. */
export interface WordChange {
  kind: 'same' | 'added' | 'removed';
  text: string;
}

/** What became of a paragraph between two copies. */
export type ParagraphChange =
  { kind: 'same' | 'added' | 'removed'; text: string } | { kind: 'changed'; words: WordChange[] };

export interface CopyComparison {
  changes: ParagraphChange[];
  addedWords: number;
  removedWords: number;
}

/** Paragraphs with less in common than this are another paragraph, not the same one changed. */
const MIN_COMMON = 0.35;
/** A paragraph that was rewritten stands near to where it stood. */
const FURTHEST_PARTNER = 40;
/** Beyond this many edits the comparison of paragraphs gives up; no two copies of one page differ so. */
const MAX_EDITS = 4000;

/**
 * Compares the texts of two copies: first by paragraph, then inside paragraphs that stand in the same place and have
 * enough in common, by word (Myers 1986, "An O(ND) difference algorithm", by the diff package).
 */
export function compareCopies(before: Root, after: Root): CopyComparison {
  const [from, to] = [paragraphsOf(before), paragraphsOf(after)];
  const runs = diffArrays(from, to, { maxEditLength: MAX_EDITS }) ?? [
    { value: from, added: false, removed: true, count: from.length },
    { value: to, added: true, removed: false, count: to.length },
  ];
  const changes: ParagraphChange[] = [];
  for (let at = 0; at < runs.length; at++) {
    const run = runs[at];
    const next = runs[at + 1];
    if (!run) continue;
    if (run.removed && next?.added) {
      changes.push(...matched(run.value, next.value));
      at++;
    } else changes.push(...run.value.map((text) => ({ kind: kindOf(run), text })));
  }
  return { changes, ...countChanges(changes) };
}

function paragraphsOf(tree: Root): string[] {
  const { text, blocks } = plainText(tree);
  return blocks.map(({ start, end }) => text.slice(start, end));
}

function kindOf(run: { added: boolean; removed: boolean }): 'same' | 'added' | 'removed' {
  return run.added ? 'added' : run.removed ? 'removed' : 'same';
}

/** Paragraphs that went beside those that came in their place: each with the first that it has enough in common with. */
function matched(removed: readonly string[], added: readonly string[]): ParagraphChange[] {
  const changes: ParagraphChange[] = [];
  let next = 0;
  const words = added.map(wordsOf);
  for (const text of removed) {
    const own = wordsOf(text);
    const near = words.slice(next, next + FURTHEST_PARTNER);
    const found = near.findIndex((each) => inCommon(own, each) >= MIN_COMMON);
    const partner = next + found;
    if (found === -1) changes.push({ kind: 'removed', text });
    else {
      for (const each of added.slice(next, partner)) changes.push({ kind: 'added', text: each });
      const parts = diffWordsWithSpace(text, added[partner] ?? '');
      changes.push({
        kind: 'changed',
        words: parts.map((word) => ({ kind: kindOf(word), text: word.value })),
      });
      next = partner + 1;
    }
  }
  for (const each of added.slice(next)) changes.push({ kind: 'added', text: each });
  return changes;
}

/** The share of words in common: Dice's coefficient over the sets of words, 0 to 1. */
function inCommon(first: ReadonlySet<string>, second: ReadonlySet<string>): number {
  const common = [...first].filter((word) => second.has(word)).length;
  return first.size + second.size === 0 ? 1 : (2 * common) / (first.size + second.size);
}

function wordsOf(text: string): Set<string> {
  return new Set(text.toLowerCase().match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[\p{L}\p{N}]+/gu));
}

function countChanges(changes: readonly ParagraphChange[]): Pick<CopyComparison, 'addedWords' | 'removedWords'> {
  const count = { added: 0, removed: 0, same: 0 };
  for (const change of changes)
    for (const { kind, text } of change.kind === 'changed' ? change.words : [change])
      count[kind] += text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
  return { addedWords: count.added, removedWords: count.removed };
}
