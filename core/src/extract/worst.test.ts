import { extractArticle } from '.';

/** So many of a character that whoever goes over them for each of them does not come to an end. */
const MANY = 50_000;
const RUNS: readonly [name: string, run: string][] = [
  ['white space', ' '.repeat(MANY)],
  ['line ends', '\n'.repeat(MANY)],
  ['commas', ','.repeat(MANY)],
  ['bars', '|'.repeat(MANY)],
  ['words', 'senior '.repeat(MANY / 7)],
  ['letters', 'a'.repeat(MANY)],
  ['capitals', 'A'.repeat(MANY)],
  ['digits', '1'.repeat(MANY)],
  ['brackets', '['.repeat(MANY)],
  ['quotation marks', '’'.repeat(MANY)],
  ['at signs', '@'.repeat(MANY)],
  ['hyphens', '-'.repeat(MANY)],
];
const WORDS = 'The tide went out over the flats and came in again. '.repeat(20);

/** Places of a page that an expression looks at; each is given the run with something behind it that does not fit. */
const PLACES: readonly [name: string, page: (run: string) => string][] = [
  ['the title', (run) => `<title>Tides${run}!</title><article><h1>Tides</h1><p>${WORDS}</p></article>`],
  ['the headline', (run) => `<article><h1>Tides ${run}!</h1><p>${WORDS}</p></article>`],
  ['the byline', (run) => `<article><h1>Tides</h1><p class="byline">By ${run}!</p><p>${WORDS}</p></article>`],
  ['who wrote it', (run) => `<meta name="author" content="Ada${run}!"><article><p>${WORDS}</p></article>`],
  [
    'linked data',
    (run) => `<script type="application/ld+json">{"a":1}${run}!</script><article><p>${WORDS}</p></article>`,
  ],
  [
    'a stated value',
    (run) =>
      `<script type="application/ld+json">${JSON.stringify({ '@type': 'Product', name: `x${run}!`, offers: { availability: `${run}!` } })}</script><article><p>${WORDS}</p></article>`,
  ],
  ['a paragraph', (run) => `<article><p>${WORDS}</p><p>x${run}!</p></article>`],
  ['code', (run) => `<article><p>${WORDS}</p><pre><code>x${run}!</code></pre></article>`],
  [
    'a list of labels',
    (run) =>
      `<article><p>${WORDS}</p><ul><li>Length: 3${run}!</li><li>Beam${run}: 2</li><li>Draught: 1</li></ul></article>`,
  ],
  ['a set of pictures', (run) => `<article><p>${WORDS}</p><img alt="" srcset="a.png${run}! 1x"></article>`],
  ['a link to what is next', (run) => `<article><p>${WORDS}</p></article><a href="/2">next${run}!</a>`],
  ['a date', (run) => `<article><h1>Tides</h1><p class="date">Published 3 March ${run}!</p><p>${WORDS}</p></article>`],
];

describe.each(PLACES)('%s', (_place, page) => {
  // Each has the time that any test has: an expression that tries every way to part a run would need hours.
  it.each(RUNS)('ends with many %s', (_name, run) => {
    expect(extractArticle(page(run), 'https://x.example/tides', 'words-and-pictures').wordCount).toBeGreaterThan(100);
  });
});
