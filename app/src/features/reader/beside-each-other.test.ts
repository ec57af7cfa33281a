import { besideEachOther } from './beside-each-other';

it('puts each beside its line where there is room', () => {
  expect(besideEachOther([0, 200, 400], [60, 60, 60])).toEqual([0, 200, 400]);
});

it('puts what has no room below the one before, and comes back to the lines as soon as it can', () => {
  expect(besideEachOther([100, 110, 120, 500], [60, 60, 60, 60])).toEqual([100, 166, 232, 500]);
});

it('puts none over another, and none above its line', () => {
  const wanted = Array.from({ length: 40 }, (_, n) => ((n * n * 7) % 50) + n * 30).sort((a, b) => a - b);
  const heights = wanted.map((_, n) => 20 + ((n * 13) % 50));
  const tops = besideEachOther(wanted, heights);
  tops.forEach((top, n) => {
    expect(top).toBeGreaterThanOrEqual(wanted[n]!);
    if (n > 0) expect(top).toBeGreaterThan(tops[n - 1]! + heights[n - 1]!);
  });
});
