import { format } from 'date-fns/format';
import type { BestReason, Period } from '../look-back';
import type { Item } from '../model';
import type { TagSuggestion } from '../nearness';
import type { Proposal, Reason } from '../queue';
import { dayInWords, titleOf } from './item-words';

/** Why two items are near: "both speak of eelgrass, dredging". @param shared terms, weightiest first */
export function sharedInWords(shared: readonly string[]): string {
  return `both speak of ${shared.slice(0, 3).join(', ')}`;
}

/** "the text speaks of it", "as “Larch or oak” and 2 more near to it" */
export function reasonForTag({ isNamed, because }: Omit<TagSuggestion, 'tag'>, items: readonly Item[]): string {
  if (isNamed) return 'the text speaks of it';
  const first = items.find(({ id }) => id === because[0]);
  const more = because.length - 1;
  return `as ${first ? `“${titleOf(first)}”` : 'one near to it'}${more > 0 ? ` and ${more} more near to it` : ''}`;
}

/** The reason for lifting in words: when it was saved, and the weightiest of the rest. */
export function reasonInWords(reasons: readonly Reason[]): string {
  const saved = reasons.find((reason) => reason.kind === 'saved');
  const other =
    reasons.find((reason) => reason.kind !== 'saved' && reason.kind !== 'unseen') ??
    reasons.find((reason) => reason.kind === 'unseen');
  const words = [saved, other].filter((reason) => reason !== undefined).map(inWords);
  return words.join(', ') || 'in the Queue';
}

function inWords(reason: Reason): string {
  switch (reason.kind) {
    case 'saved':
      return `saved ${spanInWords(reason.days)} ago`;
    case 'near':
      return `close to ${COUNTED[reason.count] ?? String(reason.count)} ${reason.count === 1 ? 'thing' : 'things'} you finished lately`;
    case 'begun':
      return `begun, ${String(Math.max(1, Math.round(reason.minutesLeft)))} min left`;
    case 'promise':
      return `was to come back ${reason.day}`;
    case 'unseen':
      return `not brought up for ${spanInWords(reason.days)}`;
  }
}

const COUNTED = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

/** "3 days", "7 weeks", "5 months". */
export function spanInWords(days: number): string {
  const [count, unit] =
    days < 14 ? [days, 'day'] : days < 70 ? [Math.round(days / 7), 'week'] : [Math.round(days / 30.4), 'month'];
  return `${count} ${unit}${count === 1 ? '' : 's'}`;
}

/** Why something might be let go: "never begun in 9 weeks". */
export function proposalInWords({ because }: Proposal): string {
  switch (because.kind) {
    case 'event-past':
      return `what it announces was on ${dayInWords(because.day)}`;
    case 'passed-over':
      return `passed over ${because.times} times`;
    case 'never-begun':
      return `not begun in ${spanInWords(because.days)}`;
  }
}

/** Why something is among the best: "3 highlights, opened on 2 days, finished". */
export function bestInWords(reasons: readonly BestReason[]): string {
  return reasons.map(whyBest).join(', ');
}

function whyBest(reason: BestReason): string {
  switch (reason.kind) {
    case 'chosen':
      return 'you called it one of the best';
    case 'highlights':
      return `${reason.count} ${reason.count === 1 ? 'highlight' : 'highlights'}`;
    case 'notes':
      return `${reason.count} ${reason.count === 1 ? 'note' : 'notes'}`;
    case 'days':
      return `opened on ${reason.count} days`;
    case 'finished':
      return 'finished';
  }
}

/** The name of a week or month: "Week of 23 November", "Week of 29 December 2025", "November 2026". @param today the reader's day */
export function periodInWords({ kind, from }: Period, today: string): string {
  const [year = 0, month = 1, day = 1] = from.split('-').map(Number);
  const date = new Date(year, month - 1, day);
  if (kind === 'month') return format(date, 'MMMM yyyy');
  return `Week of ${format(date, today.startsWith(from.slice(0, 5)) ? 'd MMMM' : 'd MMMM yyyy')}`;
}

/** That the reader wanted an item back. @param today the reader's day */
export function dueInWords(item: Item, today: string): string {
  const day = item.choices.comeBackOn.value ?? today;
  return `you wanted it back ${day === today ? 'today' : `on ${dayInWords(day, today)}`}`;
}
