import { diff3Merge, diffComm } from 'node-diff3';
import type { Note, TextVersion } from '../model';
import { hasSeen, headsOf } from './versions';

/**
 * What a note says: its latest version, or all that were written apart made one. Of each line, what one of them changed since
 * both were the same; where they changed the same lines, both readings, one under the other (three-way merging of lines, after
 * Khanna, Kunal and Pierce 2007, "A Formal Investigation of Diff3"). No word that somebody wrote is lost unless somebody
 * who had seen it took it out.
 */
export function noteText({ versions }: Pick<Note, 'versions'>): string {
  const [first, ...others] = headsOf(versions);
  if (!first) return '';
  const merged: TextVersion[] = [first];
  return others.reduce((text, head) => {
    const base = versions.findLast((each) => [...merged, head].every((one) => hasSeen(one, each)));
    merged.push(head);
    return mergeTexts(text, base?.text ?? null, head.text);
  }, first.text);
}

/** @param base what both were made from; null when that is not known, and then nothing is taken for taken out */
function mergeTexts(one: string, base: string | null, other: string): string {
  if (one === other || other === base) return one;
  if (one === base) return other;
  const [a, b] = [one.split('\n'), other.split('\n')];
  const common = base === null ? commonLines(a, b) : base.split('\n');
  return diff3Merge(a, common, b, { excludeFalseConflicts: true })
    .flatMap((part) => part.ok ?? (part.conflict ? bothReadings(part.conflict.a, part.conflict.b) : []))
    .join('\n');
}

const commonLines = (a: string[], b: string[]) =>
  diffComm(a, b).flatMap((part) => ('common' in part ? part.common : []));

/** As paragraphs of their own: lines that follow on one another would be read as one. */
function bothReadings(a: readonly string[], b: readonly string[]): string[] {
  const isApart = a.length === 0 || b.length === 0 || a.at(-1) === '' || b[0] === '';
  return isApart ? [...a, ...b] : [...a, '', ...b];
}
