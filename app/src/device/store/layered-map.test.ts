/** @jest-environment node */
import fc from 'fast-check';
import { LayeredMap } from './layered-map';

const key = fc.nat(12);
const value = fc.option(fc.string(), { nil: undefined });
const sorted = (map: ReadonlyMap<number, string>) => [...map].sort(([a], [b]) => a - b);

it('has what a Map has (ECMA-262) to which the same was done, whatever came before stays as it was', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(key, fc.string())),
      fc.array(fc.array(fc.tuple(key, value), { maxLength: 6 })),
      (first, steps) => {
        const plain = new Map(first);
        let layered = LayeredMap.of(new Map(first));
        for (const changes of steps) {
          const [before, was] = [layered, sorted(layered)];
          layered = layered.with(changes);
          for (const [at, now] of changes)
            if (now === undefined) plain.delete(at);
            else plain.set(at, now);
          expect(sorted(before)).toEqual(was);
        }
        expect(layered.size).toBe(plain.size);
        expect(sorted(layered)).toEqual(sorted(plain));
        for (let at = 0; at <= 12; at++)
          expect([layered.has(at), layered.get(at)]).toEqual([plain.has(at), plain.get(at)]);
        const told: [number, string][] = [];
        layered.forEach((one, at) => told.push([at, one]));
        expect(told.map(([at]) => at)).toEqual([...layered.keys()]);
        expect(told.map(([, one]) => one)).toEqual([...layered.values()]);
      },
    ),
  );
});

it('is made anew once it has taken in many changes, and has all of them', () => {
  let layered = LayeredMap.of(new Map([[-1, 'first']]));
  for (let at = 0; at < 1000; at++)
    layered = layered.with([
      [at, `${at}`],
      [at - 1, undefined],
    ]);
  expect([...layered]).toEqual([[999, '999']]);
  expect(layered.size).toBe(1);
});
