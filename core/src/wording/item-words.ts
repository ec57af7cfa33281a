import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { format } from 'date-fns/format';
import { isSameYear } from 'date-fns/isSameYear';
import { hostOf, isOnWeb } from '../address';
import type { Item } from '../model';

/** The title that stands for an item: the reader's own, the page's, or the address until there is one. */
export function titleOf(item: Item): string {
  const { title, listedAs } = item.choices;
  return title.value ?? item.capture.page?.title ?? listedAs.value ?? shortAddress(item.address);
}

/** Where it comes from: the site's name, else its host. */
export function sourceOf(item: Item): string {
  const kind = item.address.startsWith('mid:') ? 'by mail' : 'a file';
  return item.capture.page?.siteName ?? (isOnWeb(item.address) ? hostOf(item.address) : kind);
}

/**
 * The same, to stand among other words: a name that is written from right to left would take the line's direction with it, and "7 November"
 * behind it come out as "November 7". Isolated, and behind a mark from left to right, since HTML's dir=auto looks into what is
 * isolated, too (Unicode Bidirectional Algorithm, UAX #9: LRM, first strong isolate).
 */
export function sourceInLine(item: Item): string {
  const source = sourceOf(item);
  return FROM_RIGHT.test(source) ? `\u200e\u2068${source}\u2069` : source;
}

const FROM_RIGHT = /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;

/** "saved today", "saved on Tuesday", "saved on 3 November" */
export function savedWords(item: Item, now: number = Date.now()): string {
  return `saved ${dayWords(item.savedAt, now)}`;
}

/** The day of saving where room is short: "today", "yesterday", "Tuesday", "3 Nov", "3 Nov 2025" */
export function savedShort(item: Item, now: number = Date.now()): string {
  const days = differenceInCalendarDays(now, item.savedAt);
  if (days < 7) return dayWords(item.savedAt, now).replace(/^on /, '');
  return format(item.savedAt, isSameYear(item.savedAt, now) ? 'd MMM' : 'd MMM yyyy');
}

function dayWords(instant: number, now: number): string {
  const days = differenceInCalendarDays(now, instant);
  if (days <= 0) return 'today';
  if (days === 1) return 'yesterday';
  if (days < 7) return `on ${format(instant, 'EEEE')}`;
  return `on ${format(instant, isSameYear(instant, now) ? 'd MMMM' : 'd MMMM yyyy')}`;
}

/** A calendar day in words: "Thursday, 3 December"; one of another year "3 December 2024". @param today the reader's day */
export function dayInWords(day: string, today: string = format(Date.now(), 'yyyy-MM-dd')): string {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  const isThisYear = today.startsWith(`${day.slice(0, 4)}-`);
  return format(new Date(year, month - 1, date), isThisYear ? 'EEEE, d MMMM' : 'd MMMM yyyy');
}

/** The same with the time of day: two copies may well be of one day. "today at 7:05" */
export function momentWords(instant: number, now: number = Date.now()): string {
  return `${dayWords(instant, now)} at ${format(instant, 'H:mm')}`;
}

/** "today", "yesterday", "on Tuesday", "on 3 November" */
export function whenWords(instant: number, now: number = Date.now()): string {
  return dayWords(instant, now);
}

/** What to say when a page is saved that the library has: since when, where it is, how far it is read. */
export function alreadySavedWords(item: Item): string {
  const place = {
    inbox: 'in Inbox',
    queue: 'in Queue',
    finished: 'finished',
    kept: 'kept',
    'let-go': 'let go, and back in Inbox',
  }[item.choices.stage.value];
  const read =
    item.progress.furthest > 0 && item.choices.finishedAt.value === null
      ? `, ${Math.round(item.progress.furthest * 100)} % read`
      : '';
  return `Already ${savedWords(item)}: ${place}${read}. Moved to the top.`;
}

/** The date on which the page was published, in words; null when it does not state one. */
export function publishedWords(item: Item): string | null {
  const stated = item.capture.page?.publishedAt;
  if (!stated) return null;
  // The day as the page states it, not as it falls in this device's zone.
  const [year, month, day] = stated.slice(0, 10).split('-').map(Number);
  return year && month && day ? format(new Date(year, month - 1, day), 'd MMMM yyyy') : null;
}

function shortAddress(address: string): string {
  if (!isOnWeb(address)) return address.startsWith('mid:') ? 'A letter' : 'A file';
  if (!URL.canParse(address)) return address;
  const { hostname, pathname, search } = new URL(address);
  return `${hostname.replace(/^www\./, '')}${pathname === '/' ? '' : pathname}${search}`;
}
