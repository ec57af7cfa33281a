import type { Element, Root } from 'hast';
import { headingFractions, plainText, sectionsOf, wordsLeftInPart, wordStarts } from '.';

const block = (tagName: string, value: string): Element => ({
  type: 'element',
  tagName,
  properties: {},
  children: [{ type: 'text', value }],
});
const parts = (...children: Root['children']) => {
  const plain = plainText({ type: 'root', children });
  return { plain, parts: sectionsOf(plain, wordStarts(plain.text, 'en')) };
};

describe('the parts of a text', () => {
  it('go from heading to heading, with what stands before the first', () => {
    const { plain, parts: found } = parts(
      block('p', 'Before all.'),
      block('h2', 'Ebb'),
      block('p', 'It goes out.'),
      block('h3', 'Slack'),
      block('p', 'It stands.'),
    );
    expect(found.map(({ title, level, words }) => [title, level, words])).toEqual([
      ['', 1, 2],
      ['Ebb', 2, 4],
      ['Slack', 3, 3],
    ]);
    expect(found.map(({ start, end }) => plain.text.slice(start, end)).join('')).toBe(plain.text);
    expect(headingFractions(plain, wordStarts(plain.text, 'en'))).toEqual([2 / 9, 6 / 9]);
  });

  it('begin nowhere but at the beginning where there is no heading, or only the first line is one', () => {
    for (const children of [[block('p', 'All of it.')], [block('h2', 'Ebb'), block('p', 'It goes.')], []]) {
      const { plain } = parts(...children);
      expect(headingFractions(plain, wordStarts(plain.text, 'en'))).toEqual([]);
    }
  });

  it('are one without headings, and none without text', () => {
    expect(parts(block('p', 'One two.')).parts).toHaveLength(1);
    expect(parts().parts).toEqual([]);
    expect(parts(block('h1', 'Only')).parts.map(({ title }) => title)).toEqual(['Only']);
  });
});

it.each([
  [0, 2],
  [0.1, 1],
  [0.2, 4],
  [0.5, 1],
  [0.6, 4],
  [0.99, 0.1],
  [1, 0],
])('of ten words, %s passed, so many of its part are left: %s', (fraction, left) => {
  const { parts: found } = parts(
    block('p', 'Before all.'),
    block('h2', 'Ebb'),
    block('p', 'It goes out.'),
    block('h2', 'Flood'),
    block('p', 'It comes in.'),
  );
  expect(found.map(({ words }) => words)).toEqual([2, 4, 4]);
  expect(wordsLeftInPart(found, fraction)).toBeCloseTo(left);
});

it('of a text without words nothing is left', () => {
  expect(wordsLeftInPart([], 0)).toBe(0);
});
