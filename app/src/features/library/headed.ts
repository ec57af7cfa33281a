import { type Item, tagsOf } from '@dorvel/core/model';
import { minutesLeft } from '@dorvel/core/reading';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { format } from 'date-fns/format';

export const SORT_ORDERS = ['saved', 'length', 'left', 'site', 'tag', 'title'] as const;
export type SortOrder = (typeof SORT_ORDERS)[number];

/** A row of a list: an item, or the heading over those that belong together. */
export type ListRow =
  { kind: 'item'; key: string; item: Item } | { kind: 'heading'; key: string; title: string; count: number };

/** Lists longer than this have headings in every order; shorter ones only by site and tag. */
const LONG_LIST = 30;

const BANDS: readonly [below: number, title: string][] = [
  [5, 'Under 5 minutes'],
  [10, '5 to 10 minutes'],
  [20, '10 to 20 minutes'],
  [40, '20 to 40 minutes'],
  [Infinity, '40 minutes and more'],
];
const UNKNOWN_LENGTH = 'Length not known yet';
const NO_TAG = 'Without a tag';
const bandOf = (item: Item, minutes: number): string =>
  item.capture.page ? (BANDS.find(([below]) => minutes < below)?.[1] ?? UNKNOWN_LENGTH) : UNKNOWN_LENGTH;

const monthsOfHours = new Map<number, string>();
/** Kept for each hour: a library of ten thousand is asked for its months at every change, and few of them differ. */
function monthOf(instant: number): string {
  const hour = Math.floor(instant / 3_600_000);
  const known = monthsOfHours.get(hour);
  if (known !== undefined) return known;
  const month = format(instant, 'MMMM yyyy');
  monthsOfHours.set(hour, month);
  return month;
}

const HEADINGS: Readonly<Record<SortOrder, (item: Item) => readonly string[]>> = {
  saved: (item) => [monthOf(item.choices.raisedAt.value)],
  length: (item) => [bandOf(item, item.capture.page?.minutes ?? 0)],
  left: (item) => [bandOf(item, minutesLeft(item))],
  site: (item) => [sourceOf(item)],
  tag: (item) => (tagsOf(item).length > 0 ? tagsOf(item) : [NO_TAG]),
  title: (item) => [initialOf(titleOf(item))],
};

/** Headings of these orders stand by their names; those of the others as their first item does. */
const BY_NAME: ReadonlySet<SortOrder> = new Set(['site', 'tag']);

/**
 * The rows of a list: its items under the headings of their order. By tag an item stands under each of its tags.
 *
 * @param items in their order; within a heading they keep it
 * @returns without headings where the list is short and its order does not live by them
 */
export function rowsOf(items: readonly Item[], order: SortOrder): ListRow[] {
  if (!BY_NAME.has(order) && items.length <= LONG_LIST) return items.map(asRow);
  const under = new Map<string, Item[]>();
  for (const item of items)
    for (const title of HEADINGS[order](item)) {
      const there = under.get(title);
      if (there) there.push(item);
      else under.set(title, [item]);
    }
  const groups = [...under];
  if (BY_NAME.has(order)) groups.sort(([a], [b]) => Number(a === NO_TAG) - Number(b === NO_TAG) || a.localeCompare(b));
  return groups.flatMap(([title, there]): ListRow[] => [
    { kind: 'heading', key: `under ${title}`, title, count: there.length },
    ...there.map((item): ListRow => ({ kind: 'item', key: order === 'tag' ? `${title} ${item.id}` : item.id, item })),
  ]);
}

/** The row of an item that stands in its list once. */
export const asRow = (item: Item): ListRow => ({ kind: 'item', key: item.id, item });

/**
 * Rows after items have changed in their places, as they do with each sentence that is read: they stay as they are, since each shows
 * its item as it is by itself, and the list is not drawn again.
 *
 * @param rows by date of saving or without headings: what was made of the items as they were before
 * @returns null when more has changed than that, and all rows have to be made anew
 */
export function rowsAfter(
  rows: readonly ListRow[],
  before: readonly Item[],
  items: readonly Item[],
): readonly ListRow[] | null {
  const isInPlace = (is: Item, n: number): boolean => {
    const was = before[n];
    if (is === was) return true;
    return (
      is.id === was?.id &&
      is.choices.raisedAt.value === was.choices.raisedAt.value &&
      // Whether its text is here is told to the row.
      is.capture.page?.copyId === was.capture.page?.copyId
    );
  };
  return items.length === before.length && items.every(isInPlace) ? rows : null;
}

/** Letters without their marks, so that É stands under E; what is no letter stands under #. */
function initialOf(title: string): string {
  const first = /[\p{L}\p{N}]/u.exec(title.normalize('NFD'))?.[0]?.toUpperCase() ?? '#';
  return /\p{N}/u.test(first) ? '#' : first;
}
