import { isoDate, isoDurationSeconds } from '../../text';
import { extractArticle } from '..';

const PROSE =
  '<p>A paragraph of honest prose stands here, long enough to be taken for the text, with commas, and a full stop.</p>';
const factsOf = (head: string, body = '') =>
  extractArticle(
    `<html><head>${head}</head><body>${body}<article>${PROSE.repeat(3)}</article></body></html>`,
    'https://shop.example/a',
  ).facts;
const jsonLd = (thing: unknown) => `<script type="application/ld+json">${JSON.stringify(thing)}</script>`;
const keyed = (head: string, body?: string) =>
  Object.fromEntries(factsOf(head, body).map(({ key, value }) => [key, value]));

/** The examples of schema.org/Product, /Recipe, /Event, /Book and /VideoObject, shortened, from memory. */
const PRODUCT = {
  '@context': 'https://schema.org',
  '@type': 'Product',
  name: 'White 17" Microwave',
  aggregateRating: { '@type': 'AggregateRating', ratingValue: '3.5', reviewCount: '11' },
  offers: {
    '@type': 'Offer',
    availability: 'https://schema.org/InStock',
    price: '55.00',
    priceCurrency: 'USD',
  },
};

it('reads a product: price with currency, availability, rating and number of reviews', () => {
  expect(factsOf(jsonLd(PRODUCT))).toEqual([
    {
      about: 'product',
      of: 'White 17" Microwave',
      key: 'offers.price',
      value: { type: 'money', amount: 55, currency: 'USD' },
      source: 'json-ld',
    },
    expect.objectContaining({ key: 'offers.availability', value: { type: 'text', text: 'in stock' } }),
    expect.objectContaining({
      key: 'aggregateRating.ratingValue',
      value: { type: 'number', number: 3.5, outOf: 5 },
    }),
    expect.objectContaining({
      key: 'aggregateRating.reviewCount',
      value: { type: 'number', number: 11, outOf: null },
    }),
  ]);
});

it('reads the same product from microdata and from RDFa, and does not say it twice', () => {
  const microdata = `<div itemscope itemtype="https://schema.org/Product"><span itemprop="name">White 17" Microwave</span>
    <div itemprop="aggregateRating" itemscope itemtype="https://schema.org/AggregateRating">Rated <span itemprop="ratingValue">3.5</span>/5 by <span itemprop="reviewCount">11</span></div>
    <div itemprop="offers" itemscope itemtype="https://schema.org/Offer"><span itemprop="priceCurrency" content="USD">$</span><span itemprop="price" content="55.00">55</span><link itemprop="availability" href="https://schema.org/InStock">In stock</div></div>`;
  const rdfa = `<div vocab="https://schema.org/" typeof="Product"><span property="name">White 17" Microwave</span>
    <div property="aggregateRating" typeof="AggregateRating"><span property="ratingValue">3.5</span> by <span property="reviewCount">11</span></div>
    <div property="offers" typeof="Offer"><span property="priceCurrency" content="USD">$</span><span property="price" content="55.00">55</span><link property="availability" href="https://schema.org/InStock"></div></div>`;
  const stated = keyed(jsonLd(PRODUCT));
  expect(keyed('', microdata)).toEqual(stated);
  expect(keyed('', rdfa)).toEqual(stated);
  expect(new Set(factsOf('', rdfa).map(({ source }) => source))).toEqual(new Set(['rdfa']));
  expect(factsOf(jsonLd(PRODUCT), microdata)).toHaveLength(4);
});

it.each([
  [
    'a recipe',
    {
      '@type': 'Recipe',
      name: 'Banana Bread',
      cookTime: 'PT1H',
      prepTime: 'PT15M',
      recipeYield: '1 loaf',
      recipeIngredient: ['3 or 4 ripe bananas, smashed', '1 egg', '3/4 cup of sugar'],
      nutrition: { '@type': 'NutritionInformation', calories: '240 calories' },
    },
    {
      prepTime: { type: 'duration', seconds: 900 },
      cookTime: { type: 'duration', seconds: 3600 },
      recipeYield: { type: 'text', text: '1 loaf' },
      recipeIngredient: { type: 'text', text: '3 or 4 ripe bananas, smashed; 1 egg; 3/4 cup of sugar' },
      'nutrition.calories': { type: 'text', text: '240 calories' },
    },
  ],
  [
    'an event',
    {
      '@type': 'TheaterEvent',
      name: 'An evening',
      startDate: '2026-01-15T20:00-05:00',
      location: { '@type': 'Place', name: 'Municipal Hall' },
      eventStatus: 'https://schema.org/EventRescheduled',
      offers: { '@type': 'AggregateOffer', lowPrice: '35', highPrice: '1,234.50', priceCurrency: 'EUR' },
    },
    {
      startDate: { type: 'date', date: '2026-01-15T20:00-05:00' },
      location: { type: 'text', text: 'Municipal Hall' },
      eventStatus: { type: 'text', text: 'rescheduled' },
      'offers.lowPrice': { type: 'money', amount: 35, currency: 'EUR' },
      'offers.highPrice': { type: 'money', amount: 1234.5, currency: 'EUR' },
    },
  ],
  [
    'a book',
    {
      '@type': 'Book',
      name: 'Tides',
      author: [{ '@type': 'Person', name: 'Ada Quill' }, { name: 'Bo Reed' }],
      isbn: '00000000',
      numberOfPages: 224,
      bookFormat: 'https://schema.org/Paperback',
    },
    {
      author: { type: 'text', text: 'Ada Quill; Bo Reed' },
      isbn: { type: 'text', text: '00000000' },
      numberOfPages: { type: 'number', number: 224, outOf: null },
      bookFormat: { type: 'text', text: 'paperback' },
    },
  ],
  [
    'a video in a graph',
    {
      '@graph': [
        { '@type': 'WebSite', name: 'S' },
        { '@type': 'VideoObject', name: 'Title', duration: 'PT1M33S', uploadDate: '2026-03-31' },
      ],
    },
    { duration: { type: 'duration', seconds: 93 }, uploadDate: { type: 'date', date: '2026-03-31' } },
  ],
])('reads %s', (_what, thing, facts) => expect(keyed(jsonLd(thing))).toEqual(facts));

