import type { DossierEntry } from '../model';

/** How deep a heading stands; null for what is none. */
const depthOf = ({ part, choices }: DossierEntry): 1 | 2 | null =>
  part.kind === 'heading' ? (choices.nested.value ? 2 : 1) : null;

/** How many entries a section has with its heading: up to the next that is as deep, or less. 1 for what is no heading. */
export function sectionLength(ordered: readonly DossierEntry[], at: number): number {
  const heading = ordered[at];
  const depth = heading ? depthOf(heading) : null;
  if (depth === null) return 1;
  const end = ordered.slice(at + 1).findIndex((each) => {
    const own = depthOf(each);
    return own !== null && own <= depth;
  });
  return end === -1 ? ordered.length - at : end + 1;
}

/** What is to be seen when some sections are folded: of each of those its heading. @param folded ids of headings */
export function unfolded(ordered: readonly DossierEntry[], folded: ReadonlySet<string>): DossierEntry[] {
  let shownFrom = 0;
  return ordered.filter((entry, at) => {
    if (at < shownFrom) return false;
    shownFrom = at + (folded.has(entry.id) ? sectionLength(ordered, at) : 1);
    return true;
  });
}
