import type { Fact, FactValue } from '@dorvel/core/model';
import { format } from 'date-fns/format';

/** schema.org's properties in words. */
const KEYS: Readonly<Record<string, string>> = {
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
};

/** What the page states in its data of products, recipes, events, books and videos; closed until it is asked for. */
export function StatedFacts({ facts }: { facts: readonly Fact[] }) {
  if (facts.length === 0) return null;
  const things = [...new Set(facts.map(({ about, of }) => `${about} ${of ?? ''}`))];
  return (
    <details className="facts">
      <summary>What the page states ({facts.length})</summary>
      {things.map((thing) => {
        const own = facts.filter(({ about, of }) => `${about} ${of ?? ''}` === thing);
        return (
          <div key={thing}>
            {own[0]?.of && <p className="facts-of">{own[0].of}</p>}
            <dl>
              {own.map(({ key, value }) => (
                <div key={key}>
                  <dt>{KEYS[key] ?? key}</dt>
                  <dd>{valueInWords(value)}</dd>
                </div>
              ))}
            </dl>
          </div>
        );
      })}
    </details>
  );
}

function valueInWords(value: FactValue): string {
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
