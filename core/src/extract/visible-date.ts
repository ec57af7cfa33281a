import * as chrono from 'chrono-node';
import { attribute, label, startOfText, tidy, type PageElement } from './page-tree';

/** Names of what shows a date, common practice. */
const DATED =
  /(?:^|[\s_-])(?:date|dates|datetime|time|timestamp|published|publish|pub|pubdate|posted|post-date|dateline|created|entry-date|byline|meta|post-meta|info|submitted|credit|fecha|datum)(?:$|[\s_-])|date|publish/i;
const OTHERS_DATES = /comment|related|sidebar|footer|nav|recent|popular|teaser|archive|widget/;
const YEAR = /\b(?:19|20)\d\d\b|\d{4}年/;
const LONGEST_LINE = 220;
/** So many elements are looked at that are named for a date. */
const MOST_NAMED = 300;
/** So many elements behind the headline may show the date of the article. */
const NEAR_HEADLINE = 60;

/**
 * The date that a page shows to its readers, where it states none in its metadata: in an element that is named for
 * it, or in a line near the headline.
 *
 * @param elements all of the page, in document order
 * @param language BCP 47 tag as declared, or null
 * @returns `YYYY-MM-DD`, or null
 */
export function findVisibleDate(elements: readonly PageElement[], language: string | null): string | null {
  const named = elements.filter((element) => DATED.test(label(element))).slice(0, MOST_NAMED);
  const headline = elements.findIndex((element) => element.tagName === 'h1');
  const near = headline === -1 ? [] : elements.slice(Math.max(0, headline - 8), headline + NEAR_HEADLINE);
  for (const element of [...named, ...near]) {
    if (isOthers(element)) continue;
    const text = tidy(attribute(element, 'title') ?? startOfText(element, LONGEST_LINE));
    const date =
      text.length <= LONGEST_LINE && YEAR.test(text)
        ? dateIn(text, language)
        : YEAR.test(text.slice(0, LONGEST_LINE)) && DATED.test(label(element))
          ? dateIn(text.slice(0, LONGEST_LINE), language)
          : null;
    if (date) return date;
  }
  return null;
}

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
  for (const reader of [READERS[base], READERS.en].filter((each) => each !== undefined))
    for (const { start } of reader.parse(text, REFERENCE)) {
      if (!start.isCertain('year') || !start.isCertain('month') || !start.isCertain('day')) continue;
      const [year, month, day] = [start.get('year'), start.get('month'), start.get('day')];
      if (year !== null && month !== null && day !== null) return iso(year, month, day);
    }
  return null;
}

function iso(year: number, month: number, day: number): string | null {
  if (month < 1 || month > 12 || day < 1 || day > 31 || year < 1990 || year > 2100) return null;
  return `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
}
