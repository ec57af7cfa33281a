import fc from 'fast-check';
import { inSight, layWall } from './wall-layout';

/** A picture of a proportion, in one of the three columns of 200 points, with so much below it. */
const tile = (proportion: number, below = 0) => ({ height: 200 * proportion + below });
const AT = { width: 620, columns: 3, gap: 10 };

describe('a wall', () => {
  it('has each tile at its own proportions, in the column that is shortest so far', () => {
    const { placed, height } = layWall([tile(1), tile(0.5), tile(2), tile(1, 30), tile(1)], AT);
    expect(placed).toEqual([
      { left: 0, top: 0, width: 200, height: 200 },
      { left: 210, top: 0, width: 200, height: 100 },
      { left: 420, top: 0, width: 200, height: 400 },
      { left: 210, top: 110, width: 200, height: 230 },
      { left: 0, top: 210, width: 200, height: 200 },
    ]);
    expect(height).toBe(420);
  });

  it('has what spans all columns below all before it, and all later ones below that', () => {
    const { placed } = layWall([tile(1), tile(2), { ...tile(0, 40), spans: true }, tile(1)], AT);
    expect(placed.slice(2)).toEqual([
      { left: 0, top: 410, width: 620, height: 40 },
      { left: 0, top: 460, width: 200, height: 200 },
    ]);
  });

  it('keeps the order by rows: none begins below one that comes later by more than the highest tile', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.2, max: 2.2, noNaN: true }), { maxLength: 60 }), (proportions) => {
        const { placed } = layWall(
          proportions.map((each) => tile(each)),
          AT,
        );
        placed.forEach(({ top }, n) =>
          placed.slice(n + 1).forEach((later) => expect(later.top).toBeGreaterThanOrEqual(top - 1e-6)),
        );
      }),
    );
  });

  it('never lays one tile over another', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.2, max: 2.2, noNaN: true }), { maxLength: 40 }), (proportions) => {
        const { placed } = layWall(
          proportions.map((each) => tile(each, 30)),
          AT,
        );
        for (const column of [0, 210, 420]) {
          const own = placed.filter(({ left }) => left === column).sort((a, b) => a.top - b.top);
          own
            .slice(1)
            .forEach(({ top }, n) => expect(top).toBeGreaterThanOrEqual((own[n]?.top ?? 0) + (own[n]?.height ?? 0)));
        }
      }),
    );
  });

  it('draws only what is in sight', () => {
    const { placed } = layWall(
      Array.from({ length: 2000 }, () => tile(1)),
      AT,
    );
    const seen = inSight(placed, 1000, 1800);
    expect(seen.length).toBeLessThan(20);
    expect(seen.every((n) => placed[n]!.top <= 1800 && placed[n]!.top + placed[n]!.height >= 1000)).toBe(true);
    expect(layWall([], AT)).toEqual({ placed: [], height: 0 });
  });
});
