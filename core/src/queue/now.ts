import { type Carrier, hasText, instantOf, type Item } from '../model';
import { type DayName, goOnFrom, minutesLeft } from '../reading';
import { listeningMinutes } from '../text';
import { isDue } from './promises';
import type { ResurfaceCandidate } from './resurface';
import type { SlotCandidate } from './slot';
import { byQueueOrder, inStage, readingState } from './stages';
/** The reader's calendar day of an instant, which is a matter of their zone. */
export type DayOf = (instant: number) => DayName;

const GO_ON_SHOWN = 2;
const LATELY_MS = 31 * 24 * 60 * 60 * 1000;

/** What was begun and not finished, the latest first. */
export function toGoOnWith(items: readonly Item[]): Item[] {
  return items
    .filter(
      (item) => readingState(item) === 'reading' && hasText(item) && (inStage(item, 'queue') || inStage(item, 'inbox')),
    )
    .sort((a, b) => lastInAt(b) - lastInAt(a))
    .slice(0, GO_ON_SHOWN);
}

/** When the reader was in an item last; 0 for never. */
export function lastInAt(item: Item): number {
  return item.progress.position ? instantOf(item.progress.position.at) : 0;
}

/** What carried the reader to where they stopped. */
export function stoppedBy(item: Item): Carrier {
  const at = Math.round(goOnFrom(item) * 1000);
  return item.progress.heard.some(([from, to]) => from <= at && at <= to + 1) ? 'ears' : 'eyes';
}

/** What is known of items by their texts. */
interface TextsKnown {
  /** Where parts of an item begin, as fractions of its words. */
  partsOf?: (id: string) => readonly number[];
  /** How much of an item is new to the reader, 0 to 1, where they pass over the rest. */
  newShareOf?: (id: string) => number;
}

/**
 * What of the Queue may go into a slot, in its order.
 *
 * @param canBeHeard whether there is a voice for a language
 */
export function slotCandidates(
  items: readonly Item[],
  by: Carrier,
  rate: number,
  canBeHeard: (language: string | null) => boolean,
  { partsOf = () => [], newShareOf = () => 1 }: TextsKnown = {},
): SlotCandidate[] {
  return items
    .filter((item) => inStage(item, 'queue') && readingState(item) !== 'finished' && hasText(item))
    .filter((item) => by === 'eyes' || canBeHeard(item.capture.page?.language ?? null))
    .sort(byQueueOrder)
    .map((item) => {
      const all =
        by === 'eyes'
          ? minutesLeft(item)
          : listeningMinutes((item.capture.page?.wordCount ?? 0) * (1 - goOnFrom(item)), rate);
      const minutes = all * newShareOf(item.id);
      const stops = minutes < LONG_MINUTES ? [] : stopsIn(minutes, goOnFrom(item), partsOf(item.id));
      return { id: item.id, minutes, begun: readingState(item) === 'reading', ...(stops.length > 0 ? { stops } : {}) };
    });
}

/** What takes less is read in one go. */
export const LONG_MINUTES = 10;
/** A part that is shorter, or leaves less, is not worth a stop. */
const LEAST_PART_MINUTES = 3;

/** Minutes from where the reader is to the headings that are before them. */
function stopsIn(minutes: number, from: number, parts: readonly number[]): number[] {
  return parts
    .map((part) => ((part - from) / (1 - from)) * minutes)
    .filter((stop) => stop >= LEAST_PART_MINUTES && minutes - stop >= LEAST_PART_MINUTES);
}

/** What is promised for today or for a day gone by, the longest promised first. */
export function dueToday(items: readonly Item[], today: DayName, dayOf: DayOf): Item[] {
  return items
    .filter((item) => isDue(item, today, lastInAt(item) > 0 ? dayOf(lastInAt(item)) : null))
    .sort((a, b) => (a.choices.comeBackOn.value ?? '').localeCompare(b.choices.comeBackOn.value ?? ''));
}

/** What was finished in the last month. */
export function latelyFinished(items: readonly Item[], now: number): string[] {
  return items
    .filter(({ choices: { finishedAt } }) => finishedAt.value !== null && now - finishedAt.value < LATELY_MS)
    .map(({ id }) => id);
}

/** The items of the Queue that may be lifted, but for those before the reader's eyes anyway. */
export function resurfaceable(items: readonly Item[], shownElsewhere: ReadonlySet<string>): Item[] {
  return items.filter(
    (item) =>
      inStage(item, 'queue') && readingState(item) !== 'finished' && hasText(item) && !shownElsewhere.has(item.id),
  );
}

/** What the resurfacing score has to know of an item. */
export function asCandidate(
  item: Item,
  closeness: { nearness: number; nearTo: number } | undefined,
  dayOf: DayOf,
): ResurfaceCandidate {
  return {
    id: item.id,
    savedOn: dayOf(item.savedAt),
    queuedOn: dayOf(Math.max(item.savedAt, instantOf(item.choices.stage.at))),
    passed: item.progress.furthest,
    minutesLeft: minutesLeft(item),
    promisedFor: item.choices.comeBackOn.value,
    shown: item.choices.shown.value,
    passedOver: item.choices.passedOver.value,
    nearness: closeness?.nearness ?? 0,
    nearTo: closeness?.nearTo ?? 0,
  };
}
