import { sentences } from '.';
import { SENTENCE_BREAK_ROWS as rows } from './sentence-break-rows.test-data';

describe('Unicode’s own test of sentence boundaries (UAX #29, SentenceBreakTest 15.0.0)', () => {
  /** The sentences of a row; we leave the white space around them out, and what is nothing but that. */
  const expected = (row: string): string[] =>
    row
      .split('÷')
      .map((part) =>
        part
          .split('×')
          .map((code) => code.trim())
          .filter(Boolean)
          .map((code) => String.fromCodePoint(Number.parseInt(code, 16)))
          .join('')
          .trim(),
      )
      .filter((part) => part !== '');

  it('is met in every row', () => {
    expect(rows).toHaveLength(502);
    const wrong = rows.filter((row) => {
      const text = row
        .split(/[÷×]/)
        .map((code) => code.trim())
        .filter(Boolean)
        .map((code) => String.fromCodePoint(Number.parseInt(code, 16)))
        .join('');
      const found = sentences(text, 'x-none').map(({ start, end }) => text.slice(start, end));
      return JSON.stringify(found) !== JSON.stringify(expected(row));
    });
    expect(wrong).toEqual([]);
  });
});

/**
 * Hard cases that others publish, with how many sentences they count: the tests of `sbd` 1.0.19 (abbr.js,
 * multiple_sentences.js) and of neurosnap/sentences 1.0.6 (english/main_test.go), both MIT.
 */
const PUBLISHED: readonly (readonly [count: number, text: string])[] = [
  [
    2,
    'Lorem ipsum, dolor sed amat frequentor minimus In I.C.T we have multiple challenges! There should only be two sentences.',
  ],
  [1, 'From amat frequentor minimus hello there at 8 a.m. there p.m. should only be two sentences.'],
  [
    1,
    'The school, called Booker T and Stevie Ray’s Wrestling and Mixed Mart Arts Academy, will have an open house 2-6 p.m. Saturday.',
  ],
  [
    2,
    'Fig. 2. displays currency rates i.e. something libsum. Currencies widely available (i.e. euro, dollar, pound), or alternatively (e.g. €, $, etc.)',
  ],
  [
    1,
    'Claims 1–6 and 15–26 are rejected under pre-AIA 35 USC § 103(a) as being unpatentable over Chalana et al. (US 2012/0179503) in view of Oh (US 2013/0013993).',
  ],
  [
    2,
    'Et al. is an abbreviation of the Latin loanphrase et alii, meaning and others. It is similar to etc. (short for et cetera, meaning and the rest), but whereas etc. applies to things, et al. applies to people.',
  ],
  [2, 'First sentence... Another sentence'],
  [2, 'Sen. Barack Obama became the 44th President of the US. Millions attended.'],
  [
    2,
    'Baril, a Richmond lawyer once nominated for a federal prosecutors job, endorsed a faith-based drug initiative in local jails patterned after the Henrico County jails therapeutic program called Project R.I.S.E. Just as important, he had a great foil across the net.',
  ],
  [
    2,
    'Newsletter AIDs CARE, EDUCATION AND TRAINING Issue No. 7. Acet Home Care, which moves into the building in July, will share the offices with two other AIDS charities, P.A.L.S. (Portsmouth AIDS Link Support) and the Link Project.',
  ],
  [
    2,
    'Another is expanded hours of operation -- from fewer than five hours a day to 9:30 a.m. to 4 p.m. Monday through Saturday. Sunday remains closed.',
  ],
  [
    2,
    'Gold Wing Road Rider’s Association - Coffee break, Guzzardo’s Italian Villa, eat, 6 p.m.; ride, 7 p.m. Then at 9 p.m. go home.',
  ],
  [3, 'Hello this is my first sentence? There is also a second! A third'],
  [1, 'HELLO A.TOP IS NICE'],
  [2, 'Search on http://google.com\n\nThen send me an email: gg@gggg.kk'],
  [
    2,
    '“If there’s no balance and your boss doesn’t provide support and work that’s meaningful, your chances of burning out are great.” What bothers most people in situations like these is “the lack of boundaries,” says Nancy Rothbard, the David Pottruck Professor of Management at the University of Pennsylvania’s Wharton School.',
  ],
  [2, 'Here is a quote, ”a smart one.” Will this break properly?'],
  [2, 'One custom abbreviation is F.B.I.  The abbreviation, F.B.I. should properly break.'],
  [2, 'An abbreviation near the end of a G.D. sentence.  J.G. Wentworth was cool.'],
  [3, 'I am a Sgt. in the army.  I am a No. 1 student.  The Gov. of Michigan is here.'],
  [2, 'I am here; you are over there.  Will the tokenizer output two complete sentences?'],
];

it.each(PUBLISHED)('%d: %s', (count, text) => {
  const found = sentences(text, 'en').map(({ start, end }) => text.slice(start, end));
  expect({ count: found.length, found }).toMatchObject({ count });
});

it('goes on behind a letter word before a name, so the two that end with one run together', () => {
  // As published these are two each; "the U.S. Army" is far more often met than "the U.S. Millions…".
  for (const text of [
    'On Jan. 20, former Sen. Barack Obama became the 44th President of the U.S. Millions attended the Inauguration.',
    'Barack Obama, previously Sen. of lorem ipsum, became the 44th President of the U.S. Millions attended.',
  ])
    expect(sentences(text, 'en')).toHaveLength(1);
});
