import type { Activity, Card, Highlight, Item, Note } from '../model';
import { newItem } from '../records';
import { highlightFrom, noteFrom } from '../testing';
import { happeningInWords } from '../wording';
import { trailOf, trailOfPassage } from '.';

const dayOf = (instant: number) => new Date(instant).toISOString().slice(0, 10);
const at = (day: string) => Date.parse(`${day}T12:00Z`);
const stamp = (day: string) => `${at(day).toString(36).padStart(9, '0')}-0000-a`;
const ID = '01900000-0000-7000-8000-000000000001';
let made = 0;
const newId = () => `01900000-0000-7000-8000-${String(++made + 100).padStart(12, '0')}`;
const NOTHING = { activities: [], highlights: [], notes: [], cards: [], collected: [] };

function item(choices: Partial<Item['choices']> = {}): Item {
  const base = newItem({
    type: 'save',
    id: ID,
    itemId: ID,
    address: 'https://example.org/',
    savedAt: at('2026-11-01'),
    stamp: stamp('2026-11-01'),
  });
  return { ...base, choices: { ...base.choices, ...choices } };
}
const sitting = (day: string, by: Activity['by'], minutes: number) => ({
  id: ID,
  itemId: ID,
  startedAt: 0,
  day,
  by,
  seconds: minutes * 60,
  words: 1,
});
const told = (...parts: Parameters<typeof trailOf>) =>
  trailOf(...parts).map(({ on, happenings }) => `${on}: ${happenings.map(happeningInWords).join(', ')}`);

it('an item that was only saved has a trail of one point', () => {
  expect(told(item(), NOTHING, dayOf)).toEqual(['2026-11-01: saved']);
});

it('what happened to an item is told by day, and in a day in the order of doing', () => {
  const removed = { choices: { removed: { value: true } } };
  const live = { choices: { removed: { value: false } } };
  const choices: Partial<Item['choices']> = {
    stage: { value: 'kept', at: stamp('2026-11-20') },
    finishedAt: { value: at('2026-11-09'), at: stamp('2026-11-09') },
    shown: { value: { times: 3, lastOn: '2026-11-08' }, at: stamp('2026-11-08') },
    best: { value: at('2026-11-22'), at: stamp('2026-11-22') },
  };
  const came = {
    activities: [sitting('2026-11-08', 'eyes', 4), sitting('2026-11-09', 'ears', 9), sitting('2026-11-08', 'eyes', 2)],
    highlights: [
      { madeAt: at('2026-11-08'), ...live },
      { madeAt: at('2026-11-08'), ...live },
      { madeAt: at('2026-11-08'), ...removed },
    ] as Highlight[],
    notes: [],
    cards: [{ madeAt: at('2026-11-09'), ...live }] as Card[],
    collected: [
      { madeAt: at('2026-11-21'), into: 'Eelgrass' },
      { madeAt: at('2026-11-09'), into: 'Eelgrass' },
    ],
  };
  expect(told(item(choices), came, dayOf)).toEqual([
    '2026-11-01: saved',
    '2026-11-08: brought back, for the 3rd time, read for 6 min, 2 highlights',
    '2026-11-09: heard for 9 min, 1 card, into the dossier “Eelgrass”, finished',
    '2026-11-20: kept',
    '2026-11-22: called one of the best',
  ]);
});

it.each([
  [1, 'brought back'],
  [2, 'brought back, for the 2nd time'],
  [11, 'brought back, for the 11th time'],
  [21, 'brought back, for the 21st time'],
  [13, 'brought back, for the 13th time'],
  [40, 'brought back, for the 40th time'],
])('what was brought back %d times says so', (times, words) => {
  expect(happeningInWords({ kind: 'brought-back', times })).toBe(words);
});

it('what came of a passage is told by day: words on it and on these, cards of it, and that it was put off', () => {
  const passage = highlightFrom({
    ...{ id: newId(), itemId: ID, madeAt: at('2026-11-03') },
    workedOver: { times: 2, lastOn: '2026-11-11' },
  });
  const noteOn = (day: string, on: Note['on'], removed = false) => ({
    ...noteFrom({ id: newId(), itemId: ID, on, text: 'Mine.', removed }),
    madeAt: at(day),
  });
  const first = noteOn('2026-11-04', { kind: 'highlight', id: passage.id });
  const notes = [
    first,
    noteOn('2026-11-06', { kind: 'note', id: first.id }),
    noteOn('2026-11-06', { kind: 'highlight', id: passage.id }, true),
    noteOn('2026-11-07', { kind: 'highlight', id: newId() }),
    noteOn('2026-11-07', { kind: 'item' }),
  ];
  const card = (highlightId: string | null) =>
    ({ madeAt: at('2026-11-06'), source: { highlightId }, choices: { removed: { value: false } } }) as Card;
  const points = trailOfPassage(
    passage,
    { notes, cards: [card(passage.id), card(null)], collected: [{ madeAt: at('2026-11-12'), into: 'Eelgrass' }] },
    dayOf,
  );
  expect(points.map(({ on, happenings }) => `${on}: ${happenings.map(happeningInWords).join(', ')}`)).toEqual([
    '2026-11-03: 1 highlight',
    '2026-11-04: 1 note',
    '2026-11-06: 1 note, 1 card',
    '2026-11-11: put off, for the 2nd time',
    '2026-11-12: into the dossier “Eelgrass”',
  ]);
});
