import fc from 'fast-check';
import { say, wordAt } from '.';

const said = (text: string, language: string | null = 'en-GB') => say(text, language).text;

/** How practised readers say it; common practice in each language. */
const CASES: Readonly<Record<string, readonly (readonly [written: string, said: string])[]>> = {
  'en-GB': [
    // Numbers
    ['It took 1,250 nails.', 'It took one thousand two hundred and fifty nails.'],
    ['About 3.14 or 0.05.', 'About three point one four or zero point zero five.'],
    ['At −5 °C it froze.', 'At minus five degrees Celsius it froze.'],
    ['Room 007', 'Room zero zero seven'],
    ['Call +44 20 7946 0018.', 'Call plus four four, two zero, seven nine four six, zero zero one eight.'],
    ['Version 2.10.3 is out.', 'Version two dot ten dot three is out.'],
    ['Between 12–14 boats.', 'Between twelve to fourteen boats.'],
    ['It is 1½ miles.', 'It is one and a half miles.'],
    ['Use 3/4 of it.', 'Use three quarters of it.'],
    // Money
    ['£12.50 each', 'twelve pounds and fifty pence each'],
    ['It cost $3.5 million.', 'It cost three point five million dollars.'],
    ['Only €1 now', 'Only one euro now'],
    ['£0.75', 'seventy-five pence'],
    ['for $3m now', 'for three million dollars now'],
    ['20 EUR', 'twenty euros'],
    // Units
    ['5 km away', 'five kilometres away'],
    ['1 kg of rye', 'one kilogram of rye'],
    ['12 km/h', 'twelve kilometres per hour'],
    ['5–10 m deep', 'five to ten metres deep'],
    ['40% of them', 'forty per cent of them'],
    ['3 m² of deck', 'three square metres of deck'],
    // Dates and times
    ['On 25 November 2026 it', 'On the twenty-fifth of November twenty twenty-six it'],
    ['on the 3rd of May', 'on the third of May'],
    ['2026-11-25', 'the twenty-fifth of November twenty twenty-six'],
    ['on 05/11/2026', 'on the fifth of November twenty twenty-six'],
    ['at 14:30 sharp', 'at fourteen thirty sharp'],
    ['at 9:05 a.m. today', 'at nine oh five A M today'],
    ['at 9:00', 'at nine o’clock'],
    // Years
    ['in 1987', 'in nineteen eighty-seven'],
    ['in 1905 and 2004', 'in nineteen oh five and two thousand and four'],
    ['in 1900', 'in nineteen hundred'],
    ['1914–1918', 'nineteen fourteen to nineteen eighteen'],
    ['the 1980s', 'the nineteen eighties'],
    // Ordinals and Roman numerals
    ['the 21st time', 'the twenty-first time'],
    ['Chapter IV', 'Chapter four'],
    ['World War II ended', 'World War two ended'],
    ['Henry VIII had', 'Henry the eighth had'],
    ['Charles I was', 'Charles the first was'],
    ['the XIX century', 'the nineteenth century'],
    ['I am MIX', 'I am M I X'],
    // Abbreviations
    ['Dr. Quill saw Mrs. Holm.', 'Doctor Quill saw Missis Holm.'],
    ['St. Orran lives in Quay St. now', 'Saint Orran lives in Quay Street now'],
    ['e.g. rye, i.e. grain', 'for example rye, that is grain'],
    ['Nails, rivets, etc.', 'Nails, rivets, et cetera.'],
    ['No. 5 and pp. 12–14', 'number five and pages twelve to fourteen'],
    ['No. It is not.', 'No. It is not.'],
    ['See Fig. 3', 'See figure three'],
    // Addresses
    ['Write to ines.holm@skerrow.example now', 'Write to ines dot holm at skerrow dot example now'],
    ['See https://www.skerrow.example/boats/a.html?x=1.', 'See skerrow dot example.'],
    ['at skerrow.co.uk today', 'at skerrow dot co dot uk today'],
    // Letter words
    ['The BBC and the EU said', 'The B B C and the E U said'],
    ['NATO met', 'NATO met'],
    ['in the U.S. today', 'in the U S today'],
    ['two PDFs', 'two P D Fs'],
    ['THE TIDES OF SKERROW', 'the tides of skerrow'],
    // Signs
    ['Bread & butter', 'Bread and butter'],
    ['3 × 4 = 12', 'three times four equals twelve'],
    ['§ 5', 'section five'],
    ['#1 of all', 'number one of all'],
    ['as shown [12] before', 'as shown before'],
  ],
  'en-US': [
    ['On November 25, 2026 it', 'On November twenty-fifth, twenty twenty-six it'],
    ['on 11/05/2026', 'on November fifth, twenty twenty-six'],
    ['1,250 nails', 'one thousand two hundred fifty nails'],
  ],
  de: [
    ['1.250 Nägel', 'tausendzweihundertfünfzig Nägel'],
    ['3,14', 'drei Komma eins vier'],
    ['12,50 €', 'zwölf Euro und fünfzig Cent'],
    ['1 € kostet es', 'ein Euro kostet es'],
    ['3,5 Mio. Euro', 'drei Komma fünf Millionen Euro'],
    ['5 km weit', 'fünf Kilometer weit'],
    ['1 h lang', 'eine Stunde lang'],
    ['am 3. Mai 1987', 'am dritten Mai neunzehnhundertsiebenundachtzig'],
    ['3. Mai', 'dritte Mai'],
    ['im 19. Jahrhundert', 'im neunzehnten Jahrhundert'],
    ['um 14:30 Uhr', 'um vierzehn Uhr dreißig'],
    ['z. B. Roggen', 'zum Beispiel Roggen'],
    ['Dr. Weiß, Nr. 5', 'Doktor Weiß, Nummer fünf'],
    ['Ludwig XIV. kam', 'Ludwig der vierzehnte kam'],
    ['info@skerrow.example', 'info ät skerrow Punkt example'],
    ['40 % davon', 'vierzig Prozent davon'],
  ],
  fr: [
    ['1 250 clous', 'mille deux cent cinquante clous'],
    ['3,14', 'trois virgule quatorze'],
    ['12,50 €', 'douze euros et cinquante centimes'],
    ['le 1er mai 1987', 'le premier mai mille neuf cent quatre-vingt-sept'],
    ['le 14 juillet', 'le quatorze juillet'],
    ['à 14h30', 'à quatorze heures trente'],
    ['la 2e fois', 'la deuxième fois'],
    ['le XIXe siècle', 'le dix-neuvième siècle'],
    ['Louis XIV', 'Louis quatorze'],
    ['M. Dupont et Mme Roche', 'Monsieur Dupont et Madame Roche'],
    ['5 km', 'cinq kilomètres'],
    ['n° 5', 'numéro cinq'],
  ],
  es: [
    ['1.250 clavos', 'mil doscientos cincuenta clavos'],
    ['3,14', 'tres coma catorce'],
    ['21 € más', 'veintiún euros más'],
    ['1 h', 'una hora'],
    ['el 2 de mayo de 1808', 'el dos de mayo de mil ochocientos ocho'],
    ['a las 14:30', 'a las catorce y treinta'],
    ['la 3.ª vez', 'la tercera vez'],
    ['el siglo XIX', 'el siglo diecinueve'],
    ['Felipe II', 'Felipe segundo'],
    ['Alfonso XIII', 'Alfonso trece'],
    ['El Sr. Gómez', 'El Señor Gómez'],
    ['los EE. UU.', 'los Estados Unidos.'],
    ['5 km', 'cinco kilómetros'],
  ],
};

describe('what is written short is said in words', () => {
  for (const [language, cases] of Object.entries(CASES))
    it.each(cases)(`${language}: %s`, (written, expected) => {
      expect(said(written, language)).toBe(expected);
    });

  it('leaves a language without a table as it is written, but for addresses', () => {
    expect(said('5 km, Dr. 12.50 https://a.example/x', 'fi')).toBe('5 km, Dr. 12.50 a dot example');
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
      '-',
      '+',
    );
    fc.assert(
      fc.property(
        fc.array(words, { maxLength: 20 }),
        fc.constantFrom('en', 'en-US', 'de', 'fr', 'es', 'ja'),
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
