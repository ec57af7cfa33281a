import type { Root } from 'hast';
import { toString } from 'hast-util-to-string';
import { type Doubt, type Evidence, MAX_DOUBTS } from '../../model';
import { partitionPoint } from '../../text';
import { FEATURE_GROUPS } from './features';
import { type Forest, reasons } from './forest';
import type { Judged } from './judge';

/**
 * A block of which less is thought than this is not surely text (likelihood, 0 to 1; the mean over its characters). On pages of
 * site templates that the forest has not seen: docs/bench/judge.md.
 */
const SURE = 0.75;
/** So far ahead a block is looked for among the lines, in characters: lines are left out, but no more than that at once. */
const WINDOW = 20_000;
/** A block is known by so many of its first characters. */
const BEGINNING = 80;
/** Of each side so many reasons are told. */
const TOLD = 2;

const GROUP_OF = new Map(
  Object.entries(FEATURE_GROUPS).flatMap(([group, features]) =>
    features.map((feature): [string, Evidence] => [feature, group as Evidence]),
  ),
);

const bare = (text: string) => text.replace(/\s+/g, '');

/**
 * The blocks of a text that are not surely text, with what speaks for and against each.
 *
 * @param tree the text that was made of the lines
 * @param kept the lines of the page that were taken for text, in their order
 * @returns no more than MAX_DOUBTS, in the order of the tree
 */
export function doubtsOf(tree: Root, kept: Judged['kept'], forest: Forest): Doubt[] {
  if (kept.every(({ likely }) => likely >= SURE)) return [];
  const lines = kept.map((line) => ({ ...line, text: bare(line.text) }));
  const ends: number[] = [];
  let stream = '';
  for (const { text } of lines) {
    stream += text;
    ends.push(stream.length);
  }
  const doubts: Doubt[] = [];
  let cursor = 0;
  for (const [at, block] of tree.children.entries()) {
    const text = bare(toString(block));
    if (text === '') continue;
    const begins = stream.slice(cursor, cursor + WINDOW).indexOf(text.slice(0, BEGINNING));
    if (begins === -1) continue;
    const from = cursor + begins;
    cursor = from + text.length;
    const lineAt = (place: number) => partitionPoint(ends.length, (line) => (ends[line] ?? 0) > place);
    const own = lines.slice(lineAt(from), lineAt(cursor - 1) + 1);
    const chars = own.reduce((sum, line) => sum + line.text.length, 0);
    const likely = own.reduce((sum, line) => sum + line.likely * line.text.length, 0) / Math.max(1, chars);
    if (likely < SURE) doubts.push({ at, ...told(own, forest) });
  }
  return doubts.slice(0, MAX_DOUBTS);
}

/** What speaks for and against some lines together, by kind of evidence. */
function told(
  lines: readonly { text: string; features: Float32Array }[],
  forest: Forest,
): Pick<Doubt, 'speaksFor' | 'speaksAgainst'> {
  const sums = new Map<Evidence, number>();
  for (const { text, features } of lines)
    for (const { feature, weight } of reasons(forest, features)) {
      const group = GROUP_OF.get(feature);
      if (group) sums.set(group, (sums.get(group) ?? 0) + weight * text.length);
    }
  // Hardly a page states its text line by line: that it does not is nothing that a reader could look at.
  if ((sums.get('stated') ?? 0) < 0) sums.delete('stated');
  const sorted = [...sums].sort((a, b) => Math.abs(b[1]) - Math.abs(a[1]));
  const of = (speaks: (sum: number) => boolean) =>
    sorted
      .filter(([, sum]) => speaks(sum))
      .slice(0, TOLD)
      .map(([group]) => group);
  return { speaksFor: of((sum) => sum > 0), speaksAgainst: of((sum) => sum < 0) };
}
