import type { Item } from '../model';
import { newItem } from '../records';
import { pageFrom, uuid } from '../testing';
import { changedSince, readingPlan } from '.';

const item = (n: number, minutes: number | null, changed: (item: Item) => void = () => undefined): Item => {
  const made = newItem({
    ...{
      id: uuid(n),
      itemId: uuid(n),
      type: 'save',
      stamp: '000000001-0000-a',
      address: `https://x.example/${n}`,
      savedAt: n,
    },
  });
  if (minutes !== null) made.capture.page = pageFrom({ minutes });
  changed(made);
  return made;
};
const finished = (made: Item) => (made.choices.finishedAt = { value: 5, at: '000000002-0000-a' });

describe('a plan of reading', () => {
  const plan = (items: readonly Item[], minutes: number) =>
    readingPlan(items, '2026-12-30', minutes).map(({ item: { id }, day }) => [Number(id.slice(-3)), day]);

  it('keeps the order, takes as much a day as fits, and at least one thing', () => {
    const items = [item(1, 6), item(2, 4), item(3, 25), item(4, 3), item(5, 8)];
    expect(plan(items, 10)).toEqual([
      [1, '2026-12-30'],
      [2, '2026-12-30'],
      [3, '2026-12-31'],
      [4, '2027-01-01'],
      [5, '2027-01-02'],
    ]);
  });

  it('leaves out what is read, and what has no text', () => {
    expect(plan([item(1, 6, finished), item(2, null), item(3, 5)], 10)).toEqual([[3, '2026-12-30']]);
    expect(plan([], 10)).toEqual([]);
  });

  it('counts what is left of what was begun', () => {
    const begun = item(1, 20, (made) => {
      const position = { block: 0, char: 0, offset: 0, quote: '', before: '', fraction: 0.75 };
      made.progress = { furthest: 0.75, position: { value: position, at: '000000002-0000-a' }, heard: [] };
    });
    expect(plan([begun, item(2, 5)], 10)).toEqual([
      [1, '2026-12-30'],
      [2, '2026-12-30'],
    ]);
  });
});

describe('what has changed', () => {
  const copy = (n: number, madeAt: number, hash: string) => ({
    ...{ id: uuid(n), madeAt, hash: hash.repeat(64), wordCount: 9, origin: 'fetched' as const },
  });
  const copied = (...copies: Item['capture']['copies']) => item(1, 5, (made) => (made.capture.copies = copies));

  it.each([
    ['another text since', [copy(2, 20, 'b'), copy(1, 5, 'a')], true],
    ['another text, but before', [copy(2, 9, 'b'), copy(1, 5, 'a')], false],
    ['fetched again, and the same', [copy(2, 20, 'a'), copy(1, 5, 'a')], false],
    ['changed and back again', [copy(3, 30, 'a'), copy(2, 20, 'b'), copy(1, 5, 'a')], false],
    ['there for the first time', [copy(2, 20, 'b')], false],
    ['without a copy', [], false],
  ])('is %s', (_name, copies, isChanged) => {
    expect(changedSince([copied(...copies)], 10)).toHaveLength(isChanged ? 1 : 0);
  });
});
