import fc from 'fast-check';
import type { Element } from 'hast';
import { plainText } from '../text';
import { gistOf } from '.';
import { pageRank } from './rank';

const block = (tagName: string, text: string): Element => ({
  type: 'element',
  tagName,
  properties: {},
  children: [{ type: 'text', value: text }],
});
const textOf = (...blocks: Element[]) => plainText({ type: 'root', children: blocks });

describe('the rank of a graph’s nodes', () => {
  it('is what networkx 2.8.8 has for pagerank(alpha=.85) on the same graph, a lone node included', () => {
    const edges: [number, number, number][] = [
      [0, 1, 0.5],
      [0, 2, 0.25],
      [1, 2, 0.75],
      [2, 3, 0.1],
      [3, 4, 0.9],
    ];
    const weights = Array.from({ length: 6 }, () => Array.from({ length: 6 }, () => 0));
    for (const [a, b, weight] of edges)
      for (const [from, to] of [
        [a, b],
        [b, a],
      ] as const)
        weights[from]![to] = weight;
    const expected = [0.148490421, 0.233348222, 0.207192439, 0.199839371, 0.182003332, 0.029126214];
    pageRank(weights).forEach((rank, at) => expect(rank).toBeCloseTo(expected[at] ?? 0, 7));
  });

  it('is shared alike where nothing is tied, and empty for no nodes', () => {
    expect(
      pageRank([
        [0, 0],
        [0, 0],
      ]),
    ).toEqual([0.5, 0.5]);
    expect(pageRank([])).toEqual([]);
  });
});

describe('a gist', () => {
  const about = [
    'Eelgrass holds the sand of the harbour with its roots.',
    'Where the eelgrass was dredged, the sand of the harbour moved in winter.',
    'The harbour has stopped dredging, and the eelgrass is coming back to its sand.',
  ];
  const beside = [
    'My uncle once owned a yellow bicycle with a broken bell on it.',
    'Lunch on that day was soup with bread from the other bakery.',
    'The bus to the mainland leaves at ten minutes past nine.',
  ];

  it('is the sentences that the others are about, in the order of the text', () => {
    const text = textOf(
      block('h2', 'On eelgrass, sand and the harbour, with its roots and its dredging.'),
      block('p', `${beside[0]} ${about[0]}`),
      block('p', `${about[1]} ${beside[1]}`),
      block('p', `${beside[2]} ${about[2]}`),
    );
    const gist = gistOf(text, null, 'en');
    expect(gist.map((each) => each.text)).toEqual(about);
    for (const { text: said, start } of gist) expect(text.text.startsWith(said, start)).toBe(true);
  });

  it('is rather what speaks of the names and terms that the text makes most of', () => {
    // By likeness and place it would be the first three.
    const plainly = (name: string) => `On the quay of the island ${name} is talked of by everybody in winter.`;
    const passing = ['a blue kettle', 'an old ladder', 'some wet rope', 'one lost glove', 'this loud gull'];
    const comesBack = 'The Harbour Board met. The Harbour Board paid. The Harbour Board left. '.repeat(3);
    const text = textOf(
      ...[...passing, 'the Harbour Board'].map((each) => block('p', `${plainly(each)} ${comesBack}`)),
    );
    expect(gistOf(text, 'The Harbour Board', 'en').map((each) => each.text)).toContain(plainly('the Harbour Board'));
  });

  it('does not say the same twice', () => {
    const twice = about.flatMap((each) => [block('p', each), block('p', each)]);
    expect(new Set(gistOf(textOf(...twice), null, 'en').map((each) => each.text)).size).toBe(3);
  });

  it('leaves out questions, headings, what leads up to something, and what is too short', () => {
    const text = textOf(
      block('p', 'What does the eelgrass of the harbour know about dredging?'),
      block('p', 'The eelgrass of the harbour knows three things about dredging:'),
      block('p', 'Eelgrass knows.'),
      block('li', 'Eelgrass in the harbour has been dredged away since long ago.'),
    );
    expect(gistOf(text, null, 'en')).toEqual([]);
  });

  it('finds sentences where no spaces part words', () => {
    const gist = gistOf(
      textOf(block('p', '潮の音は島の朝を知らせる時計である。港の人は潮の音を聞いて舟を出す。')),
      null,
      'ja',
    );
    expect(gist).toHaveLength(2);
  });

  it('is a few sentences of the text in its order, whatever the text', () => {
    const word = fc.constantFrom('tide', 'harbour', 'sand', 'moves', 'slowly', 'roots', 'winter', 'barge');
    const sentence = fc.array(word, { minLength: 8, maxLength: 14 }).map((words) => `${words.join(' ')}.`);
    fc.assert(
      fc.property(fc.array(fc.array(sentence, { maxLength: 4 }), { maxLength: 8 }), (paragraphs) => {
        const text = textOf(...paragraphs.map((each) => block('p', each.join(' '))));
        const gist = gistOf(text, null, 'en');
        expect(gist.length).toBeLessThanOrEqual(3);
        let last = -1;
        for (const { text: said, start } of gist) {
          expect(start).toBeGreaterThan(last);
          expect(text.text.startsWith(said, start)).toBe(true);
          last = start;
        }
      }),
    );
  });
});
