import { type Fact, type FactSubject, type FactValue, MAX_FACTS } from '../../model';
import { isoDate, isoDurationSeconds } from '../../text';
import { isOfType, nameOf, type StatedThing, textValue, Thing } from './linked-data';
import { numberIn } from './numbers';

type Reader = (value: unknown, of: Thing) => FactValue | null;

const asText: Reader = (value) => {
  const text = textValue(value) ?? nameOf(value);
  return text && !/^https?:/.test(text) ? { type: 'text', text: text.slice(0, 400) } : null;
};
/** A member of one of schema.org's enumerations, `https://schema.org/InStock`, in words. */
const asMember: Reader = (value) => {
  const member = /([A-Za-z]+)\/?$/.exec(textValue(value)?.slice(-400) ?? '')?.[1];
  const words = member?.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
  return words ? { type: 'text', text: words.replace(/^event /, '') } : null;
};
const asList: Reader = (value) => {
  const parts = [value]
    .flat()
    .map((each) => textValue(each) ?? nameOf(each))
    .filter((each) => each !== null);
  return parts.length > 0 ? { type: 'text', text: parts.join('; ').slice(0, 400) } : null;
};
const asNumber: Reader = (value) => {
  const number = numberIn(textValue(value) ?? '');
  return number === null ? null : { type: 'number', number, outOf: null };
};
const asRating: Reader = (value, of) => {
  const number = numberIn(textValue(value) ?? '');
  return number === null ? null : { type: 'number', number, outOf: numberIn(textValue(of.bestRating) ?? '') ?? 5 };
};
const asMoney: Reader = (value, of) => {
  const amount = numberIn(textValue(value) ?? '');
  const currency = textValue(of.priceCurrency) ?? /\b[A-Z]{3}\b/.exec(textValue(value) ?? '')?.[0] ?? null;
  return amount === null ? null : { type: 'money', amount, currency: currency?.slice(0, 10) ?? null };
};
const asDate: Reader = (value) => {
  const date = isoDate(textValue(value));
  return date ? { type: 'date', date } : null;
};
const asDuration: Reader = (value) => {
  const seconds = isoDurationSeconds(textValue(value));
  return seconds === null ? null : { type: 'duration', seconds };
};

const OFFER: Readonly<Record<string, Reader>> = {
  'offers.price': asMoney,
  'offers.lowPrice': asMoney,
  'offers.highPrice': asMoney,
  'offers.availability': asMember,
  'offers.priceValidUntil': asDate,
};
const RATED: Readonly<Record<string, Reader>> = {
  'aggregateRating.ratingValue': asRating,
  'aggregateRating.ratingCount': asNumber,
  'aggregateRating.reviewCount': asNumber,
};

/** The properties that are read, by the kind of thing. schema.org 29, the properties named there. */
const PROPERTIES: Readonly<Record<Exclude<FactSubject, 'page'>, Readonly<Record<string, Reader>>>> = {
  product: {
    ...OFFER,
    ...RATED,
    brand: asText,
    sku: asText,
    gtin13: asText,
    color: asText,
    material: asText,
  },
  recipe: {
    prepTime: asDuration,
    cookTime: asDuration,
    totalTime: asDuration,
    recipeYield: asList,
    recipeIngredient: asList,
    'nutrition.calories': asText,
    ...RATED,
  },
  event: {
    startDate: asDate,
    endDate: asDate,
    doorTime: asDate,
    location: asText,
    'location.address': asText,
    eventStatus: asMember,
    organizer: asText,
    performer: asList,
    ...OFFER,
  },
  book: {
    author: asList,
    isbn: asText,
    numberOfPages: asNumber,
    datePublished: asDate,
    publisher: asText,
    bookFormat: asMember,
    ...OFFER,
    ...RATED,
  },
  video: { duration: asDuration, uploadDate: asDate, 'interactionStatistic.userInteractionCount': asNumber },
};

const SUBJECTS: readonly [Exclude<FactSubject, 'page'>, RegExp][] = [
  ['product', /(?:Product|ProductGroup|ProductModel|IndividualProduct|Vehicle|Car)$/],
  ['recipe', /Recipe$/],
  ['event', /(?:Event|Festival|CourseInstance)$/],
  ['book', /(?:Book|Audiobook)$/],
  ['video', /VideoObject$/],
];

/** What pages say in their head of a product, as shops have it beside Open Graph, by schema.org's properties. */
const META_PROPERTIES: readonly [
  key: string,
  names: string[],
  value: (stated: string, currency: string | null) => FactValue | null,
][] = [
  [
    'offers.price',
    ['product:price:amount', 'og:price:amount', 'product:sale_price:amount'],
    (stated, currency) => {
      const amount = numberIn(stated);
      return amount === null ? null : { type: 'money', amount, currency: currency?.slice(0, 10) ?? null };
    },
  ],
  [
    'offers.availability',
    ['product:availability', 'og:availability'],
    (stated) => ({ type: 'text', text: stated.toLowerCase() }),
  ],
  ['brand', ['product:brand', 'og:brand'], (stated) => ({ type: 'text', text: stated })],
  ['isbn', ['book:isbn', 'books:isbn'], (stated) => ({ type: 'text', text: stated })],
  [
    'duration',
    ['video:duration', 'og:video:duration'],
    (stated) => (/^\d+$/.test(stated) ? { type: 'duration', seconds: Number(stated) } : null),
  ],
];

/** The same of what stands in the head of the page alone. @param meta reads the first of some names that is there */
export function readMetaFacts(meta: (...names: string[]) => string | null, stated: readonly Fact[]): Fact[] {
  const currency = meta('product:price:currency', 'og:price:currency', 'product:sale_price:currency');
  return META_PROPERTIES.flatMap(([key, names, read]) => {
    const written = stated.some((fact) => fact.key === key) ? null : meta(...names)?.slice(0, 400);
    const value = written ? read(written, currency) : null;
    return value ? [{ about: 'page' as const, of: null, key, value, source: 'meta' as const }] : [];
  });
}

/** What the page states in schema.org's terms of products, recipes, events, books and videos. */
export function readFacts(things: readonly StatedThing[]): Fact[] {
  const facts: Fact[] = [];
  const known = new Set<string>();
  for (const { thing, source } of things) {
    const about = SUBJECTS.find(([, types]) => isOfType(thing, types))?.[0];
    if (!about) continue;
    const of = textValue(thing.name)?.slice(0, 300) ?? null;
    for (const [key, read] of Object.entries(PROPERTIES[about])) {
      const [property = '', part] = key.split('.');
      const values: [unknown, Thing][] = part
        ? thingsIn(thing[property]).map((each) => [each[part], each])
        : [[thing[property], thing]];
      for (const [stated, owner] of values) {
        const value = stated === undefined ? null : read(stated, owner);
        const mark = `${about} ${of ?? ''} ${key}`;
        // What JSON-LD said of a thing, microdata only repeats.
        if (!value || known.has(mark) || facts.length >= MAX_FACTS) continue;
        known.add(mark);
        facts.push({ about, of, key, value, source });
      }
    }
  }
  return facts;
}

function thingsIn(value: unknown): Thing[] {
  return [value]
    .flat()
    .map((each) => Thing.safeParse(each))
    .flatMap((each) => (each.success ? [each.data] : []));
}
