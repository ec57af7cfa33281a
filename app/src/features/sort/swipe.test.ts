import { swipeOf } from './swipe';

it.each([
  [120, 10, 'right'],
  [-120, -30, 'left'],
  [60, 0, null],
  [120, 110, null],
  [0, 300, null],
  [NaN, NaN, null],
])('a stroke of %i across and %i down leads %s', (dx, dy, where) => {
  expect(swipeOf(dx, dy)).toBe(where);
});
