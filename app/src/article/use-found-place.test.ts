import { readPlaces } from './use-found-place';

it.each([
  [
    '120-128.140-151',
    [
      { start: 120, end: 128 },
      { start: 140, end: 151 },
    ],
  ],
  ['7-9', [{ start: 7, end: 9 }]],
  ['9-7', []],
  ['', []],
  ['a-b', []],
  ['1-2,3-4', []],
  ['1-999999999', []],
  [undefined, []],
])('%s is %j', (written, places) => {
  expect(readPlaces(written)).toEqual(places);
});
