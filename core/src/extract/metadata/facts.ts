import { type Fact, type FactSubject, type FactValue, MAX_FACTS } from '../../model';
import { isoDate, isoDurationSeconds } from '../../text';
import { isOfType, nameOf, type StatedThing, textValue, Thing } from './linked-data';

type Reader = (value: unknown, of: Thing) => FactValue | null;

const asText: Reader = (value) => {
  const text = textValue(value) ?? nameOf(value);
  return text && !/^https?:/.test(text) ? { type: 'text', text: text.slice(0, 400) } : null;
};
/** A member of one of schema.org's enumerations, `https://schema.org/InStock`, in words. */
const asMember: Reader = (value) => {
  const member = /([A-Za-z]+)\/?$/.exec(textValue(value) ?? '')?.[1];
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
  const number = numberIn(value);
  return number === null ? null : { type: 'number', number, outOf: null };
};
const asRating: Reader = (value, of) => {
  const number = numberIn(value);
  return number === null ? null : { type: 'number', number, outOf: numberIn(of.bestRating) ?? 5 };
};
const asMoney: Reader = (value, of) => {
  const amount = numberIn(value);
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

/** A number as people write it: `1,234.50`, `1.234,50`, `£18`. */
function numberIn(value: unknown): number | null {
  const written = /-?\d[\d.,  ']*/.exec(textValue(value) ?? '')?.[0]?.replace(/[  ']|[.,]$/g, '');
  if (!written) return null;
  const lastMark = Math.max(written.lastIndexOf('.'), written.lastIndexOf(','));
  const isDecimal = lastMark !== -1 && (written.length - lastMark - 1 !== 3 || /^0?[.,]|[.,]\d+[.,]/.test(written));
  const number = isDecimal
    ? Number(`${written.slice(0, lastMark).replace(/[.,]/g, '')}.${written.slice(lastMark + 1)}`)
    : Number(written.replace(/[.,]/g, ''));
  return Number.isFinite(number) ? number : null;
}

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
const PROPERTIES: Readonly<Record<FactSubject, Readonly<Record<string, Reader>>>> = {
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

const SUBJECTS: readonly [FactSubject, RegExp][] = [
  ['product', /(?:Product|ProductGroup|ProductModel|IndividualProduct|Vehicle|Car)$/],
  ['recipe', /Recipe$/],
  ['event', /(?:Event|Festival|CourseInstance)$/],
  ['book', /(?:Book|Audiobook)$/],
  ['video', /VideoObject$/],
];

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
