/** @jest-environment node */
import { type Item, NEVER, Stage } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { pageFrom } from '@dorvel/core/testing';
import fc from 'fast-check';
import { shownAfter, shownOf } from './shown-items';

jest.mock('@/device/store/settings-storage', () => ({
  readSetting: (_name: string, _schema: unknown, otherwise: unknown) => otherwise,
  writeSetting: jest.fn(),
}));

const PACES = { en: { factor: 2, wordsPerMinute: 120, sittings: 9 } };

const drawn = fc.record({
  id: fc.nat(30),
  stage: fc.constantFrom(...Stage.options),
  raisedAt: fc.nat(9),
  duplicateOf: fc.option(fc.nat(30), { freq: 5 }),
  language: fc.constantFrom('en', 'de'),
});
type Drawn = typeof drawn extends fc.Arbitrary<infer Value> ? Value : never;
const idOf = (n: number) => `item-${n}`;

function itemFrom({ id, stage, raisedAt, duplicateOf, language }: Drawn): Item {
  const save = {
    type: 'save',
    id: idOf(id),
    itemId: idOf(id),
    address: `https://x.example/${id}`,
    savedAt: raisedAt,
    stamp: NEVER,
  } as const;
  const item = newItem(save);
  item.choices.stage = { value: stage, at: NEVER };
  item.choices.raisedAt = { value: raisedAt, at: NEVER };
  item.capture.page = pageFrom({ language });
  item.capture.duplicateOf = duplicateOf === null ? null : idOf(duplicateOf);
  return item;
}
const several = (maxLength: number) => fc.uniqueArray(drawn, { selector: ({ id }) => id, maxLength });
/** Without what a Map says of the order in which it was filled. */
const plain = ({ soFar, byId, standIns, inStage, held }: ReturnType<typeof shownOf>) => ({
  soFar,
  byId: [...byId].sort(([a], [b]) => (a < b ? -1 : 1)),
  standIns: [...standIns].sort(([a], [b]) => (a < b ? -1 : 1)),
  inStage,
  held,
});

/** Of a large library little changes at once, and that is looked for otherwise than in a small one. */
const others = (count: number) =>
  Array.from({ length: count }, (_, n) =>
    itemFrom({
      ...{ id: 100 + n, raisedAt: n % 10, duplicateOf: null, language: 'de' },
      stage: Stage.options[n % Stage.options.length] ?? 'inbox',
    }),
  );

it.each([
  ['small', 0, 20],
  ['large', 600, 2],
])('shows after any change what going through all of them anew shows, in a %s library', (_, count, most) => {
  const rest = others(count).map((item) => [item.id, item] as const);
  fc.assert(
    fc.property(several(20), several(most), fc.array(fc.nat(30), { maxLength: most }), (first, then, gone) => {
      const before = new Map([...rest, ...first.map((each) => [idOf(each.id), itemFrom(each)] as const)]);
      const now = new Map(before);
      for (const id of gone) now.delete(idOf(id));
      for (const each of then) now.set(idOf(each.id), itemFrom(each));
      const changed = new Set([...gone, ...then.map(({ id }) => id)].map(idOf));
      expect(plain(shownAfter(shownOf(before, PACES), now, changed, PACES))).toEqual(plain(shownOf(now, PACES)));
    }),
  );
});

it('leaves what has not changed the same object, down to the stages that nothing came into or left', () => {
  const of = (id: number, stage: Stage) => itemFrom({ id, stage, raisedAt: id, duplicateOf: null, language: 'en' });
  const read = new Map([of(1, 'inbox'), of(2, 'queue'), of(3, 'kept')].map((item) => [item.id, item]));
  const before = shownOf(read, PACES);
  const after = shownAfter(before, new Map(read).set(idOf(1), of(1, 'kept')), new Set([idOf(1)]), PACES);
  expect(after.inStage.queue).toBe(before.inStage.queue);
  expect(after.inStage.finished).toBe(before.inStage.finished);
  expect(after.standIns).toBe(before.standIns);
  expect(after.byId.get(idOf(3))).toBe(before.byId.get(idOf(3)));
  expect(after.inStage.kept.map(({ id }) => id)).toEqual([idOf(3), idOf(1)]);
  expect(before.inStage.inbox).toHaveLength(1);
});
