import fc from 'fast-check';
import { partitionPoint } from '.';

it('finds what looking through the whole row finds', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 20 })), fc.integer({ min: -1, max: 21 }), (values, wanted) => {
      const row = values.sort((a, b) => a - b);
      const found = row.findIndex((value) => value >= wanted);
      expect(partitionPoint(row.length, (at) => row[at]! >= wanted)).toBe(found === -1 ? row.length : found);
    }),
  );
});

it('looks at few of a long row', () => {
  let looks = 0;
  expect(partitionPoint(1_000_000, (at) => ++looks > 0 && at >= 765_432)).toBe(765_432);
  expect(looks).toBeLessThanOrEqual(20);
});
