/** Of more changes at once than this share of a list, all of it is gone through. */
const MANY = 1 / 50;

/**
 * An ordered list after some of its members have changed. Their places are looked for by halves, so that what has not changed is
 * not so much as looked at.
 *
 * @param list in the order of `compare`
 * @param going members of the list that go, because they are gone or come again as others
 * @param coming what comes, in any order
 * @param compare as for Array.prototype.sort; 0 for a member and itself, and for no two others
 * @returns a new list, in the order of `compare`
 */
export function withMerged<Member>(
  list: readonly Member[],
  going: readonly Member[],
  coming: readonly Member[],
  compare: (a: Member, b: Member) => number,
): Member[] {
  if (going.length + coming.length > list.length * MANY) {
    const gone = new Set(going);
    return [...list.filter((member) => !gone.has(member)), ...coming].sort(compare);
  }
  const merged = [...list];
  for (const member of going) {
    const place = placeOf(member, merged, compare);
    // Where it does not stand in its place it is looked for: nothing may stand in a list twice.
    const at = merged[place] === member ? place : merged.indexOf(member);
    if (at !== -1) merged.splice(at, 1);
  }
  for (const member of coming) merged.splice(placeOf(member, merged, compare), 0, member);
  return merged;
}

/** Where a member stands in an ordered list, or would stand. */
function placeOf<Member>(member: Member, list: readonly Member[], compare: (a: Member, b: Member) => number): number {
  let [from, to] = [0, list.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (compare(list[middle] as Member, member) < 0) from = middle + 1;
    else to = middle;
  }
  return from;
}
