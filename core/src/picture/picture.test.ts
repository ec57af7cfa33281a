import { readFileSync } from 'node:fs';
import path from 'node:path';
import { type PictureSeen, placeOfWord, type RecognisedPicture, type RecognisedWord } from '../model';
import { suggestTags } from '../nearness';
import { newItem } from '../records';
import { pageFrom, uuid } from '../testing';
import { plainText } from '../text';
import {
  alikeAsNear,
  alikeness,
  alikeTo,
  bitsApart,
  coveredBy,
  figureOf,
  isOnlyPictures,
  kindInWords,
  kindReasonWords,
  looksTheSame,
  pageOfPictures,
  paragraphsOf,
  placedWords,
  recognisedWords,
  treeOfPictures,
  treePutRight,
} from '.';

const HASH = 'a'.repeat(64);
const OTHER = 'b'.repeat(64);
const found = (line: string, top: number, { left = 10, height = 20, sure = 95 } = {}) =>
  line.split(' ').map((text, n) => ({ text, sure, left: left + n * 60, top, width: 50, height }));
const size = { width: 1000, height: 500 };
const words = (...blocks: Parameters<typeof recognisedWords>[0]) => recognisedWords(blocks, size);
const said = (list: readonly (RecognisedWord | null)[]) => paragraphsOf(list);

describe('words in a picture', () => {
  it('have their places in thousandths, and begin lines and paragraphs', () => {
    const [first, second, third] = words([[found('Tide table', 50), found('for March', 80)]]);
    expect(first).toEqual({ text: 'Tide', sure: 95, box: [10, 100, 50, 40], begins: 'paragraph' });
    expect([second?.begins, third?.begins]).toEqual([undefined, 'line']);
  });

  it('are paragraphs by the space between lines, by their height, and by short last lines', () => {
    const read = words([
      [
        found('NOTICE', 20, { height: 40 }),
        found('the ferry does not cross', 80),
        found('today.', 110),
        found('Ask the harbour master now', 140),
        found('or come back', 170),
        found('Ines', 260),
      ],
    ]);
    expect(said(read)).toEqual([
      { isHeading: true, text: 'NOTICE' },
      { isHeading: false, text: 'the ferry does not cross today.' },
      { isHeading: false, text: 'Ask the harbour master now or come back' },
      { isHeading: false, text: 'Ines' },
    ]);
  });

  it('are read column by column, as recognition gives them', () => {
    const left = [found('one two', 20), found('three', 50)];
    const right = [found('four five', 20, { left: 500 }), found('six', 50, { left: 500 })];
    expect(said(words([left], [right])).map(({ text }) => text)).toEqual(['one two three', 'four five six']);
  });

  it('are cut at a gutter that recognition has read through, but not under a heading over both columns', () => {
    const both = (one: string, other: string, top: number) => [...found(one, top), ...found(other, top, { left: 500 })];
    const read = words([
      [
        found('Chandlers to the island trade and to its boats and', 20),
        both('No 118', 'No 119', 60),
        both('Bow pattern', 'Ash cheeks', 90),
        both('Each 4.20', 'Each 31.00', 120),
      ],
    ]);
    expect(said(read).map(({ text }) => text)).toEqual([
      'Chandlers to the island trade and to its boats and',
      'No 118 Bow pattern Each 4.20',
      'No 119 Ash cheeks Each 31.00',
    ]);
  });

  it('are read line by line where recognition took a line, or the rest of lines, out of their block', () => {
    const own = [found('whereas it is essential', 20), found('between the nations', 80)];
    const between = [found('to promote relations', 50)];
    const all = 'whereas it is essential to promote relations between the nations';
    expect(said(words([own], [between])).map(({ text }) => text)).toEqual([all]);
    expect(said(words([between], [own])).map(({ text }) => text)).toEqual([all]);
    const left = [found('whereas it', 20), found('to promote', 50), found('between the', 80)];
    const rest = [found('is essential', 20, { left: 130 }), found('relations', 50, { left: 130 })];
    expect(said(words([left], [rest], [[found('nations', 80, { left: 130 })]])).map(({ text }) => text)).toEqual([all]);
    const beyond = rest.map((line) => line.map((word) => ({ ...word, left: word.left + 300 })));
    expect(said(words([left], [beyond])).map(({ text }) => text)).toEqual([
      'whereas it to promote between the',
      'is essential relations',
    ]);
  });

  it('are one paragraph where recognition cut a sentence into blocks, and not where another one begins', () => {
    const first = [[found('to promote friendly relations', 20)]];
    expect(said(words(first, [[found('between the nations.', 50)]]))).toHaveLength(1);
    expect(said(words(first, [[found('Whereas the nations', 50)]]))).toHaveLength(2);
    expect(said(words(first, [[found('between the nations.', 50, { left: 500 })]]))).toHaveLength(2);
    expect(said(words([[found('to promote friendly relations.', 20)]], [[found('between', 50)]]))).toHaveLength(2);
  });

  it('are kept where the last of a sure line is all of a block of its own', () => {
    const read = words(
      [found('the revolt against tyranny and', 20)].map((line) => [line]),
      [[found("l'oppression,", 50, { sure: 20 })]],
    );
    expect(
      said(read)
        .map(({ text }) => text)
        .join(' '),
    ).toContain("l'oppression,");
  });

  it('are joined where a hyphen had cut them, and not where it belongs', () => {
    const read = words([[found('weather allow-', 20), found('ing at the North-', 50), found('End quay', 80)]]);
    expect(said(read)[0]?.text).toBe('weather allowing at the North- End quay');
  });

  it('are not marks and shadows that were taken for letters', () => {
    const read = words([
      [
        found('plain words here', 20),
        found('~| — .', 60, { sure: 70 }),
        found('zx', 90, { sure: 30 }),
        found('il', 120, { sure: 70 }),
      ],
    ]);
    expect(read.map(({ text }) => text)).toEqual(['plain', 'words', 'here']);
  });

  it('are the rest of a line that is sure and has no end, however unsure', () => {
    const read = (first: string) =>
      words([[found(first, 20), found('l’oppression,', 50, { sure: 20 })]]).map(({ text }) => text);
    expect(read('la tyrannie et')).toEqual(['la', 'tyrannie', 'et', 'l’oppression,']);
    expect(read('la tyrannie ici.')).toEqual(['la', 'tyrannie', 'ici.']);
    // Far below, or elsewhere, it is no rest of it.
    for (const [top, left] of [
      [120, 10],
      [50, 90],
    ] as const)
      expect(words([[found('la tyrannie et', 20), found('gale', top, { sure: 20, left })]])).toHaveLength(3);
  });

  it('cover a part of the picture, as far as they are sure', () => {
    expect(coveredBy(words([[found('a1 b2', 20), found('c3 d4', 60, { sure: 60 })]]))).toEqual({
      covered: 0.004,
      words: 2,
    });
  });
});

