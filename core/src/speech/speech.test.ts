import type { Root } from 'hast';
import { plainText } from '../text';
import { toRate, utteranceAt, utterances, voiceFor } from '.';

const element = (tagName: string, ...children: (string | Root['children'][number])[]) =>
  ({
    type: 'element',
    tagName,
    properties: {},
    children: children.map((child) => (typeof child === 'string' ? { type: 'text', value: child } : child)),
  }) as Root['children'][number];
const root = (...children: Root['children']): Root => ({ type: 'root', children });

describe('what a voice reads', () => {
  const tree = root(
    element('h2', 'Tides'),
    element('p', 'High at ', element('b', 'noon'), '. Low at six.'),
    element('pre', element('code', 'let x = 1;')),
    element('table', element('tbody', element('tr', element('td', 'Day'), element('td', 'Height')))),
    element('p', '* * *'),
    element('p', 'A line', element('br'), 'broken'),
  );
  const spoken = utterances(tree, 'en');

  it('is its sentences in order; no code, no ornament', () => {
    expect(spoken.map(({ text }) => text)).toEqual([
      'Tides',
      'High at noon.',
      'Low at six.',
      'Day,Height',
      'A line',
      'broken',
    ]);
  });

  it('says the same characters as stand in the text, at the same places', () => {
    const { text } = plainText(tree);
    for (const { start, end, text: said } of spoken) {
      expect(said).toHaveLength(end - start);
      expect(said).toBe(text.slice(start, end).replace('\t', ','));
    }
  });

  it('pauses longer the more is closed', () => {
    const [heading, sentence, paragraph] = spoken.map(({ pauseMs }) => pauseMs);
    expect(sentence).toBeLessThan(paragraph ?? 0);
    expect(paragraph).toBeLessThan(heading ?? 0);
  });

  it('is found by a place in it, or by one before it', () => {
    const [heading, first] = spoken;
    expect(utteranceAt(spoken, 0)).toBe(heading);
    expect(utteranceAt(spoken, (heading?.end ?? 0) + 1)).toBe(first);
    expect(utteranceAt(spoken, (first?.start ?? 0) + 3)).toBe(first);
    expect(utteranceAt(spoken, 99_999)).toBe(spoken.at(-1));
    expect(utteranceAt([], 3)).toBeUndefined();
  });
});

describe('choosing a voice', () => {
  it('takes the same region, then the same language, or none', () => {
    expect(voiceFor('en-GB', ['en-US', 'en_GB', 'de-DE'])).toBe(1);
    expect(voiceFor('en-AU', ['de-DE', 'en-US'])).toBe(1);
    expect(voiceFor(null, ['fr', 'en'])).toBe(1);
    expect(voiceFor('ja', ['en', 'de'])).toBe(-1);
  });

  it('keeps a rate in its range and on its steps', () => {
    expect([0.1, 0.7, 1.04, 1.25, 2.96, 9].map(toRate)).toEqual([0.7, 0.7, 1, 1.3, 3, 3]);
  });
});
