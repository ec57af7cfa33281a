import fc from 'fast-check';
import type { Root } from 'hast';
import { plainText, wordStarts } from '../text';
import { anchorAt, findAnchor } from '.';

const textOf = (...paragraphs: string[]) => {
  const tree: Root = {
    type: 'root',
    children: paragraphs.map((value) => ({
      type: 'element',
      tagName: 'p',
      properties: {},
      children: [{ type: 'text', value }],
    })),
  };
  const plain = plainText(tree);
  return { plain, starts: wordStarts(plain.text, 'en') };
};
const PARAGRAPHS = [
  'By the third summer the divers had stopped counting shoots and begun to count sounds.',
  'The channel is cleared every ninth year, and nobody had thought to ask what the silt does to the light.',
  'Roots hold sand, and it took the harbour thirty-six years and four dredgings to act on it.',
];

describe('an anchor', () => {
  const { plain, starts } = textOf(...PARAGRAPHS);

  it('names block, character, offset, fraction and what stands around it', () => {
    const at = plain.text.indexOf('nobody');
    const anchor = anchorAt(plain, starts, at);
    expect(anchor).toMatchObject({ block: 1, char: PARAGRAPHS[1]?.indexOf('nobody'), offset: at });
    expect(anchor.quote.startsWith('nobody had thought')).toBe(true);
    expect(anchor.before.endsWith('year, and ')).toBe(true);
    expect(anchor.fraction).toBeCloseTo(starts.filter((start) => start < at).length / starts.length, 9);
  });

  it('is found again exactly in the same text, wherever it was', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: plain.text.length }), (at) => {
        expect(findAnchor(plain, starts, anchorAt(plain, starts, at))).toBe(at);
      }),
    );
  });

  it('is found after a new extraction has put a paragraph in front and taken one away', () => {
    const later = textOf(
      'A note by the editor that was not there before, and is rather long.',
      PARAGRAPHS[0] ?? '',
      PARAGRAPHS[2] ?? '',
    );
    const at = plain.text.indexOf('thirty-six');
    expect(findAnchor(later.plain, later.starts, anchorAt(plain, starts, at))).toBe(
      later.plain.text.indexOf('thirty-six'),
    );
  });

  it('takes the nearest of several places that say the same', () => {
    const refrain = 'And the tide came in, and the tide went out again as it does.';
    const long = textOf(refrain, PARAGRAPHS[0] ?? '', refrain, PARAGRAPHS[1] ?? '', refrain);
    const third = long.plain.text.lastIndexOf('And the tide');
    const anchor = { ...anchorAt(long.plain, long.starts, third), offset: third - 5, before: '' };
    expect(findAnchor(long.plain, long.starts, anchor)).toBe(third);
  });

  it('falls back on the fraction when nothing of the quote is left', () => {
    const other = textOf('Quite different words stand here now, twelve of them as it happens.');
    const anchor = anchorAt(plain, starts, plain.text.indexOf('nobody'));
    const found = findAnchor(other.plain, other.starts, anchor);
    expect(found / other.plain.text.length).toBeCloseTo(anchor.fraction, 0);
  });

  it('does not fall over in an empty text', () => {
    const empty = textOf();
    expect(findAnchor(empty.plain, empty.starts, anchorAt(plain, starts, 50))).toBe(0);
    expect(anchorAt(empty.plain, empty.starts, 10)).toMatchObject({ offset: 0, fraction: 0 });
  });
});
