import type { Activity } from '../model';
import { paceFactor, pacesOf } from '../reading';
import { silentWordsPerMinute } from '../text';
import { paceConfidence } from '../wording';

let n = 0;
const sitting = (words: number, seconds: number, more: Partial<Activity> = {}): Activity => ({
  id: `01900000-0000-7000-8000-${String(++n).padStart(12, '0')}`,
  itemId: 'en',
  startedAt: 1000 + n,
  day: '2026-11-25',
  by: 'eyes',
  seconds,
  words,
  ...more,
});
/** Items are named by their language here. */
const languageOf = (itemId: string) => (itemId === '?' ? undefined : itemId);
const many = (count: number, wordsPerMinute: number, more: Partial<Activity> = {}) =>
  Array.from({ length: count }, () => sitting(wordsPerMinute * 5, 300, more));

describe('the reader’s pace', () => {
  it('is what is usual until something was read (Brysbaert 2019, from memory: 238 words a minute)', () => {
    expect(silentWordsPerMinute('en')).toBeCloseTo(238);
    expect(paceFactor(pacesOf([], languageOf, 0), 'en-GB')).toBe(1);
  });

  it('comes to what is measured, the surer the more there is of it', () => {
    const after = (count: number) => pacesOf(many(count, 119), languageOf, 0).en!;
    expect(after(1).factor).toBeGreaterThan(1);
    expect(after(1).factor).toBeLessThan(after(10).factor);
    expect(after(50).factor).toBeCloseTo(2, 0);
    expect(after(50).wordsPerMinute).toBeLessThan(135);
    expect([after(1), after(5), after(20)].map(paceConfidence)).toEqual(['a first guess', 'fairly sure', 'sure']);
  });

  it('is not moved by a nap, by skims, by glances, by what was heard, or by what nobody knows', () => {
    const read = many(20, 240);
    const moved = [
      ...read,
      sitting(300, 9000),
      sitting(9000, 300),
      sitting(60, 20),
      ...many(30, 100, { by: 'ears' }),
      ...many(30, 100, { itemId: '?' }),
      ...many(3, 700),
    ];
    expect(pacesOf(moved, languageOf, 0).en!.factor).toBeCloseTo(pacesOf(read, languageOf, 0).en!.factor, 2);
  });

  it('is each language’s own, and begins anew where the reader says so', () => {
    const paces = pacesOf([...many(9, 300), ...many(9, 120, { itemId: 'de-AT' })], languageOf, 0);
    expect(paceFactor(paces, 'en')).toBeLessThan(1);
    expect(paceFactor(paces, 'de')).toBeGreaterThan(1);
    expect(paceFactor(paces, 'fr')).toBe(1);
    expect(pacesOf(many(9, 300), languageOf, 1e9)).toEqual({});
  });
});
