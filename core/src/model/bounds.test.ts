import fc from 'fast-check';
import { z } from 'zod';
import { feedKind, newItem } from '../records';
import { clipped, Feed, Item, LAST_INSTANT, wellFormed, wellFormedWithin, withinBounds } from '.';

const id = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const item = newItem({
  type: 'save',
  id: id(1),
  itemId: id(2),
  address: 'https://tidewater.example/a',
  savedAt: 1000,
  stamp: '000000001-0000-a',
});
const page = {
  title: 'Silt',
  authors: ['M. Oduya'],
  siteName: null,
  publishedAt: null,
  language: 'en',
  excerpt: null,
  wordCount: 10,
  minutes: 1,
  pictureCount: 0,
  thumbnail: null,
  icon: null,
  copyId: null,
  cameThrough: { verdict: 'whole' },
};
const withPage = (changes: object) => ({
  ...item,
  capture: { ...item.capture, page: { ...page, ...changes } },
});
const bounded = (value: unknown) => {
  const result = withinBounds(Item, value);
  if (!result.ok) throw new Error(result.issues[0]?.message);
  return result;
};

describe('a record brought within its bounds', () => {
  it('stays as it is when it fits', () => {
    expect(bounded(withPage({})).cut).toEqual([]);
  });

  it.each([
    ['a title of 1,100 letters', { title: 'x'.repeat(1100) }, { title: `${'x'.repeat(999)}…` }],
    ['an author of 300', { authors: ['y'.repeat(300)] }, { authors: [`${'y'.repeat(199)}…`] }],
    [
      'sixty authors',
      { authors: Array.from({ length: 60 }, (_, n) => `A${n}`) },
      { authors: Array.from({ length: 40 }, (_, n) => `A${n}`) },
    ],
    // Half an address leads elsewhere.
    ['a licence at a very long address', { licenceUrl: `https://x.example/${'z'.repeat(3000)}` }, { licenceUrl: null }],
    ['a date that is a novel', { publishedAt: '2026'.repeat(50) }, {}],
    ['a fraction of a word', { wordCount: 10.5 }, { wordCount: 10 }],
    ['fewer than no words', { wordCount: -4, minutes: -1 }, { wordCount: 0, minutes: 0 }],
    [
      'a sign that nobody knows',
      { cameThrough: { verdict: 'whole', signs: [{ code: 'sign-in' }, { code: 'omen' }] } },
      { cameThrough: { verdict: 'whole', signs: [{ code: 'sign-in' }] } },
    ],
    [
      'a fact of the wrong kind',
      {
        facts: [
          {
            about: 'weather',
            of: null,
            key: 'k',
            value: { type: 'number', number: 1, outOf: null },
            source: 'json-ld',
          },
        ],
      },
      { facts: [] },
    ],
    [
      'a fact with too long a text',
      {
        facts: [
          {
            about: 'book',
            of: null,
            key: 'k',
            value: { type: 'text', text: 'w'.repeat(500) },
            source: 'json-ld',
          },
        ],
      },
      {},
    ],
    ['a language that is none', { language: 5 }, { language: null }],
  ])('%s', (_what, changes, expected) => {
    expect(bounded(withPage(changes)).record.capture.page).toMatchObject(expected);
  });

  it('loses what is too much of tags, and a day after the last of days becomes the last', () => {
    const at = '000000001-0000-a';
    const tags = Object.fromEntries(Array.from({ length: 230 }, (_, n) => [`t${n}`, { value: `t${n}`, at }]));
    const { record, cut } = bounded({ ...item, tags, savedAt: Number.MAX_SAFE_INTEGER });
    expect(Object.keys(record.tags)).toHaveLength(200);
    expect(record.savedAt).toBe(LAST_INSTANT);
    expect(cut.sort()).toEqual(['savedAt', 'tags']);
  });

  it('never cuts what may not be cut', () => {
    const long = {
      ...item,
      choices: { ...item.choices, title: { value: 'x'.repeat(600), at: '000000001-0000-a' } },
    };
    const result = withinBounds(Item, long, ([field]) => field === 'capture');
    expect(result).toMatchObject({ ok: false, issues: [{ path: ['choices', 'title', 'value'] }] });
  });

  it('is not made of what is something else', () => {
    for (const value of [null, 5, 'item', [], {}, { ...item, id: 'no id' }, { ...item, choices: {} }])
      expect(withinBounds(Item, value).ok).toBe(false);
  });

  it('can always be read, whatever a page says of itself', () => {
    const anything = fc.oneof(
      fc.string({ minLength: 0, maxLength: 20 }),
      fc.string({ unit: 'binary', minLength: 900, maxLength: 1400 }),
      fc.constantFrom('\ud800', '\0', `https://x.example/${'a'.repeat(9000)}`),
      fc.double(),
      fc.constantFrom(-1, 2 ** 53, Infinity, NaN, null, undefined, true),
      fc.array(fc.string({ maxLength: 300 }), { maxLength: 60 }),
      fc.object({ maxDepth: 2 }),
    );
    const fields = [...Object.keys(page), 'modifiedAt', 'licenceUrl', 'facts'];
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...fields), anything), (changes) => {
        const { record } = bounded(wellFormedWithin(withPage(changes)));
        expect(Item.safeParse(JSON.parse(JSON.stringify(record))).success).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it('holds for feeds', () => {
    const feed = feedKind.apply(undefined, {
      type: 'follow',
      id: id(1),
      feedId: id(3),
      address: 'https://x.example/feed',
      followedAt: 5,
      stamp: '000000001-0000-a',
    });
    const result = withinBounds(Feed, {
      ...feed,
      state: { ...feed!.state, title: 's'.repeat(1700), siteUrl: 'https://'.padEnd(80_000, 'x') },
    });
    expect(result).toMatchObject({ ok: true, cut: ['state.siteUrl', 'state.title'] });
  });
});

describe('cutting a text', () => {
  it('leaves whole characters, within the length', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.integer({ min: 1, max: 20 }), (text, most) => {
        const cut = clipped(wellFormed(text), most);
        expect(cut.length).toBeLessThanOrEqual(most);
        expect(wellFormed(cut)).toBe(cut);
      }),
    );
    expect(clipped('a😀b', 3)).toBe('a…');
  });

  it('mends halves of characters only', () => {
    expect(wellFormed('a\ud83db😀\udc00')).toBe('a\uFFFDb😀\uFFFD');
    expect(wellFormedWithin({ a: ['\ud800'], b: 1 })).toEqual({ a: ['\uFFFD'], b: 1 });
    expect(z.string().parse(wellFormed('plain'))).toBe('plain');
  });
});
