import type { Echo } from '@dorvel/core/echo';
import { placedIn } from './placed-in';

const echo = (form: string, start: number): Echo => ({
  key: form,
  form,
  start,
  end: start + form.length,
  items: ['a'],
});

it('leaves echoes where they are in the text in which they were found', () => {
  const found = [echo('eelgrass', 4), echo('ferry', 20)];
  expect(placedIn('The eelgrass by the ferry', found)).toEqual(found);
});

it('finds them again in a text that lacks some blocks, in its order, and leaves out what stood only in those', () => {
  const found = [echo('ferry', 40), echo('dredging', 90), echo('eelgrass', 60)];
  expect(placedIn('The eelgrass by the ferry', found)).toEqual([echo('eelgrass', 4), echo('ferry', 20)]);
});
