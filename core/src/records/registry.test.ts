import fc from 'fast-check';
import { createClock } from '../sync';
import { type Draft, DRAFTS, FIRST_INSTANT, uuid } from '../testing';
import { type Change, createRegistry, itemKind, type Kind, noteKind, REGISTRY, type Stored } from '.';

/** Changes as three devices make them, each with a stamp that no other has. */
function stampedChanges(drafts: readonly Draft[]): Change[] {
  const devices = ['a', 'b', 'c'].map((name, ahead) => {
    let now = FIRST_INSTANT + ahead;
    return createClock(name, () => (now += 7));
  });
  return drafts.map((draft, n) => ({ ...draft, id: uuid(1000 + n), stamp: devices[n % 3]!.next() }));
}

describe.each(REGISTRY.kinds.map((kind) => [kind.name, kind] as const))('the kind %s', (name, kind: Kind) => {
  const { makes, changes } = DRAFTS[name]!(1);
  const history = fc
    .array(changes, { minLength: 1, maxLength: 12 })
    .map((drafts) => stampedChanges([makes, ...drafts]));
  const made = ([first]: readonly Change[]): Stored => kind.apply(undefined, first!)!;
  const play = (from: Stored, some: readonly Change[]) =>
    some.reduce((record, change) => kind.apply(record, change)!, from);

  it('reads its own changes, and nobody else does', () => {
    fc.assert(
      fc.property(history, (all) => {
        for (const change of all) {
          expect(REGISTRY.Mutation.safeParse(change).error).toBeUndefined();
          expect(REGISTRY.of(change)).toBe(kind);
          expect(kind.idOf(change)).toBe(made(all).id);
        }
        expect(kind.schema.safeParse(play(made(all), all)).error).toBeUndefined();
      }),
    );
  });

  it('comes to the same whatever the order in which changes arrive, and however often', () => {
    fc.assert(
      fc.property(history, fc.infiniteStream(fc.nat()), (all, order) => {
        const shuffled = all
          .map((change) => ({ change, key: order.next().value as number }))
          .sort((a, b) => a.key - b.key)
          .map(({ change }) => change);
        const whole = play(made(all), all);
        expect(play(made(all), shuffled)).toEqual(whole);
        expect(play(whole, shuffled)).toEqual(whole);
      }),
    );
  });

  it('merges so that it is commutative, associative and idempotent', () => {
    fc.assert(
      fc.property(history, (all) => {
        const start = made(all);
        const [a, b, c] = [0, 1, 2].map((device) =>
          play(
            start,
            all.filter((_, n) => n % 3 === device),
          ),
        ) as [Stored, Stored, Stored];
        expect(kind.merge(a, b)).toEqual(kind.merge(b, a));
        expect(kind.merge(kind.merge(a, b), c)).toEqual(kind.merge(a, kind.merge(b, c)));
        expect(kind.merge(a, a)).toEqual(a);
        expect(kind.merge(kind.merge(a, b), b)).toEqual(kind.merge(a, b));
        expect(kind.merge(kind.merge(a, b), c)).toEqual(play(start, all));
      }),
    );
  });

  it('keeps what a newer version has written into it, in every change and merging', () => {
    const isTop = fc.boolean();
    fc.assert(
      fc.property(history, isTop, (all, top) => {
        const newer = { value: 'of tomorrow', at: '0000000zz-0000-z' };
        const old = made(all) as Stored & { choices?: object };
        const ahead =
          !top && old.choices
            ? { ...old, choices: { ...old.choices, ofTomorrow: newer } }
            : { ...old, ofTomorrow: newer };
        const read = kind.schema.parse(ahead);
        const states = [play(read, all), kind.merge(read, play(old, all)), kind.merge(play(old, all), read)];
        for (const state of states) expect(JSON.stringify(state)).toContain('of tomorrow');
      }),
    );
  });
});

it('the registry has no two kinds that could be taken for one another', () => {
  expect(() => createRegistry([itemKind, { ...noteKind, plural: 'items' }])).toThrow('items');
  expect(() => createRegistry([itemKind, { ...noteKind, types: ['save'] }])).toThrow('save');
  expect(() => REGISTRY.named('nothing')).toThrow('nothing');
  expect(Object.keys(DRAFTS)).toEqual(REGISTRY.kinds.map(({ name }) => name));
});
