import fc from 'fast-check';
import { withMerged } from './merged';

interface Member {
  id: number;
  rank: number;
}
const byRank = (a: Member, b: Member) => a.rank - b.rank || a.id - b.id;
const membersUpTo = (maxLength: number, size: 'max' | 'small') =>
  fc.uniqueArray(fc.record({ id: fc.nat(600), rank: fc.nat(40) }), { selector: ({ id }) => id, maxLength, size });

it.each([
  ['a few', 4],
  ['many', 60],
])('is the list that sorting all of it anew gives, when %s change', (_, most) => {
  fc.assert(
    fc.property(
      membersUpTo(400, 'max'),
      membersUpTo(most, 'small'),
      fc.array(fc.nat(600), { maxLength: most }),
      (here, coming, gone) => {
        const list = [...here].sort(byRank);
        const leaving = new Set([...gone, ...coming.map(({ id }) => id)]);
        const going = list.filter(({ id }) => leaving.has(id));
        const stay = list.filter(({ id }) => !leaving.has(id));
        expect(withMerged(list, going, coming, byRank)).toEqual([...stay, ...coming].sort(byRank));
      },
    ),
  );
});

it('has nothing twice, also by an order that does not know a member from itself', () => {
  const list = Array.from({ length: 200 }, (_, id) => ({ id, rank: 0 }));
  const before = (a: Member, b: Member) => (a.id > b.id ? 1 : -1);
  const changed = { id: 70, rank: 0 };
  expect(withMerged(list, [list[70]!], [changed], before).map(({ id }) => id)).toEqual(list.map(({ id }) => id));
});

it('leaves the list that it was given as it was, and what is not in it alone', () => {
  const list = Array.from({ length: 200 }, (_, id) => ({ id, rank: 2 * id }));
  const before = [...list];
  const after = withMerged(list, [{ id: 3, rank: 6 }, list[5]!], [{ id: 900, rank: 7 }], byRank);
  expect(after.map(({ id }) => id).slice(0, 7)).toEqual([0, 1, 2, 3, 900, 4, 6]);
  expect(list).toEqual(before);
});
