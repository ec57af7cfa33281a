import * as chrono from 'chrono-node';
import { attribute, label, type PageElement, startOfText, tidy } from '../page/page-tree';

/** Names of what shows a date, common practice. */
const DATED =
  /(?:^|[\s_-])(?:date|dates|datetime|time|timestamp|published|publish|pub|pubdate|posted|post-date|dateline|created|entry-date|byline|meta|post-meta|info|submitted|credit|fecha|datum)(?:$|[\s_-])|date|publish/i;
const OTHERS_DATES = /comment|related|sidebar|footer|nav|recent|popular|teaser|archive|widget/;
const YEAR = /\b(?:19|20)\d\d\b|\d{4}年/;
const MAX_LINE_LENGTH = 220;
/** So many elements are looked at that are named for a date. */
const MAX_NAMED = 300;
/** So many elements behind the headline may show the date of the article. */
const NEAR_HEADLINE = 60;

/**
 * The date that a page shows to its readers, where it states none in its metadata: in an element that is named for
 * it, or in a line near the headline.
 *
 * @param elements all of the page, in document order
 * @param language BCP 47 tag, or null
 * @param title where the page has no `h1`, the line that says this is its headline
 * @returns `YYYY-MM-DD`, or null
 */
export function findVisibleDate(
  elements: readonly PageElement[],
  language: string | null,
  title: string | null,
): string | null {
  const named = elements.filter((element) => DATED.test(label(element))).slice(0, MAX_NAMED);
  const near = headlinesAt(elements, title).flatMap((at) => elements.slice(Math.max(0, at - 8), at + NEAR_HEADLINE));
  // Boxes in boxes say the same: each line is read once.
  const seen = new Set<string>();
  for (const element of [...named, ...near]) {
    const text = tidy(attribute(element, 'title') ?? startOfText(element, MAX_LINE_LENGTH));
    if (!YEAR.test(text) || seen.has(text) || isOthers(element)) continue;
    seen.add(text);
    // A long text is only looked into when its element is named for a date.
    const line = text.slice(0, MAX_LINE_LENGTH);
    const mayTell = text.length <= MAX_LINE_LENGTH || DATED.test(label(element));
    const date = mayTell && YEAR.test(line) ? dateIn(line, language) : null;
    if (date) return date;
  }
  return null;
}

/** Where the headline stands: at the `h1` or else another line that says the title, else at the first `h1`. */
function headlinesAt(elements: readonly PageElement[], title: string | null): number[] {
  const says = (tags: RegExp) =>
    title === null
      ? []
      : elements
          .flatMap((element, index) =>
            tags.test(element.tagName) && startOfText(element, title.length) === title ? [index] : [],
          )
          .slice(0, MAX_HEADLINES);
  const headlines = says(/^h1$/);
  if (headlines.length > 0) return headlines;
  const first = elements.findIndex((element) => element.tagName === 'h1');
  return first === -1 ? says(/^(?:h[2-6]|div|span|strong|b|p|td|font|a)$/) : [first];
}

const MAX_HEADLINES = 4;

/** A date in a page's address, as many sites write it: `/2012/10/27/`. */
export function dateInAddress(address: string): string | null {
  const found = /[/-]((?:19|20)\d\d)[/-](0?[1-9]|1[0-2])[/-](0?[1-9]|[12]\d|3[01])(?:[/-]|$)/.exec(address);
  return found ? iso(Number(found[1]), Number(found[2]), Number(found[3])) : null;
}

function isOthers(element: PageElement): boolean {
  let at: PageElement | null = element;
  for (let up = 0; at && up < 8; up++) {
    if (OTHERS_DATES.test(label(at)) || at.tagName === 'footer' || at.tagName === 'nav') return true;
    const parent: PageElement['parentNode'] = at.parentNode;
    at = parent && 'tagName' in parent ? parent : null;
  }
  return false;
}

/** Readers of dates by language; the reference is of no account, since only dates with their year are taken. */
const READERS: Readonly<Record<string, { parse(text: string, reference: Date): chrono.ParsedResult[] }>> = {
  de: chrono.de.strict,
  en: chrono.en.strict,
  es: chrono.es.strict,
  fr: chrono.fr.strict,
  ja: chrono.ja.strict,
  nl: chrono.nl.strict,
  pt: chrono.pt.strict,
  ru: chrono.ru.strict,
  zh: chrono.zh.strict,
};
const REFERENCE = new Date(0);

