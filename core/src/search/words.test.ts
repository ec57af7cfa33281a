import fc from 'fast-check';
import { foldWord, MAX_WORDS, searchTerms, searchWords } from '.';

describe('the words of a text', () => {
  it.each([
    // English stems as Snowball publishes them; see core/terms.
    ['The ferry’s meadows, dredged', 'en', ['the', 'ferri', 's', 'meadow', 'dredg']],
    ['Fähren und Häuser', 'de', ['fahr', 'und', 'haus']],
    ['la société', 'fr', ['la', 'societ']],
    ['sociétés', 'fr', ['societ']],
    ['canción, canciones', 'es', ['cancion', 'cancion']],
    ['Søren Ærø straße', 'xx', ['soren', 'aero', 'strasse']],
    ['ferry-loaf 3.5 km', 'en', ['ferri', 'loaf', '3', '5', 'km']],
    // Vowel points and the letters that carry a hamza are written or left out at will.
    ['كِتَابٌ', 'ar', ['كتاب']],
    ['أحمد إلى', 'ar', ['احمد', 'الي']],
    ['ёлка й', 'xx', ['елка', 'й']],
    ['ＡＢＣ ﬁn', 'xx', ['abc', 'fin']],
  ])('of “%s” (%s) are %j', (text, language, terms) => {
    expect(searchTerms(text, language)).toEqual(terms);
  });

  it('are pairs of neighbours where no spaces part them, and the last character alone', () => {
    expect(searchTerms('潮の音', 'ja')).toEqual(['潮の', 'の音', '音']);
    expect(searchTerms('我们在2026年', 'zh')).toEqual(['我们', '们在', '在', '2026', '年']);
    expect(searchTerms('がっこう', 'ja')[0]).toBe('がっ');
  });

  it('stand where they are said to', () => {
    const text = 'Eelgrass, 潮の音 and straße.';
    expect(searchWords(text, 'en').map(({ start, end }) => text.slice(start, end))).toEqual([
      'Eelgrass',
      '潮の',
      'の音',
      '音',
      'and',
      'straße',
    ]);
  });

  it('are the first of a text that has too many', () => {
    expect(searchWords('tide '.repeat(MAX_WORDS + 5), 'en')).toHaveLength(MAX_WORDS);
  });

  it('are in order, inside the text, and hold letters and digits only, whatever the text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.constantFrom('en', 'de', 'ja', 'ar', null), (text, language) => {
        let last = -1;
        for (const { term, start, end } of searchWords(text, language)) {
          expect(term).toMatch(/^[\p{L}\p{M}\p{N}]+$/u);
          expect(start).toBeGreaterThan(last);
          expect(end).toBeGreaterThan(start);
          expect(end).toBeLessThanOrEqual(text.length);
          last = start;
        }
      }),
    );
  });

  it('are the same whether letters and marks are written as one or apart', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(foldWord(text.normalize('NFD'))).toBe(foldWord(text.normalize('NFC')));
      }),
    );
  });
});
