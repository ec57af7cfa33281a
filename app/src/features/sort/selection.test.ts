import { NOTHING_SELECTED, reach, withoutGone } from './selection';

const IDS = ['a', 'b', 'c', 'd', 'e'];
const chosen = (selection: { chosen: ReadonlySet<string> }) => [...selection.chosen].sort().join('');

describe('selecting many', () => {
  it('takes one by itself, more beside it, and all between two', () => {
    const one = reach(NOTHING_SELECTED, IDS, 'b', 'only');
    expect(chosen(one)).toBe('b');
    const two = reach(one, IDS, 'd', 'toggle');
    expect(chosen(two)).toBe('bd');
    expect(chosen(reach(two, IDS, 'd', 'toggle'))).toBe('b');
    const range = reach(one, IDS, 'd', 'range');
    expect(chosen(range)).toBe('bcd');
    // A range is drawn again from where it began, also to the other side.
    expect(chosen(reach(range, IDS, 'a', 'range'))).toBe('ab');
  });

  it('looks around without losing what is selected', () => {
    const one = reach(NOTHING_SELECTED, IDS, 'b', 'only');
    const looking = reach(one, IDS, 'e', 'look');
    expect([chosen(looking), looking.at]).toEqual(['b', 'e']);
  });

  it('goes on at the row that took the place of those that are decided', () => {
    const range = reach(reach(NOTHING_SELECTED, IDS, 'b', 'only'), IDS, 'c', 'range');
    expect(withoutGone(range, IDS, ['a', 'd', 'e'])).toEqual({ chosen: new Set(), at: 'd', from: 'd' });
    expect(withoutGone(range, IDS, ['a'])).toEqual({ chosen: new Set(), at: 'a', from: 'a' });
    expect(withoutGone(range, IDS, [])).toEqual({ chosen: new Set(), at: null, from: null });
  });
});
