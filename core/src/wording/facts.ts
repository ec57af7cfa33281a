import { format } from 'date-fns/format';
import type { FactValue } from '../model';

/** schema.org's properties in words, and what is known of any page; in the order in which they are shown. */
const FACT_NAMES: Readonly<Record<string, string>> = {
  'offers.price': 'Price',
  'offers.lowPrice': 'Price from',
  'offers.highPrice': 'Price up to',
  'offers.availability': 'Availability',
  'offers.priceValidUntil': 'Price holds until',
  'aggregateRating.ratingValue': 'Rating',
  'aggregateRating.ratingCount': 'Ratings',
  'aggregateRating.reviewCount': 'Reviews',
  brand: 'Brand',
  sku: 'Article number',
  gtin13: 'GTIN',
  color: 'Colour',
  material: 'Material',
  prepTime: 'Preparation',
  cookTime: 'Cooking',
  totalTime: 'In all',
  recipeYield: 'Makes',
  recipeIngredient: 'Ingredients',
  'nutrition.calories': 'Calories',
  startDate: 'Begins',
  endDate: 'Ends',
  doorTime: 'Doors open',
  location: 'Place',
  'location.address': 'Address',
  eventStatus: 'Status',
  organizer: 'Held by',
  performer: 'With',
  author: 'By',
  isbn: 'ISBN',
  numberOfPages: 'Pages',
  datePublished: 'Published',
  publisher: 'Publisher',
  bookFormat: 'Form',
  duration: 'Length',
  uploadDate: 'Put up',
  'interactionStatistic.userInteractionCount': 'Seen',
  'page.authors': 'Written by',
  'page.published': 'Date',
  'page.site': 'Site',
  'page.minutes': 'Minutes',
};

/** The order in which what pages state is shown: names of facts, see factName. */
export const FACT_ORDER: readonly string[] = Object.keys(FACT_NAMES);

/** What a fact is called: "Price" for `offers.price`; what pages call it, where that is no property of schema.org's. */
export function factName(key: string): string {
  const said = key.replace(/^said\./, '');
  return FACT_NAMES[key] ?? said.charAt(0).toLocaleUpperCase() + said.slice(1);
}

/** A value as it is shown: "€18.40", "4.8 of 5", "1 h 20 min". */
export function valueInWords(value: FactValue): string {
  switch (value.type) {
    case 'text':
      return value.text;
    case 'number':
      return `${value.number.toLocaleString('en')}${value.outOf === null ? '' : ` of ${value.outOf}`}`;
    case 'money':
      return moneyInWords(value.amount, value.currency);
    case 'date':
      return dateInWords(value.date);
    case 'duration':
      return durationInWords(value.seconds);
  }
}

function moneyInWords(amount: number, currency: string | null): string {
  if (currency && /^[A-Z]{3}$/.test(currency))
    return new Intl.NumberFormat('en', { style: 'currency', currency }).format(amount);
  return `${amount.toLocaleString('en')}${currency ? ` ${currency}` : ''}`;
}

function dateInWords(date: string): string {
  // The day as the page states it, not as it falls in this device's zone.
  const [year = 0, month = 1, day = 1] = date.slice(0, 10).split('-').map(Number);
  const time = /T(\d{2}:\d{2})/.exec(date)?.[1];
  return `${format(new Date(year, month - 1, day), 'd MMMM yyyy')}${time ? `, ${time}` : ''}`;
}

function durationInWords(seconds: number): string {
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor((seconds % 3600) / 60);
  const parts = [
    hours > 0 ? `${hours} h` : '',
    minutes > 0 ? `${minutes} min` : '',
    seconds < 60 || seconds % 60 > 0 ? `${Math.round(seconds % 60)} s` : '',
  ];
  return parts.filter(Boolean).join(' ');
}
