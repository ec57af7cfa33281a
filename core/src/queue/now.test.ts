import { format } from 'date-fns/format';
import type { Item } from '../model';
import { itemKind, newItem } from '../records';
import { pageFrom } from '../testing';
import { asCandidate, dueToday, latelyFinished, resurfaceable, slotCandidates, stoppedBy, toGoOnWith } from './now';

const NOW = new Date(2026, 10, 24, 18, 0).getTime();
const DAY = 24 * 60 * 60 * 1000;
const stamp = (instant: number) => `${instant.toString(36).padStart(9, '0')}-0000-a`;
const dayOf = (instant: number) => format(instant, 'yyyy-MM-dd');
let made = 0;

interface Wanted {
  stage?: Item['choices']['stage']['value'];
  read?: number;
  heard?: Item['progress']['heard'];
  lastInDaysAgo?: number;
  finishedDaysAgo?: number;
  comeBackOn?: string;
  language?: string;
  rank?: number;
}

function item(wanted: Wanted = {}): Item {
  const id = `01900000-0000-7000-8000-${String(++made).padStart(12, '0')}`;
  const savedAt = NOW - 50 * DAY;
  const saved = newItem({
    type: 'save',
    id,
    itemId: id,
    address: `https://example.org/${made}`,
    savedAt,
    stamp: stamp(savedAt),
  });
  saved.capture.page = pageFrom({
    title: `Item ${made}`,
    language: wanted.language ?? 'en',
    wordCount: 1750,
    copyId: id,
  });
  const chosen = itemKind.apply(saved, {
    type: 'choose',
    id,
    itemId: id,
    stamp: stamp(savedAt + DAY),
    set: {
      stage: wanted.stage ?? 'queue',
      queueRank: wanted.rank ?? made,
      ...(wanted.finishedDaysAgo === undefined ? {} : { finishedAt: NOW - wanted.finishedDaysAgo * DAY }),
      ...(wanted.comeBackOn === undefined ? {} : { comeBackOn: wanted.comeBackOn }),
    },
  });
  const fraction = wanted.read ?? 0;
  const after =
    fraction > 0
      ? itemKind.apply(chosen, {
          type: 'progress',
          id,
          itemId: id,
          stamp: stamp(NOW - (wanted.lastInDaysAgo ?? 1) * DAY),
          furthest: fraction,
          position: { block: 0, char: 0, offset: 1, quote: '', before: '', fraction },
          heard: wanted.heard ?? [],
        })
      : chosen;
  if (!after) throw new Error('not made');
  return after;
}

describe('what to go on with', () => {
  it('is what was begun, the latest first; not what is unread, finished or put away', () => {
    const [older, newer] = [item({ read: 0.3, lastInDaysAgo: 5 }), item({ read: 0.1, lastInDaysAgo: 1 })];
    const others = [item(), item({ read: 1, finishedDaysAgo: 1 }), item({ read: 0.2, stage: 'let-go' })];
    expect(toGoOnWith([older, ...others, newer])).toEqual([newer, older]);
  });

  it('knows whether eyes or ears stopped there', () => {
    expect(stoppedBy(item({ read: 0.4, heard: [[210, 400]] }))).toBe('ears');
    expect(stoppedBy(item({ read: 0.6, heard: [[210, 400]] }))).toBe('eyes');
  });
});

describe('what may go into a slot', () => {
  it('takes the minutes that are left, by eye as the page is long, by ear as the voice is fast', () => {
    const half = item({ read: 0.5 });
    expect(slotCandidates([half], 'eyes', 1, () => true)[0]).toMatchObject({ minutes: 5, begun: true });
    expect(slotCandidates([half], 'ears', 1, () => true)[0]?.minutes).toBeCloseTo(5, 5);
    expect(slotCandidates([half], 'ears', 2, () => true)[0]?.minutes).toBeCloseTo(2.5, 5);
  });

  it('takes only so much of its minutes as is new, where the reader passes over the rest', () => {
    const half = item({ read: 0.5 });
    const newShareOf = (id: string) => (id === half.id ? 0.4 : 1);
    expect(slotCandidates([half, item()], 'eyes', 1, () => true, { newShareOf }).map(({ minutes }) => minutes)).toEqual(
      [2, 10],
    );
  });

  it('can put a long text down at its headings, from where the reader is', () => {
    const long = item({ read: 0.2 });
    if (long.capture.page) long.capture.page.minutes = 50;
    const parts = () => [0.1, 0.25, 0.5, 0.98];
    const stops = slotCandidates([long], 'eyes', 1, () => true, { partsOf: parts })[0]?.stops;
    // One is too near, one leaves too little.
    expect(stops).toHaveLength(1);
    expect(stops?.[0]).toBeCloseTo(15);
    // What is short is read in one go.
    expect(slotCandidates([item()], 'ears', 2, () => true, { partsOf: parts })[0]?.stops).toBeUndefined();
  });

  it('is in the order of the Queue, and for ears only what a voice can read', () => {
    const [second, first] = [item({ rank: 2 }), item({ rank: 1, language: 'ja' })];
    const canRead = (language: string | null) => language === 'en';
    expect(slotCandidates([second, first], 'eyes', 1, canRead).map(({ id }) => id)).toEqual([first.id, second.id]);
    expect(slotCandidates([second, first], 'ears', 1, canRead).map(({ id }) => id)).toEqual([second.id]);
  });
});

describe('what comes back', () => {
  it('is due by its day until the reader has been in it', () => {
    const due = item({ comeBackOn: '2026-11-24', stage: 'kept' });
    const later = item({ comeBackOn: '2026-11-25' });
    const done = item({ comeBackOn: '2026-11-20', read: 0.2, lastInDaysAgo: 1 });
    expect(dueToday([done, later, due], '2026-11-24', dayOf)).toEqual([due]);
  });

  it('is lifted from the Queue only, and not what is on screen anyway', () => {
    const [queued, onScreen] = [item(), item()];
    const others = [item({ stage: 'kept' }), item({ read: 1, finishedDaysAgo: 2 }), item({ stage: 'inbox' })];
    expect(resurfaceable([queued, onScreen, ...others], new Set([onScreen.id]))).toEqual([queued]);
  });

  it('is judged by what the item says of itself', () => {
    expect(asCandidate(item({ read: 0.4 }), { nearness: 0.2, nearTo: 1 }, dayOf)).toMatchObject({
      savedOn: '2026-10-05',
      queuedOn: '2026-10-06',
      passed: 0.4,
      minutesLeft: 6,
      nearness: 0.2,
      nearTo: 1,
      promisedFor: null,
    });
  });

  it('looks at what was finished in the last month', () => {
    const [lately, longAgo] = [item({ finishedDaysAgo: 20 }), item({ finishedDaysAgo: 60 })];
    expect(latelyFinished([lately, longAgo, item()], NOW)).toEqual([lately.id]);
  });
});
