import fc from 'fast-check';
import { say, wordAt } from '.';
import { CASES } from './say-cases.test-data';

const said = (text: string, language: string | null = 'en-GB') => say(text, language).text;

describe('what is written short is said in words', () => {
  for (const [language, cases] of Object.entries(CASES))
    it.each(cases)(`${language}: %s`, (written, expected) => {
      expect(said(written, language)).toBe(expected);
    });

  it('leaves a language without a table as it is written, but for addresses', () => {
    expect(said('5 km, Dr. 12.50 https://a.example/x', 'fi')).toBe('5 km, Dr. 12.50 a dot example');
  });

  it('is tried on at least sixty ways of writing in each language', () => {
    for (const language of ['en-GB', 'de', 'fr', 'es', 'it'])
      expect([language, (CASES[language] ?? []).length >= 60]).toEqual([language, true]);
  });

  it.each([
    ['The lead pipe will lead you there.', 'The led pipe will lead you there.'],
    ['Wind the clock; the wind is up.', 'Wined the clock; the wind is up.'],
    ['They live where live music is played live.', 'They liv where lyve music is played lyve.'],
    ['It is close to home; close the door.', 'It is kloass to home; close the door.'],
    ['A minute ago there were minute traces.', 'A minute ago there were my newt traces.'],
    ['The wound was bad; she wound the rope.', 'The woond was bad; she wownd the rope.'],
  ])('tells words that are written alike by what stands around them: %s', (written, expected) => {
    expect(said(written)).toBe(expected);
    // Only English is written so.
    expect(said(written, 'fr')).toBe(written);
  });

  it('takes no number out of a word, and no unit out of a sentence', () => {
    for (const text of ['the A4 sheet and the B12 road', 'a man-of-war', 'She is older than I.'])
      expect(said(text)).toBe(text);
  });

  it('says the reader’s own words as they want them, in all their cases', () => {
    const own = [
      { written: 'Skerrow', said: 'Skerra' },
      { written: 'gif', said: 'jif' },
    ];
    expect(say('Skerrow has a GIF; skerrow not, gifts neither.', 'en', own).text).toBe(
      'Skerra has a jif; skerrow not, gifts neither.',
    );
  });
});

describe('the way back from what is said', () => {
  const text = 'In 1987 Dr. Quill paid £12.50 there.';
  const back = (word: string) => {
    const result = say(text, 'en-GB');
    const range = wordAt(result, result.text.indexOf(word), text);
    return range && text.slice(range.start, range.end);
  };

  it.each([
    ['eighty', '1987'],
    ['Doctor', 'Dr.'],
    ['Quill', 'Quill'],
    ['fifty pence', '£12.50'],
    ['there', 'there.'],
  ])('%s stands at %s', (word, written) => {
    expect(back(word)).toBe(written);
  });

  it('leads from every place of what is said to a part of the text, and forwards only', () => {
    const words = fc.constantFrom(
      '12',
      '£3.50',
      'km',
      'Dr.',
      'the',
      '3rd',
      'May',
      '1987',
      'IV',
      'Chapter',
      '&',
      '[1]',
      'a@b.de',
      '—',
      'EU',
      '5 kg',
      '½',
      '14:30',
      '\t',
      '\n',
      '#',
      'CO₂',
      'x²',
      '3:1',
      'so*',
      '-',
      '+',
    );
    fc.assert(
      fc.property(
        fc.array(words, { maxLength: 20 }),
        fc.constantFrom('en', 'en-US', 'de', 'fr', 'es', 'it', 'ja'),
        (parts, language) => {
          const written = parts.join(' ');
          const result = say(written, language);
          let last = 0;
          for (let offset = 0; offset < result.text.length; offset++) {
            const range = wordAt(result, offset, written);
            if (!range) continue;
            expect(range.start).toBeGreaterThanOrEqual(last);
            expect(range.end).toBeGreaterThan(range.start);
            expect(range.end).toBeLessThanOrEqual(written.length);
            last = range.start;
          }
        },
      ),
    );
  });

  it('never throws, whatever is written, and says no digit in a language it knows', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), (written) => {
        expect(typeof said(written)).toBe('string');
      }),
    );
    fc.assert(
      fc.property(fc.nat({ max: 2_000_000 }), (value) => {
        expect(said(`It has ${value} of them.`)).not.toMatch(/\d/);
      }),
    );
  });
});