/** The first whole date in a short text, and the same with day and month the other way round, where that is a date too. */
export function eitherOrder(text: string, language: string | null): [string | null, string | null] {
  const day = dateIn(text, language);
  const [, year, month, dayOfMonth] = /^(\d{4})-(\d\d)-(\d\d)$/.exec(day ?? '') ?? [];
  return [day, year === undefined ? null : iso(Number(year), Number(dayOfMonth), Number(month))];
}

/** The first whole date in a short text. */
export function dateIn(text: string, language: string | null): string | null {
  const cjk = /(\d{4})年\s*(\d{1,2})月\s*(\d{1,2})日/.exec(text);
  if (cjk) return iso(Number(cjk[1]), Number(cjk[2]), Number(cjk[3]));
  const base = (language ?? 'en').toLowerCase().split(/[-_]/)[0] ?? 'en';
  const isAmerican = /^en(?:-us)?$/i.test(language ?? 'en');
  const numeric = /\b(\d{1,2})[./-](\d{1,2})[./-]((?:19|20)\d\d)\b/.exec(text);
  if (numeric) {
    const [first, second, year] = numeric.slice(1).map(Number) as [number, number, number];
    // Months come first in American English only, and never when they would be over 12.
    return isAmerican && first <= 12 ? iso(year, first, second) : iso(year, second, first);
  }
  const spelled = spelledDate(text, base);
  if (spelled) return spelled;
  for (const reader of [READERS[base], READERS.en].filter((each) => each !== undefined))
    for (const { start } of reader.parse(text, REFERENCE)) {
      if (!start.isCertain('year') || !start.isCertain('month') || !start.isCertain('day')) continue;
      const [year, month, day] = [start.get('year'), start.get('month'), start.get('day')];
      if (year !== null && month !== null && day !== null) return iso(year, month, day);
    }
  return null;
}

/**
 * A day with its month spelled out in any language: "20. augusztus 2015", "2015. augusztus 20.", "04 أغسطس 2013". The
 * names of the months are those of Unicode CLDR, by Intl.
 */
function spelledDate(text: string, language: string): string | null {
  const plain = simplified(text);
  const found =
    /(?:^|\D)(\d{1,2})(?:st|nd|rd|th|º|er)?[.,]?\s+(?:de\s+|of\s+)?([\p{L}\p{M}/]{3,20})[.,]?\s+(?:de\s+)?((?:19|20)\d\d)(?!\d)/u.exec(
      plain,
    );
  const yearFirst = /((?:19|20)\d\d)[.,]?\s+([\p{L}\p{M}/]{3,20})[.,]?\s+(\d{1,2})(?!\d)/u.exec(plain);
  for (const [match, year, day] of [
    [found, 3, 1],
    [yearFirst, 1, 3],
  ] as const) {
    const month = match && monthOf(match[2] ?? '', language);
    if (month) return iso(Number(match[year]), month, Number(match[day]));
  }
  return null;
}

const MONTHS = new Map<string, Map<string, number>>();

function monthOf(name: string, language: string): number | null {
  let months = MONTHS.get(language);
  if (!months) {
    months = new Map();
    // In some languages the month has another form beside a day than alone; Arabic has two sets of names.
    for (const locale of language === 'ar' ? ['ar', 'ar-LB'] : [language])
      for (const options of [{ month: 'long' }, { month: 'short' }, { month: 'long', day: 'numeric' }] as const)
        monthNames(locale, options).forEach((name, month) => months?.set(simplified(name), month + 1));
    MONTHS.set(language, months);
  }
  for (const part of name.split('/')) {
    const month = months.get(part) ?? months.get(part.replace(/\.$/, ''));
    if (month) return month;
  }
  return null;
}

function monthNames(locale: string, options: Intl.DateTimeFormatOptions): string[] {
  try {
    const format = new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' });
    return Array.from({ length: 12 }, (_, month) => {
      const parts = format.formatToParts(new Date(Date.UTC(2024, month, 15)));
      return parts.find(({ type }) => type === 'month')?.value.replace(/\.$/, '') ?? '';
    });
  } catch {
    // Intl says by throwing that the page declares something that is no language.
    return [];
  }
}

/** Lower case, without the marks that writers of Arabic leave out. */
function simplified(text: string): string {
  return text.toLowerCase().replace(/[أإآ]/g, 'ا');
}

function iso(year: number, month: number, day: number): string | null {
  if (month < 1 || month > 12 || day < 1 || day > 31 || year < 1990 || year > 2100) return null;
  return `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
}
