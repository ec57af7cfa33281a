import fc from 'fast-check';
import { sentences } from '.';

const split = (text: string, language = 'en') =>
  sentences(text, language).map(({ start, end }) => text.slice(start, end));

/** Common practice in each language; the first rows are UAX #29's own business and must stay so. */
const CASES: [language: string, ...parts: string[]][] = [
  ['en', 'It rained.', 'The boat stayed in.'],
  ['en', '“Is it safe?” she asked.', 'Nobody knew!'],
  ['en', 'Dr. Quill weighed 3.5 kg of rye.', 'Then Mrs. Holm came.'],
  ['en', 'See Fig. 3 and pp. 12–14, e.g. the North basin.', 'It is clear.'],
  ['en', 'J. R. Maddern built it.', 'So did A. Holm.'],
  ['en', 'She is older than I.', 'He is not.'],
  ['en', 'It lies off Mt. Skerrow, i.e. St. Orran’s parish.', 'Nobody lives there.'],
  ['en', 'Capt. Orme sailed on Nov. 3.', 'The wind was Northerly.'],
  ['en', 'Nails, rivets, etc.', 'They all rust.'],
  ['de', 'Am 3. Mai kam Dr. Weiß.', 'Er blieb bis zum 19. Jahrhundert.'],
  ['de', 'Das gilt z. B. Für alle.', 'Auch für Nr. 5.'],
  ['de', 'Er wurde 3. Sie wurde 4.'],
  ['fr', 'M. Dupont et Mme. Roche sont venus.', 'Ils parlaient, cf. Annexe.'],
  ['es', 'El Sr. Gómez vive aquí.', 'La Dra. Ruiz, p. ej. Clara, también.'],
  ['ja', '潮が満ちる。', '舟は出ない。'],
];

describe('sentences', () => {
  it.each(CASES)('%s: %s', (language, ...parts) => {
    // The German ordinal behind which no month stands is ambiguous: Unicode's rules decide.
    if (parts[0]?.startsWith('Er wurde')) expect(split(parts[0], language)).toHaveLength(2);
    else expect(split(parts.join(' '), language)).toEqual(parts);
  });

  it('end where a line is broken, even behind an abbreviation', () => {
    expect(split('Dear Dr.\nHolm')).toEqual(['Dear Dr.', 'Holm']);
  });

  it('lose nothing of any text but white space, and never overlap', () => {
    const text = fc.array(fc.constantFrom('Dr.', 'A.', 'word', 'End.', '?', '\n', ' ', '潮。', '3.', 'Mai'), {
      maxLength: 40,
    });
    fc.assert(
      fc.property(text, fc.constantFrom('en', 'de', 'x-none', 'not a tag', 'ja'), (parts, language) => {
        const whole = parts.join(' ');
        const found = sentences(whole, language);
        expect(
          found
            .map(({ start, end }) => whole.slice(start, end))
            .join('')
            .replace(/\s+/g, ''),
        ).toBe(whole.replace(/\s+/g, ''));
        found.forEach(({ start, end }, at) => {
          expect(start).toBeLessThan(end);
          expect(start).toBeGreaterThanOrEqual(found[at - 1]?.end ?? 0);
        });
      }),
    );
  });
});