it('says nothing of things that are no facts, and stands broken data', () => {
  expect(factsOf(jsonLd({ '@type': 'Organization', name: 'X', offers: { price: 1 } }))).toEqual([]);
  expect(factsOf('<script type="application/ld+json">{"@type": "Product", </script>')).toEqual([]);
  expect(
    factsOf(jsonLd({ '@type': 'Product', name: 'X', offers: { price: 'ask us' }, brand: { '@type': 'Brand' } })),
  ).toEqual([]);
});

// ISO 8601-1:2019, 5.5.2: durations with designators.
it.each([
  ['PT1H20M', 4800],
  ['P1DT12H', 129_600],
  ['P2W', 1_209_600],
  ['PT0.5S', 0.5],
  ['PT36H', 129_600],
  ['P3Y6M4DT12H30M5S', null],
  ['P', null],
  ['PT', null],
  ['1 hour', null],
])('the duration %s is %s seconds', (written, seconds) => expect(isoDurationSeconds(written)).toBe(seconds));

it.each([
  ['2026-01-15T20:00-05:00', '2026-01-15T20:00-05:00'],
  ['20260115', '2026-01-15'],
  ['2026/1/5', '2026-01-05'],
  ['Tue, 03 Nov 2026 09:45:00 +0100', '2026-11-03T08:45:00.000Z'],
  ['yesterday', null],
  ['2026-13-45', null],
])('the date %s is %s', (written, date) => expect(isoDate(written)).toBe(date));

describe('what stands in the head alone', () => {
  const META =
    '<meta property="product:price:amount" content="480.00"><meta property="product:price:currency" content="EUR">' +
    '<meta property="product:availability" content="In Stock"><meta property="product:brand" content="Brack">';

  it('is read as shops have it beside Open Graph', () => {
    expect(keyed(META)).toEqual({
      'offers.price': { type: 'money', amount: 480, currency: 'EUR' },
      'offers.availability': { type: 'text', text: 'in stock' },
      brand: { type: 'text', text: 'Brack' },
    });
    expect(factsOf(META).map(({ source }) => source)).toEqual(['meta', 'meta', 'meta']);
  });

  it('says nothing of what the data of the page say already', () => {
    const facts = factsOf(META + jsonLd(PRODUCT));
    expect(facts.filter(({ key }) => key === 'offers.price').map(({ source }) => source)).toEqual(['json-ld']);
  });
});

describe('what stands in the words as labels with values', () => {
  const inText = (markup: string) =>
    extractArticle(
      `<html><body><article>${PROSE.repeat(3)}${markup}${PROSE}</article></body></html>`,
      'https://x.example/a',
    ).facts;

  it.each([
    [
      'a table of two columns',
      '<table><tr><th>Weight</th><td>38 kg</td></tr><tr><th>Price</th><td>€ 1.240,50</td></tr><tr><th>Poles:</th><td>12</td></tr></table>',
    ],
    [
      'a list of definitions',
      '<dl><dt>Weight</dt><dd>38 kg</dd><dt>Price</dt><dd>1 240,50 EUR</dd><dt>Poles</dt><dd>12</dd></dl>',
    ],
    ['a list with colons', '<ul><li>Weight: 38 kg</li><li>Price: € 1,240.50</li><li>Poles: 12</li></ul>'],
  ])('is read from %s, and says that it is', (_, markup) => {
    expect(inText(markup)).toEqual([
      { about: 'page', of: null, key: 'said.weight', value: { type: 'text', text: '38 kg' }, source: 'text' },
      {
        about: 'page',
        of: null,
        key: 'said.price',
        value: { type: 'money', amount: 1240.5, currency: 'EUR' },
        source: 'text',
      },
      {
        about: 'page',
        of: null,
        key: 'said.poles',
        value: { type: 'number', number: 12, outOf: null },
        source: 'text',
      },
    ]);
  });

  it.each([
    ['one remark in the prose', '<p>Note: the ferry is late.</p>'],
    ['a list of which one line is none', '<ul><li>Weight: 38 kg</li><li>Poles: 12</li><li>It hums</li></ul>'],
    [
      'a table of three columns',
      '<table><tr><td>a</td><td>b</td><td>c</td></tr><tr><td>1</td><td>2</td><td>3</td></tr><tr><td>1</td><td>2</td><td>3</td></tr></table>',
    ],
    [
      'a table of what was measured',
      '<table><tr><th>Left</th><th>Sound</th></tr><tr><td>Loft</td><td>12</td></tr><tr><td>Hearth</td><td>14</td></tr></table>',
    ],
    ['a list that counts', '<ul><li>4 g: heavier</li><li>8 g: heavier</li><li>12 g: heavier</li></ul>'],
    [
      'terms that are explained',
      '<dl><dt>Ebb</dt><dd>The tide as it runs out.</dd><dt>Flood</dt><dd>The tide as it comes in.</dd><dt>Slack</dt><dd>The time between the two of them.</dd></dl>',
    ],
    ['two pairs', '<dl><dt>Weight</dt><dd>38 kg</dd><dt>Poles</dt><dd>12</dd></dl>'],
  ])('is not made up of %s', (_, markup) => {
    expect(inText(markup)).toEqual([]);
  });
});
