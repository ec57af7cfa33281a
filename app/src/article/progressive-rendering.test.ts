import type { ArticleTree } from '@dorvel/core/model';
import { act, renderHook } from '@testing-library/react-native';
import { partsFor, useInParts } from './progressive-rendering';

const paragraph = (length: number): ArticleTree['children'][number] => ({
  type: 'element',
  tagName: 'p',
  properties: {},
  children: [{ type: 'text', value: 'x'.repeat(length) }],
});
const tree = (...lengths: number[]): ArticleTree => ({ type: 'root', children: lengths.map(paragraph) });
const lengths = (parts: ReturnType<typeof partsFor>) => parts.parts.map((part) => part.length);

describe('the parts of a text', () => {
  it('are all of its blocks, each once and in order', () => {
    const whole = tree(...Array.from({ length: 60 }, (_, n) => 300 + n));
    const { parts, ends } = partsFor(whole, 0);
    expect(parts.flat()).toEqual(whole.children);
    expect(ends.at(-1)).toBe(60 * 300 + (59 * 60) / 2);
    expect(ends.length).toBe(parts.length);
  });

  it('begin with a few screens, and go on in larger ones', () => {
    expect(lengths(partsFor(tree(...Array<number>(30).fill(1000)), 0))).toEqual([2, 9, 9, 9, 1]);
    expect(lengths(partsFor(tree(500), 0))).toEqual([1]);
    expect(lengths(partsFor(tree(), 0))).toEqual([0]);
  });

  it('have the place at which the text is opened in the first', () => {
    const { parts, ends } = partsFor(tree(...Array<number>(30).fill(1000)), 12_500);
    expect(parts[0]).toHaveLength(14);
    expect(ends[0]).toBeGreaterThan(12_500);
  });
});

describe('a text set in parts', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());
  const long = tree(...Array<number>(20).fill(1000));

  it('grows from frame to frame until it is whole, and then what is below it may come', () => {
    const { result } = renderHook(() => useInParts(long, 0, false));
    const seen = [result.current];
    for (let n = 0; n < 6; n++) {
      act(() => {
        jest.advanceTimersByTime(40);
      });
      seen.push(result.current);
    }
    expect(seen.map(({ shown }) => shown)).toEqual([0.1, 0.55, 1, 1, 1, 1, 1]);
    expect(seen.map(({ whole }) => whole)).toEqual([false, false, false, true, true, true, true]);
    expect(seen.at(-1)?.parts.flat()).toEqual(long.children);
  });

  it('stays whole once all of it was needed', () => {
    const { result, rerender } = renderHook<ReturnType<typeof useInParts>, boolean>(
      (atOnce) => useInParts(long, 0, atOnce),
      { initialProps: false },
    );
    expect(result.current.shown).toBe(0.1);
    rerender(true);
    expect(result.current).toMatchObject({ shown: 1, whole: true });
    rerender(false);
    expect(result.current).toMatchObject({ shown: 1, whole: true });
  });

  it('is whole at once when all of it is needed, or when it is short and was begun', () => {
    expect(renderHook(() => useInParts(long, 0, true)).result.current).toMatchObject({
      shown: 1,
      whole: true,
    });
    expect(renderHook(() => useInParts(tree(500, 500), 600, false)).result.current.whole).toBe(true);
    expect(renderHook(() => useInParts(tree(500, 500), 0, false)).result.current).toMatchObject({
      shown: 1,
      whole: false,
    });
  });
});
