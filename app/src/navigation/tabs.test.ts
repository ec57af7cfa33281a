import { openIdIn } from './tabs';

it.each([
  ['/queue/01900000', '01900000'],
  ['/now/01900000', '01900000'],
  ['/inbox', null],
  ['/inbox/', null],
  ['/you/text', null],
  ['/', null],
])('of %s says which item is open', (path, id) => {
  expect(openIdIn(path)).toBe(id);
});
