import { isAllKnown, runsOf } from './runs';

const TEXT = 'One is said. Two is said. Three is new.\n\nFour is said.';
const sentence = (form: string, id = 'a') => {
  const start = TEXT.indexOf(form);
  return { form, start, end: start + form.length, id, met: { start: 0, end: 1 }, metAs: '' };
};
const KNOWN = [sentence('One is said.'), sentence('Two is said.'), sentence('Four is said.')];

it('one mark stands for neighbours that were met in one item', () => {
  expect(runsOf(TEXT, KNOWN).map(({ start, end }) => TEXT.slice(start, end))).toEqual([
    'One is said. Two is said.',
    'Four is said.',
  ]);
  expect(runsOf(TEXT, [sentence('One is said.'), sentence('Two is said.', 'b')])).toHaveLength(2);
  expect(runsOf(TEXT, [])).toEqual([]);
});

it.each([
  ['within what is known', 0, 12, true],
  ['over two that follow one another', 4, 25, true],
  ['over what is new', 13, 39, false],
  ['from the middle of what is new', 30, TEXT.length, false],
  ['from the end of what is new, with only white space before what is known', 39, TEXT.length, true],
  ['behind all of it', TEXT.length, TEXT.length, false],
])('a part %s', (_, from, to, known) => {
  expect(isAllKnown(TEXT, KNOWN, from, to)).toBe(known);
});
