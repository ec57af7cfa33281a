import { scaleFor } from './scale';

it.each([
  [0, 3, 3],
  [4, 4, 4],
  [7, 8, 4],
  [12, 15, 3],
  [48, 50, 5],
  [230, 250, 5],
])('a largest value of %d stands under %d in %d sections', (most, top, sections) => {
  expect(scaleFor(most)).toEqual({ top, sections });
});
