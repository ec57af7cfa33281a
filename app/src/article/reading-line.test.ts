import fc from 'fast-check';
import { lineAt, scrollForLine } from './reading-line';

const view = fc.record({
  height: fc.integer({ min: 300, max: 1200 }),
  beyond: fc.integer({ min: 1, max: 60_000 }),
  at: fc.double({ min: 0, max: 1, noNaN: true }),
});

describe('the reading line', () => {
  it('stands at the top at the start and at the very end at the end', () => {
    expect(lineAt({ scrollTop: 0, height: 800, scrollHeight: 5000 })).toBe(0);
    expect(lineAt({ scrollTop: 4200, height: 800, scrollHeight: 5000 })).toBe(5000);
    expect(lineAt({ scrollTop: 0, height: 800, scrollHeight: 500 })).toBe(0);
  });

  it('has one scroll position for each place, and the other way round', () => {
    fc.assert(
      fc.property(view, ({ height, beyond, at }) => {
        const scrollHeight = height + beyond;
        const scrollTop = at * beyond;
        expect(scrollForLine(lineAt({ scrollTop, height, scrollHeight }), { height, scrollHeight })).toBeCloseTo(
          scrollTop,
          5,
        );
      }),
    );
  });

  it('is always on the screen', () => {
    fc.assert(
      fc.property(view, ({ height, beyond, at }) => {
        const scrollTop = at * beyond;
        const line = lineAt({ scrollTop, height, scrollHeight: height + beyond });
        expect(line).toBeGreaterThanOrEqual(scrollTop - 1e-6);
        expect(line).toBeLessThanOrEqual(scrollTop + height + 1e-6);
      }),
    );
  });
});
