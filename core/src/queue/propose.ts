import { instantOf, type Item } from '../model';
import { type DayName, daysBetween } from '../reading/days';

/** Something that might be let go, and why. */
export interface Proposal {
  item: Item;
  because:
    | { kind: 'event-past'; day: DayName }
    | { kind: 'passed-over'; times: number }
    | { kind: 'never-begun'; days: number };
}

/** So often passed over is an answer. */
const TIMES_PASSED_OVER = 3;
/** Eight weeks untouched; of what people mean to read, little is begun after that (from memory, and ours to tune). */
const DAYS_UNTOUCHED = 56;
const MOST = 12;

/**
 * What of Inbox and Queue might go, the clearest cases first: events that are over, what was passed over time and again,
 * what was never begun. Not what the reader has begun, marked by a day to come back on, or decided on lately.
 *
 * @param dayOf the reader's calendar day of an instant
 */
export function proposeLettingGo(
  items: readonly Item[],
  today: DayName,
  dayOf: (instant: number) => DayName,
): Proposal[] {
  return items
    .filter(({ choices, capture, progress }) => {
      const stage = choices.stage.value;
      const waits = (stage === 'inbox' || stage === 'queue') && choices.finishedAt.value === null;
      return (
        waits && capture.duplicateOf === null && progress.furthest === 0 && (choices.comeBackOn.value ?? '') < today
      );
    })
    .flatMap((item): Proposal[] => {
      const because = reasonFor(item, today, dayOf);
      return because ? [{ item, because }] : [];
    })
    .sort((a, b) => rankOf(a) - rankOf(b) || a.item.savedAt - b.item.savedAt)
    .slice(0, MOST);
}

const rankOf = ({ because }: Proposal): number => ['event-past', 'passed-over', 'never-begun'].indexOf(because.kind);

function reasonFor(item: Item, today: DayName, dayOf: (instant: number) => DayName): Proposal['because'] | null {
  const { passedOver, stage, raisedAt } = item.choices;
  const day = lastDayOfEvent(item);
  if (day !== null && day < today) return { kind: 'event-past', day };
  if (passedOver.value.times >= TIMES_PASSED_OVER) return { kind: 'passed-over', times: passedOver.value.times };
  const since = dayOf(Math.max(item.savedAt, raisedAt.value, instantOf(stage.at)));
  const days = daysBetween(since, today);
  return days >= DAYS_UNTOUCHED ? { kind: 'never-begun', days } : null;
}

/** The day on which the event of a page is over, where the page states it. */
function lastDayOfEvent(item: Item): DayName | null {
  const days = (item.capture.page?.facts ?? []).flatMap(({ about, key, value }) =>
    about === 'event' && /^(?:start|end)Date$/.test(key) && value.type === 'date' ? [value.date.slice(0, 10)] : [],
  );
  return days.length === 0 ? null : days.reduce((last, day) => (day > last ? day : last));
}
