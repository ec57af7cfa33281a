import type { Element, Root } from 'hast';
import { partsOf, plainText, wordStarts } from '.';

const block = (tagName: string, value: string): Element => ({
  type: 'element',
  tagName,
  properties: {},
  children: [{ type: 'text', value }],
});
const parts = (...children: Root['children']) => {
  const plain = plainText({ type: 'root', children });
  return { plain, parts: partsOf(plain, wordStarts(plain.text, 'en')) };
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
  });

  it('are one without headings, and none without text', () => {
    expect(parts(block('p', 'One two.')).parts).toHaveLength(1);
    expect(parts().parts).toEqual([]);
    expect(parts(block('h1', 'Only')).parts.map(({ title }) => title)).toEqual(['Only']);
  });
});
