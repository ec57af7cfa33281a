import fc from 'fast-check';
import { termProfile } from '../terms';
import { createRelatedIndex } from '.';

const TEXTS: Readonly<Record<string, [title: string, text: string]>> = {
  eelgrass: [
    'What the eelgrass knows',
    'Eelgrass grows in the channel. Dredging tears the eelgrass meadow; dredging stirs silt.',
  ],
  dredging: [
    'The silt year',
    'Dredging stirs silt in the channel, and dredging goes on. The barge dumps silt and the divers count eelgrass shoots.',
  ],
  oven: [
    'The oven behind the net loft',
    'The bread oven is fired with driftwood. Rye loaves bake in the oven after the fire is drawn.',
  ],
  rye: ['Rye in a damp place', 'Rye bread wants a sour leaven. The loaf bakes long in a falling oven.'],
  law: [
    'One member, one vote',
    'A cooperative gives each member a vote. The statutes of the cooperative bind the board.',
  ],
};
const indexOf = (names: readonly string[]) => {
  const index = createRelatedIndex();
  for (const name of names) {
    const [title, text] = TEXTS[name] ?? ['', ''];
    index.put(name, termProfile(text, title, 'en'));
  }
  return index;
};
const all = Object.keys(TEXTS);

describe('related items', () => {
  it('are those that speak of the same, nearest first, and say of what', () => {
    const index = indexOf(all);
    const [nearest] = index.related('eelgrass', 5);
    expect(nearest?.id).toBe('dredging');
    expect(nearest?.shared).toEqual(expect.arrayContaining(['dredging', 'silt']));
    expect(index.related('oven', 5)[0]?.id).toBe('rye');
    expect(index.related('law', 5)).toEqual([]);
  });

  it('are rather those that say much than a line that says little else', () => {
    const index = indexOf(all);
    index.put('line', termProfile('Dredging stirs silt in the channel.', 'Silt', 'en'));
    expect(index.related('eelgrass', 2).map(({ id }) => id)).toEqual(['dredging', 'line']);
  });

  it('are as near in both directions', () => {
    const index = indexOf(all);
    const [there] = index.nearnessTo('eelgrass', ['dredging']);
    const [back] = index.nearnessTo('dredging', ['eelgrass']);
    expect(there?.nearness).toBeCloseTo(back?.nearness ?? 0, 12);
  });

  it('never include the item itself, nor what was taken out', () => {
    const index = indexOf(all);
    index.remove('dredging');
    expect(index.related('eelgrass', 5).map(({ id }) => id)).not.toContain('dredging');
    expect(index.related('dredging', 5)).toEqual([]);
    expect(index.size).toBe(all.length - 1);
  });

  it('show a phrase rather than its words', () => {
    const index = createRelatedIndex();
    index.put('a', termProfile('The bread oven smokes. A bread oven cools.', null, 'en'));
    index.put('b', termProfile('Our bread oven is old. Nobody fires the bread oven.', null, 'en'));
    index.put('c', termProfile('Boats and tides.', null, 'en'));
    expect(index.related('a', 1)[0]?.shared).toEqual(['bread oven']);
  });

  it('come out the same however the library came to be what it is', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ name: fc.constantFrom(...all), put: fc.boolean() }), { maxLength: 20 }),
        (steps) => {
          const grown = createRelatedIndex();
          const present = new Set<string>();
          for (const { name, put } of steps) {
            const [title, text] = TEXTS[name] ?? ['', ''];
            if (put) grown.put(name, termProfile(text, title, 'en'));
            else grown.remove(name);
            if (put) present.add(name);
            else present.delete(name);
            // Asking in between must not leave anything behind.
            grown.related(name, 2);
          }
          const fresh = indexOf([...present]);
          for (const name of present) {
            const round = (index: typeof grown) =>
              index.related(name, 5).map(({ id, nearness, shared }) => [id, nearness.toFixed(9), shared]);
            expect(round(grown)).toEqual(round(fresh));
          }
        },
      ),
      { numRuns: 50 },
    );
  });
});

describe('the reasons', () => {
  it('are names and terms that both come back to, never what each says once, nor a passing word', () => {
    const index = createRelatedIndex();
    const passing = ' Somebody waved from a window.'.repeat(2);
    index.put(
      'a',
      termProfile(
        `The Harbour Board met. The bread oven is old. The Harbour Board paid for the bread oven.${passing}`,
        null,
        'en',
      ),
    );
    index.put('b', termProfile(`Her bread oven smokes. The Harbour Board saw a pale kite once.${passing}`, null, 'en'));
    index.put('c', termProfile('Stars over the quay; a pale kite.', null, 'en'));
    const [near] = index.related('a', 1);
    expect(near?.shared).toEqual(expect.arrayContaining(['Harbour Board', 'bread oven']));
    expect(near?.shared.length).toBeLessThanOrEqual(3);
    // Said once in each.
    expect(index.nearnessTo('b', ['c'])[0]?.shared ?? []).not.toContain('pale kite');
  });
});