const recognised: RecognisedPicture[] = [
  { hash: HASH, words: words([[found('Rope l2 mm', 20), found('and shackles', 50)]]) },
  { hash: OTHER, words: words([[found('Brass cleats', 20)]]) },
];
const figures = [HASH, OTHER].map((hash) => figureOf({ src: `/api/pictures/${hash}.webp`, alt: '' }));
const quote = { type: 'element' as const, tagName: 'blockquote', properties: {}, children: [] };
const bare = { type: 'root' as const, children: [...figures, quote] };
const tree = treeOfPictures(
  bare,
  recognised.map((each) => each.words),
);
const never = '000000000-0000-0';
const saying = (words: readonly Right[] = [], typed: string | null = null) => ({
  putRight: Object.fromEntries(
    words.map(({ hash, place, was, is }) => [placeOfWord(hash, place), { value: { was, is }, at: never }]),
  ),
  choices: { typed: { value: typed, at: never } },
});
const right = { hash: HASH, place: 1, was: 'l2', is: '12' };
type Right = typeof right;

describe('the text that is made of them', () => {
  it('has each picture with its words below it, and last the lines between which it stood', () => {
    expect(tree.children.map((block) => block.type === 'element' && block.tagName)).toEqual([
      'figure',
      'p',
      'figure',
      'p',
      'blockquote',
    ]);
    expect(plainText(tree).text).toBe('Rope l2 mm and shackles\n\nBrass cleats');
    expect([isOnlyPictures(bare), isOnlyPictures(tree), isOnlyPictures({ type: 'root', children: [] })]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('says which page they are from: where the lines between which they stood lead last', () => {
    const link = (href: string) => ({
      type: 'element' as const,
      tagName: 'p',
      properties: {},
      children: [{ type: 'element' as const, tagName: 'a', properties: { href }, children: [] }],
    });
    const quote = (...children: ReturnType<typeof link>[]) => ({
      type: 'element' as const,
      tagName: 'blockquote',
      properties: {},
      children,
    });
    const links = [link('https://x.example/other'), link('https://x.example/page')];
    expect(pageOfPictures({ type: 'root', children: [quote(...links)] })).toBe('https://x.example/page');
    expect(pageOfPictures({ type: 'root', children: [...links, quote()] })).toBeNull();
  });

  it('gives each picture its own words, also where one before it did not come through', () => {
    const [first, second] = figures;
    const lost = { ...first!, children: [{ ...quote, tagName: 'img', properties: { alt: 'Lost' } }] };
    const made = treeOfPictures({ type: 'root', children: [lost, second!] }, [recognised[1]!.words]);
    expect(made.children.map((block) => block.type === 'element' && block.tagName)).toEqual(['figure', 'figure', 'p']);
  });

  it('is the same tree as long as nothing was put right', () => {
    expect(treePutRight({ tree, recognised }, saying())).toBe(tree);
  });

  it('has the words that were put right, and without those that are none', () => {
    const read = (...putRight: Right[]) => plainText(treePutRight({ tree, recognised }, saying(putRight))).text;
    expect(read(right)).toBe('Rope 12 mm and shackles\n\nBrass cleats');
    // Put back as it was recognised.
    expect(read({ ...right, is: 'l2' })).toBe('Rope l2 mm and shackles\n\nBrass cleats');
    expect(read({ ...right, is: '' })).toBe('Rope mm and shackles\n\nBrass cleats');
    // The first word of a paragraph gone, the next begins it.
    expect(read({ hash: OTHER, place: 0, was: 'Brass', is: '' })).toBe('Rope l2 mm and shackles\n\ncleats');
    // Of a later recognition, which read something else, it says nothing.
    expect(read({ ...right, was: 'I2' })).toBe('Rope l2 mm and shackles\n\nBrass cleats');
  });

  it('has what was typed in, also where nothing was recognised', () => {
    const read = (copy: Parameters<typeof treePutRight>[0]) =>
      plainText(treePutRight(copy, saying([], 'No boat today\n\nInes'))).text;
    expect(read({ tree, recognised })).toBe('Rope l2 mm and shackles\n\nBrass cleats\n\nNo boat today\n\nInes');
    expect(read({ tree: bare })).toBe('No boat today\n\nInes');
    const article = { type: 'root' as const, children: [{ ...quote, tagName: 'p' }] };
    expect(treePutRight({ tree: article }, saying([], 'x'))).toBe(article);
  });

  it('tells where each word stands, as it is read', () => {
    const { text } = plainText(treePutRight({ tree, recognised }, saying([right])));
    const placed = placedWords(text, recognised, saying([right]).putRight);
    expect(placed.map(({ start, end }) => text.slice(start, end))).toEqual([
      'Rope',
      '12',
      'mm',
      'and',
      'shackles',
      'Brass',
      'cleats',
    ]);
    expect(placed.map(({ hash }) => hash === HASH)).toEqual([true, true, true, true, true, false, false]);
    const cut = [{ hash: HASH, words: words([[found('weather allow-', 20), found('ing today', 50)]]) }];
    expect(placedWords('weather allowing today', cut, {}).map(({ start }) => start)).toEqual([0, 8, 13, 17]);
  });
});

describe('pictures that are like each other', () => {
  const seen = (changes: object = {}) => ({
    colours: [
      { hex: '#008080', share: 0.6, name: 'green' },
      { hex: '#ffffff', share: 0.4, name: 'white' },
    ],
    kind: 'drawing' as const,
    why: [],
    isGrey: false,
    likeness: 'ffffffffffffffff',
    wordCount: 0,
    unsureCount: 0,
    ...changes,
  });

  it('are the same to the eye when few of their bits differ', () => {
    expect([bitsApart('ffffffffffffffff', 'fffffffffffffff0'), bitsApart('0'.repeat(16), 'f'.repeat(16))]).toEqual([
      4, 64,
    ]);
    expect(looksTheSame('ffffffffffffffff', 'fffffffffffffff0')).toBe(true);
    expect(looksTheSame('ffffffffffffffff', 'ffffffffffffff00')).toBe(false);
    expect(looksTheSame(null, null)).toBe(false);
    expect(alikeness(seen(), seen())).toBe(1);
  });

  it('are near in kind and colour', () => {
    const other = { likeness: '0000000000000000' };
    const near = alikeness(seen(), seen(other));
    const inKind = alikeness(seen(), seen({ ...other, colours: [{ hex: '#ff0000', share: 1, name: 'red' }] }));
    const inNothing = alikeness(seen(), seen({ ...other, isGrey: true, kind: 'photograph', colours: [] }));
    expect(near).toBeCloseTo(0.99);
    expect(inKind).toBeCloseTo(0.45);
    expect(inNothing).toBe(0);
  });

  it('say what an item may be tagged: what two that are like it have, by what the reader says they are', () => {
    const item = (n: number, look: Partial<PictureSeen>, kindSaid: PictureSeen['kind'] | null = null) => {
      const made = newItem({
        id: uuid(n),
        stamp: '000000001-0000-a',
        type: 'save',
        itemId: uuid(n),
        address: `https://x.example/${n}.png`,
        savedAt: n,
      });
      const picture = { hash: HASH, small: HASH, large: HASH, width: 4, height: 3, seen: seen(look) };
      const choices = { ...made.choices, kindSaid: { value: kindSaid, at: '000000001-0000-a' } };
      return { ...made, choices, capture: { ...made.capture, page: pageFrom({ pictures: [picture] }) } };
    };
    const grey = [{ hex: '#000000', share: 1, name: 'black' as const }];
    const charts = [
      item(2, { likeness: '00000000ffffffff', colours: grey }, 'diagram'),
      item(3, { likeness: '0f0f0f0f0f0f0f0f', kind: 'diagram', colours: grey }),
    ];
    const birds = [item(4, { likeness: '3333333333333333' }), item(5, { likeness: 'aaaaaaaaaaaaaaaa' })];
    const all = [...charts, ...birds];
    const suggested = (asked: ReturnType<typeof item>, among = all) =>
      suggestTags({
        related: alikeAsNear(asked, among, 8),
        tagsOf: (id) => (charts.some((chart) => chart.id === id) ? ['charts'] : ['birds']),
        named: [],
        own: new Set(),
        most: 3,
      }).map(({ tag }) => tag);
    const look = { likeness: '5555555500000000', colours: grey };
    expect(suggested(item(9, { ...look, kind: 'diagram' }))).toEqual(['charts']);
    expect(suggested(item(9, {}))).toEqual(['birds']);
    // Taken for a drawing until the reader says what it is; one alone that is like it says too little.
    expect(suggested(item(9, look))).toEqual([]);
    expect(suggested(item(9, look, 'diagram'))).toEqual(['charts']);
    expect(suggested(item(9, look, 'diagram'), charts.slice(1))).toEqual([]);
    expect(alikeTo(item(4, {}), all).map((each) => each.item.id)).toEqual([uuid(5)]);
  });

  it('are told of in words', () => {
    expect([kindInWords('line-drawing', { isGrey: true }), kindInWords('page-of-text', { isGrey: true })]).toEqual([
      'Line drawing, black and white',
      'Page of text',
    ]);
    expect(kindReasonWords({ of: 'text', amount: 0.21 })).toBe('words cover 21\u00a0% of it');
    expect(kindReasonWords({ of: 'thin', amount: 0.9 })).toBe('90\u00a0% of what is dark in it is thin lines');
  });
});

it('is light enough for the first visit: nothing in this part brings the package for colours along', () => {
  const own = ['alike.ts', 'found-words.ts', 'in-words.ts', 'words.ts']
    .map((file) => readFileSync(path.join(__dirname, file), 'utf8'))
    .join();
  expect(own).not.toMatch(/from '\.\.\/(?:colour|looking)'|culori/);
});
