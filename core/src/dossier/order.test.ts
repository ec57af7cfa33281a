import fc from 'fast-check';
import { type DossierEntry, MAX_RANK_LENGTH, Rank } from '../model';
import { changeMaker, entryKind } from '../records';
import { createClock } from '../sync';
import { entryFrom, uuid } from '../testing';
import { FIRST_RANK, inOrder, moveEntries, type NewEntryRank, ranksAt } from '.';

const DOSSIER = uuid(1);
const heading = { kind: 'heading' } as const;

/** A device with what it has of one dossier, which it changes as a reader does. */
function device(name: string, known: readonly DossierEntry[]) {
  const entries = new Map(known.map((each) => [each.id, each]));
  let now = 1_790_000_000_000;
  let ids = 0;
  const make = changeMaker({
    clock: createClock(name, () => (now += 3)),
    newId: () => uuid(name.charCodeAt(0) * 10_000 + ids++),
    now: () => now,
  });
  const ordered = () => inOrder([...entries.values()], DOSSIER);
  const rerank = (ranks: readonly NewEntryRank[]) => {
    for (const { id, rank } of ranks) {
      const entry = entries.get(id);
      const changed = entry && entryKind.apply(entry, make.changeEntry(entry, { rank }));
      if (changed) entries.set(id, changed);
    }
  };
  return {
    ordered,
    add(at: number): string {
      const { ranks, others } = ranksAt(ordered(), at, 1);
      rerank(others);
      const made = entryKind.apply(undefined, make.entry(DOSSIER, heading, { rank: ranks[0] ?? '' }));
      if (!made) throw new Error('nothing was made');
      entries.set(made.id, made);
      return made.id;
    },
    move: (from: number, count: number, to: number) => rerank(moveEntries(ordered(), from, count, to)),
    take(others: readonly DossierEntry[]) {
      for (const each of others) {
        const here = entries.get(each.id);
        entries.set(each.id, here ? entryKind.merge(here, each) : each);
      }
    },
    entries: () => [...entries.values()],
    ids: () => ordered().map(({ id }) => id),
  };
}
const step = fc.record({ adds: fc.boolean(), at: fc.nat(30), count: fc.integer({ min: 1, max: 3 }), to: fc.nat(30) });

it('two devices that add and reorder apart lose nothing, and agree on one order', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 25 }), fc.array(step, { maxLength: 25 }), (here, there) => {
      const [a, b] = [device('a', []), device('b', [])];
      const added: string[] = [];
      const work = (on: typeof a, steps: typeof here) => {
        for (const { adds, at, count, to } of steps) {
          const size = on.ids().length;
          if (adds) added.push(on.add(at % (size + 1)));
          else if (size > 0) on.move(at % size, count, to % size);
        }
      };
      work(a, here);
      work(b, there);
      const [fromA, fromB] = [a.entries(), b.entries()];
      a.take(fromB);
      b.take(fromA);
      expect(a.ids()).toEqual(b.ids());
      expect([...a.ids()].sort()).toEqual([...added].sort());
      // And they can go on from there: a place between any two is still to be had.
      for (let at = a.ids().length; at >= 0; at--) {
        const id = a.add(at);
        expect(a.ids()[at]).toBe(id);
      }
      expect(a.ordered().every(({ choices }) => Rank.safeParse(choices.rank.value).success)).toBe(true);
    }),
  );
});

it('what is moved stands where it was put, whatever stands there', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('a0', 'a1', 'a1V', 'a2'), { minLength: 2, maxLength: 9 }),
      fc.nat(8),
      fc.integer({ min: 1, max: 3 }),
      fc.nat(8),
      (ranks, from, many, to) => {
        const on = device(
          'a',
          ranks.map((rank, n) => entryFrom({ id: uuid(100 + n), dossierId: DOSSIER, part: heading, rank })),
        );
        const before = on.ids();
        const first = from % before.length;
        const count = Math.min(many, before.length - first);
        const target = to % (before.length - count + 1);
        const wanted = [...before];
        const moving = wanted.splice(first, count);
        wanted.splice(target, 0, ...moving);
        on.move(first, count, target);
        expect(on.ids()).toEqual(wanted);
      },
    ),
  );
});

it('ranks stay short enough to be stored, however often something is put in one place', () => {
  const on = device('a', []);
  on.add(0);
  on.add(1);
  for (let n = 0; n < 700; n++) on.add(1);
  expect(Math.max(...on.ordered().map(({ choices }) => choices.rank.value.length))).toBeLessThanOrEqual(
    MAX_RANK_LENGTH,
  );
  expect(new Set(on.ids()).size).toBe(702);
});

it('takes no rank from elsewhere that nothing could be put beside', () => {
  for (const rank of ['', 'a', 'a00', '??', 'a0\u0000', 'zz'])
    expect([rank, Rank.safeParse(rank).success]).toEqual([rank, false]);
  for (const rank of [FIRST_RANK, 'a1V', 'Zz']) expect(Rank.safeParse(rank).success).toBe(true);
});
