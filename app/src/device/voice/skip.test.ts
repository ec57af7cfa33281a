import { placeAfter } from './skip';

describe('a jump in time among sentences of 4, 10 and 6 seconds', () => {
  const lengths = [4, 10, 6];
  const after = (index: number, seconds: number, by: number) =>
    placeAfter({ index, seconds }, by, (at) => lengths[at] ?? 0, lengths.length);

  it.each([
    [0, 1, 2, 0, 3],
    [0, 1, 5, 1, 2],
    [1, 9, 15, 2, 5.88],
    [2, 1, -3, 1, 8],
    [2, 1, -15, 0, 0],
    [0, 3, -15, 0, 0],
    [0, 0, 14, 2, 0],
  ])('from %d at %d s, by %d s, is sentence %d at %d s', (index, seconds, by, toIndex, toSeconds) => {
    const to = after(index, seconds, by);
    expect(to.index).toBe(toIndex);
    expect(to.seconds).toBeCloseTo(toSeconds, 5);
  });
});
