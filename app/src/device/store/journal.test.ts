import type { Mutation } from '@dorvel/core/records';
import { journalChanges, journalledChanges, unsentChanges } from './journal';

const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const [mine, another] = [uuid(100), uuid(200)];
const save = (n: number): Mutation => ({
  type: 'save',
  id: uuid(n),
  itemId: uuid(n),
  address: `https://tides.example/${n}`,
  savedAt: 1_700_000_000_000,
  howMuch: 'words-and-pictures',
  stamp: `${'0'.repeat(9)}-0000-device00`,
});

/** What is left, taken in. */
const takeUnwritten = (account: string) =>
  journalledChanges(account).flatMap(({ changes, done }) => {
    done();
    return changes;
  });

beforeEach(() => localStorage.clear());

it('gives back what never came into the store, in order, to whom it belongs, until it is taken in', () => {
  journalChanges(mine, [save(2), save(3)]);
  const { written } = journalChanges(mine, [save(4)]);
  journalChanges(mine, [save(1)]);
  journalChanges(another, [save(9)]);
  written();
  expect(unsentChanges(mine).map(({ changes }) => changes)).toEqual([[save(4)]]);
  unsentChanges(mine)[0]?.done();
  expect(journalledChanges(mine)).toHaveLength(2);
  expect(takeUnwritten(mine)).toEqual([save(1), save(2), save(3)]);
  expect(takeUnwritten(mine)).toEqual([]);
  expect(takeUnwritten(another)).toEqual([save(9)]);
  expect(localStorage).toHaveLength(0);
});

it('makes no change of what it cannot read, and leaves other things in the storage alone', () => {
  localStorage.setItem('dorvel.rate', '1.2');
  journalChanges(mine, [save(1)]);
  localStorage.setItem(`dorvel.unwritten.${mine}.cut`, '[{"type":"save","id":');
  localStorage.setItem(`dorvel.unwritten.${mine}.odd`, '[{"type":"erase everything"}]');
  expect(takeUnwritten(mine)).toEqual([save(1)]);
  expect(Object.keys(localStorage)).toEqual(['dorvel.rate']);
});

it('goes without where there is no room, and where a text is too long', () => {
  const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  expect(journalChanges(mine, [save(1)]).written).not.toThrow();
  full.mockRestore();
  journalChanges(mine, [{ ...save(2), address: `https://tides.example/${'x'.repeat(300_000)}` } as Mutation]);
  expect(takeUnwritten(mine)).toEqual([]);
});

it('keeps what came into the store until it is sent, nothing long, and not without end', () => {
  journalChanges(mine, [{ ...save(700), address: `https://tides.example/${'x'.repeat(5000)}` } as Mutation]).written();
  expect(localStorage).toHaveLength(0);
  for (let n = 0; n < 600; n++) journalChanges(mine, [save(n)]).written();
  const unsent = unsentChanges(mine);
  expect(unsent).toHaveLength(500);
  expect(journalledChanges(mine)).toEqual([]);
  for (const { done } of unsent) done();
  expect(localStorage).toHaveLength(0);
});
