import { type Activity, type Card, type Highlight, instantOf, type Item, type Note } from '../model';
import { isLive } from '../notes';
import type { DayName } from '../reading';

/** What happened to an item. */
export type Happening =
  | { kind: 'saved' }
  | { kind: 'sorted'; to: 'queue' | 'kept' | 'let-go' }
  | { kind: 'read' | 'heard'; minutes: number }
  | { kind: 'marked' | 'noted' | 'carded'; count: number }
  | { kind: 'collected'; into: string }
  | { kind: 'put-off'; times: number }
  | { kind: 'brought-back'; times: number }
  | { kind: 'finished' }
  | { kind: 'best' };

/** What happened to an item on a day. */
export interface TrailPoint {
  on: DayName;
  /** In the order of a reader's doing. */
  happenings: Happening[];
}

interface Came {
  activities: readonly Activity[];
  highlights: readonly Highlight[];
  notes: readonly Note[];
  cards: readonly Card[];
  /** The dossiers into which it was put, or something of it: when, and what they are called now. */
  collected: readonly { madeAt: number; into: string }[];
}

const ORDER: readonly Happening['kind'][] = [
  'saved',
  'brought-back',
  'sorted',
  'read',
  'heard',
  'marked',
  'noted',
  'carded',
  'collected',
  'put-off',
  'finished',
  'best',
];

/**
 * What happened to an item and what came of it, day by day, the earliest first. Of what is decided again and again, where
 * it is to go for instance, only the last decision is kept, and so it is told.
 *
 * @param came of this item alone
 * @param dayOf the reader's calendar day of an instant
 */
export function trailOf(item: Item, came: Came, dayOf: (instant: number) => DayName): TrailPoint[] {
  const { add, points } = gatheredByDay();
  const at = (instant: number, happening: Happening) => add(dayOf(instant), happening);
  const { stage, finishedAt, best, shown } = item.choices;
  at(item.savedAt, { kind: 'saved' });
  if (stage.value === 'queue' || stage.value === 'kept' || stage.value === 'let-go')
    at(Math.max(item.savedAt, instantOf(stage.at)), { kind: 'sorted', to: stage.value });
  if (finishedAt.value !== null) at(finishedAt.value, { kind: 'finished' });
  if (best.value !== null) at(best.value, { kind: 'best' });
  if (shown.value.lastOn !== null) add(shown.value.lastOn, { kind: 'brought-back', times: shown.value.times });
  for (const [by, kind] of [
    ['eyes', 'read'],
    ['ears', 'heard'],
  ] as const)
    for (const [day, seconds] of summed(
      came.activities.filter((each) => each.by === by),
      ({ day }) => day,
      ({ seconds }) => seconds,
    ))
      add(day, { kind, minutes: seconds / 60 });
  addCounted(add, dayOf, [
    ['marked', came.highlights.filter(({ choices }) => !choices.removed.value)],
    ['noted', came.notes.filter(isLive)],
    ['carded', came.cards.filter(({ choices }) => !choices.removed.value)],
  ]);
  for (const { madeAt, into } of firstOfEach(came.collected)) at(madeAt, { kind: 'collected', into });
  return points();
}

/**
 * What came of a passage that was marked, day by day: what was written on it and on that, the cards that were made of it, and
 * that it was put off when it came back to be put in own words.
 *
 * @param came of its item, whatever of it is on the passage is looked for
 */
export function trailOfPassage(
  highlight: Highlight,
  came: Pick<Came, 'notes' | 'cards' | 'collected'>,
  dayOf: (instant: number) => DayName,
): TrailPoint[] {
  const { add, points } = gatheredByDay();
  const { times, lastOn } = highlight.choices.workedOver.value;
  if (lastOn !== null) add(lastOn, { kind: 'put-off', times });
  addCounted(add, dayOf, [
    ['marked', [highlight]],
    ['noted', notesOn(highlight.id, came.notes)],
    [
      'carded',
      came.cards.filter(({ source, choices }) => source?.highlightId === highlight.id && !choices.removed.value),
    ],
  ]);
  for (const { madeAt, into } of firstOfEach(came.collected)) add(dayOf(madeAt), { kind: 'collected', into });
  return points();
}

/** Of several things that went into one dossier, the first. */
function firstOfEach(collected: Came['collected']): Came['collected'] {
  const earliest = [...collected].sort((a, b) => a.madeAt - b.madeAt);
  return earliest.filter(({ into }, at) => earliest.findIndex((each) => each.into === into) === at);
}

/** The live notes on a passage, and those on these. */
function notesOn(highlightId: string, notes: readonly Note[]): Note[] {
  const found = new Map<string, Note>();
  let around: readonly string[] = [highlightId];
  while (around.length > 0) {
    const next = notes.filter(
      ({ id, on }) => (on.kind === 'highlight' || on.kind === 'note') && around.includes(on.id) && !found.has(id),
    );
    for (const note of next) found.set(note.id, note);
    around = next.map(({ id }) => id);
  }
  return [...found.values()].filter(isLive);
}

type Add = (day: DayName, happening: Happening) => void;

function gatheredByDay(): { add: Add; points(): TrailPoint[] } {
  const days = new Map<DayName, Happening[]>();
  return {
    add: (day, happening) => void days.set(day, [...(days.get(day) ?? []), happening]),
    points: () =>
      [...days]
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([on, happenings]) => ({
          on,
          happenings: happenings.sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind)),
        })),
  };
}

function addCounted(
  add: Add,
  dayOf: (instant: number) => DayName,
  counted: readonly (readonly [kind: 'marked' | 'noted' | 'carded', records: readonly { madeAt: number }[]])[],
): void {
  for (const [kind, records] of counted)
    for (const [day, count] of summed(
      records,
      ({ madeAt }) => dayOf(madeAt),
      () => 1,
    ))
      add(day, { kind, count });
}

function summed<Value>(
  values: readonly Value[],
  dayOf: (value: Value) => DayName,
  amount: (value: Value) => number,
): Map<DayName, number> {
  const sums = new Map<DayName, number>();
  for (const value of values) sums.set(dayOf(value), (sums.get(dayOf(value)) ?? 0) + amount(value));
  return sums;
}
