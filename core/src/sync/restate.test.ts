import fc from 'fast-check';
import { type Mutation, type Records, REGISTRY, type Stored } from '../records';
import { anyChange, uuid } from '../testing';
import { createClock, restamped, restated } from '.';

/** A library as maps, to which changes are applied as a server does. */
function library() {
  const kinds = new Map(REGISTRY.kinds.map((kind) => [kind, new Map<string, Stored>()]));
  return {
    take(mutation: Mutation) {
      const kind = REGISTRY.of(mutation);
      const made = kind.apply(kinds.get(kind)?.get(kind.idOf(mutation)), mutation);
      if (made) kinds.get(kind)?.set(made.id, made);
    },
    known: (): Partial<Records> =>
      Object.fromEntries([...kinds].map(([{ plural }, records]) => [plural, [...records.values()]])),
  };
}

describe('records as the changes that make them', () => {
  it('make the same records where there are none, and change nothing where they are', () => {
    fc.assert(
      fc.property(fc.array(anyChange, { maxLength: 40 }), (changes) => {
        let now = 1_790_000_000_000;
        const clock = createClock('a', () => (now += 7));
        const device = library();
        let n = 1000;
        for (const each of changes) device.take({ ...each, id: uuid(n++), stamp: clock.next() } as Mutation);
        const server = library();
        const sent = restated(device.known(), () => uuid(n++));
        for (const each of sent) server.take(each);
        const sorted = (known: Partial<Records>) =>
          Object.fromEntries(
            Object.entries(known).map(([kind, all]) => [kind, [...(all ?? [])].sort((a, b) => (a.id < b.id ? -1 : 1))]),
          );
        // What the server alone decides is not told; furthest follows a place that was recorded.
        expect(sorted(server.known())).toEqual(sorted(device.known()));
        for (const each of sent) device.take(each);
        expect(sorted(device.known())).toEqual(sorted(server.known()));
        expect(new Set(sent.map(({ id }) => id)).size).toBe(sent.length);
      }),
    );
  });
});

it('a stamp that became another is another everywhere in its record, and nothing else is', () => {
  const record = { a: { value: 'x', at: 'old' }, b: { value: 'old', at: 'other' }, list: [{ at: 'old' }] };
  expect(restamped(record, 'old', 'new')).toEqual({
    a: { value: 'x', at: 'new' },
    b: { value: 'old', at: 'other' },
    list: [{ at: 'new' }],
  });
  expect(restamped(record, 'none', 'new')).toBe(record);
});
