import fc from 'fast-check';
import type { Element, ElementContent, Root } from 'hast';
import {
  blockAt,
  countWords,
  fractionAbove,
  fractionIn,
  hasWords,
  isRightToLeft,
  languageOf,
  leafText,
  plainText,
  readingMinutes,
  wordStarts,
} from '.';

const el = (tagName: string, ...children: (ElementContent | string)[]): Element => ({
  type: 'element',
  tagName,
  properties: {},
  children: children.map((child) => (typeof child === 'string' ? { type: 'text', value: child } : child)),
});
const root = (...children: Element[]): Root => ({ type: 'root', children });

describe('plainText', () => {
  it('puts a blank line between leaf blocks, a line feed for a break and a tab between cells', () => {
    const tree = root(
      el('h2', 'Tides'),
      el('p', 'High ', el('strong', 'at'), el('br'), 'noon'),
      el('ul', el('li', 'one'), el('li', el('p', 'two'), el('p', 'three'))),
      el(
        'table',
        el('tbody', el('tr', el('th', 'Day'), el('th', 'Range')), el('tr', el('td', 'Monday'), el('td', '4 m'))),
      ),
    );
    expect(plainText(tree).text).toBe('Tides\n\nHigh at\nnoon\n\none\n\ntwo\n\nthree\n\nDay\tRange\n\nMonday\t4 m');
  });

  it('gives blocks without text no room', () => {
    const { text, blocks } = plainText(root(el('figure', el('img')), el('hr'), el('p', 'a')));
    expect(text).toBe('a');
    expect(blocks).toHaveLength(1);
  });

  const word = fc.stringMatching(/^[a-z]{1,8}$/);
  const tree = fc
    .array(
      fc.array(word, { minLength: 1, maxLength: 6 }).map((words) => el('p', words.join(' '))),
      { minLength: 1, maxLength: 12 },
    )
    .map((blocks) => root(...blocks));

  it('has each block where its offsets say, and finds it by any of them', () => {
    fc.assert(
      fc.property(tree, (any) => {
        const plain = plainText(any);
        for (const block of plain.blocks) {
          expect(plain.text.slice(block.start, block.end)).toBe(leafText(block.element));
          for (const at of [block.start, block.end]) expect(blockAt(plain, at)?.index).toBe(block.index);
        }
      }),
    );
  });
});

describe('words', () => {
  test.each([
    ['It is three words – no, six.', 'en', 6],
    ["don't well-known 3.5 – —", 'en', 3],
    ['', 'en', 0],
    // Unicode Standard Annex 29 leaves Japanese to dictionaries; ICU splits this into 私, は, 本, を, 読む.
    ['私は本を読む', 'ja', 5],
    ['Ein Wort-Ungetüm und zwei', 'de', 4],
  ])('%p in %s has %d', (text, language, count) => {
    expect(countWords(text, language)).toBe(count);
  });

  it('does not mind a language that is none', () => {
    expect(countWords('漢字 and more', 'not a tag!')).toBeGreaterThan(2);
  });

  it('measures how much stands above a place', () => {
    const starts = wordStarts('one two three four', 'en');
    expect(fractionAbove(starts, 0)).toBe(0);
    expect(fractionAbove(starts, 4)).toBe(0.25);
    expect(fractionAbove(starts, 99)).toBe(1);
    expect(fractionAbove([], 5)).toBe(0);
  });
});

describe('readingMinutes', () => {
  const words = (n: number) => Array.from({ length: n }, () => 'word').join(' ');

  it('reads English at 238 words a minute (Brysbaert 2019)', () => {
    expect(readingMinutes(words(2380), 'en')).toBeCloseTo(10, 6);
    expect(readingMinutes(words(238), null)).toBeCloseTo(1, 6);
  });

  it('gives German the ratio that IReST found: 179 to 228 (Trauzettel-Klosinski and Dietz 2012)', () => {
    expect(readingMinutes(words(2380), 'de') / readingMinutes(words(2380), 'en')).toBeCloseTo(228 / 179, 6);
  });

  it('reads Japanese and Chinese by the character: 357 and 255 a minute (IReST)', () => {
    expect(readingMinutes('漢'.repeat(357), 'ja')).toBeCloseTo(1, 6);
    expect(readingMinutes('字'.repeat(255), 'zh-Hans')).toBeCloseTo(1, 6);
  });

  it('counts pictures', () => {
    expect(readingMinutes('', 'en', 12)).toBeCloseTo(1, 6);
  });
});

describe('languageOf', () => {
  const ENGLISH =
    'The boat that was built by the yard is for the people of this island, and it was not sold to them by the company which had it.';
  // Universal Declaration of Human Rights, article 1 (public domain), in five languages.
  const GERMAN =
    'Alle Menschen sind frei und gleich an Würde und Rechten geboren. Sie sind mit Vernunft und Gewissen begabt und sollen einander im Geiste der Brüderlichkeit begegnen. Jeder hat das Recht auf Leben, und das ist nicht zu nehmen von der Gewalt.';
  const JAPANESE =
    'すべての人間は、生れながらにして自由であり、かつ、尊厳と権利とについて平等である。人間は、理性と良心とを授けられており、互いに同胞の精神をもって行動しなければならない。';
  const RUSSIAN =
    'Все люди рождаются свободными и равными в своем достоинстве и правах. Они наделены разумом и совестью и должны поступать в отношении друг друга в духе братства.';

  test.each([
    ['agrees', ENGLISH, 'en-GB', 'en-GB'],
    ['is silent', GERMAN, null, 'de'],
    ['is plainly wrong', GERMAN, 'en', 'de'],
    ['is wrong by script', JAPANESE, 'en', 'ja'],
    ['is of the same script', RUSSIAN, 'uk', 'uk'],
    ['is no tag', ENGLISH, 'english language', 'en'],
    ['has an underscore', ENGLISH, 'en_US', 'en-US'],
    ['cannot be checked', 'Short.', 'pt', 'pt'],
  ])('when what the page declares %s', (_when, text, declared, language) => {
    expect(languageOf(text, declared)).toBe(language);
  });

  it('knows what is written from right to left', () => {
    expect([isRightToLeft('ar-EG'), isRightToLeft('he'), isRightToLeft('en'), isRightToLeft(null)]).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
});

describe('words in a text', () => {
  it.each([
    ['Où est le bac?', 'ou bac', true],
    ['Où est le bac?', 'BAC  où', true],
    ['Où est le bac?', 'bac boat', false],
    ['Straßen', 'stra', true],
    ['anything', '', true],
    ['', 'x', false],
  ])('“%s” has “%s”: %s', (text, sought, has) => {
    expect(hasWords(text, sought)).toBe(has);
  });
});

it('says which part of a text’s words stands in some parts of it', () => {
  const text = 'One two three four. Five six.';
  expect(fractionIn([{ start: 0, end: 19 }], wordStarts(text, 'en'))).toBeCloseTo(4 / 6);
  expect(fractionIn([], wordStarts('', 'en'))).toBe(0);
});
