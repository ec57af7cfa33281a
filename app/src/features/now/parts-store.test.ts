import { completed, moved, NOW_PARTS, useNowParts } from './parts-store';

it('an order that was kept before a part was thought of has that part at its end', () => {
  expect(completed(['inbox', 'slot'])).toEqual([
    'inbox',
    'slot',
    ...NOW_PARTS.filter((part) => part !== 'inbox' && part !== 'slot'),
  ]);
  expect(completed(['slot', 'slot'])).toHaveLength(NOW_PARTS.length);
});

it.each([
  [0, 2, 'bca'],
  [2, 0, 'cab'],
  [1, 1, 'abc'],
  [9, 0, 'abc'],
])('what stands at %d put at %d makes %s of abc', (from, to, then) => {
  expect(moved(['a', 'b', 'c'], from, to).join('')).toBe(then);
});

it('what is arranged is kept on the device', () => {
  useNowParts.getState().move(0, 1);
  useNowParts.getState().show('inbox', false);
  expect(useNowParts.getState()).toMatchObject({ hidden: ['inbox'] });
  expect(useNowParts.getState().order.slice(0, 2)).toEqual(['slot', 'go-on']);
  expect(
    Object.keys(localStorage)
      .map((key) => localStorage.getItem(key))
      .join(),
  ).toContain('go-on');
  useNowParts.getState().show('inbox', true);
  expect(useNowParts.getState().hidden).toEqual([]);
});
