import fc from 'fast-check';
import { drawnBy, ENOUGH_DRAWN, meansBack } from './drawn';

describe('what a finger draws out', () => {
  it('never goes further than the finger, never back, and not without bound', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -500, max: 5000, noNaN: true }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        (by, more) => {
          expect(drawnBy(by)).toBeGreaterThanOrEqual(0);
          expect(drawnBy(by)).toBeLessThanOrEqual(Math.max(0, by));
          expect(drawnBy(by + more)).toBeGreaterThanOrEqual(drawnBy(by));
          expect(drawnBy(by)).toBeLessThan(111);
        },
      ),
    );
  });

  it('is meant within the reach of a thumb, and not by chance', () => {
    expect(drawnBy(60)).toBeLessThan(ENOUGH_DRAWN);
    expect(drawnBy(180)).toBeGreaterThan(ENOUGH_DRAWN);
  });
});

describe('a stroke from the edge', () => {
  it.each([
    ['a third of a phone', 130, 10, 390, true],
    ['a short one', 90, 0, 390, false],
    ['one that goes down as well', 140, 110, 390, false],
    ['half of a narrow screen', 120, 20, 320, true],
    ['what is no number', NaN, 0, 390, false],
  ])('goes back: %s', (_what, dx, dy, width, back) => {
    expect(meansBack(dx, dy, width)).toBe(back);
  });
});
