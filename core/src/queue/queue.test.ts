import type { Item } from '../model';
import { minutesLeft } from '../reading';
import { newItem } from '../records';
import { pageFrom } from '../testing';
import { inMinutes, lengthInWords } from '../wording';
import { byQueueOrder, byRaised, daysUnemptied, inStage, moveTo, readingState, saveAgain } from '.';

let made = 0;
const item = (
  changes: {
    stage?: Item['choices']['stage']['value'];
    rank?: number;
    finishedAt?: number | null;
    minutes?: number;
    read?: number;
    furthest?: number;
  } = {},
): Item => {
  const id = `01900000-0000-7000-8000-${String(++made).padStart(12, '0')}`;
  const base = newItem({
    type: 'save',
    id,
    itemId: id,
    address: 'https://example.org/',
    savedAt: made,
    stamp: '000000001-0000-a',
  });
  const at = '000000002-0000-a';
  const fraction = changes.read ?? 0;
  return {
    ...base,
    choices: {
      ...base.choices,
      stage: { value: changes.stage ?? 'inbox', at },
      queueRank: { value: changes.rank ?? 0, at },
      finishedAt: { value: changes.finishedAt ?? null, at },
    },
    progress: {
      furthest: changes.furthest ?? fraction,
      heard: [],
      position: fraction > 0 ? { value: { block: 0, char: 0, offset: 1, quote: '', before: '', fraction }, at } : null,
    },
    capture: {
      ...base.capture,
      page: pageFrom({ minutes: changes.minutes ?? 10, copyId: id }),
    },
  };
};

describe('stages', () => {
  it('shows what was finished and then kept in both lists', () => {
    const both = item({ stage: 'kept', finishedAt: 5 });
    expect([inStage(both, 'kept'), inStage(both, 'finished'), inStage(both, 'queue')]).toEqual([true, true, false]);
    expect(inStage(item({ stage: 'kept' }), 'finished')).toBe(false);
  });

  it('derives the reading state', () => {
    expect([item(), item({ read: 0.4 }), item({ finishedAt: 1 })].map(readingState)).toEqual([
      'unread',
      'reading',
      'finished',
    ]);
  });

  it('puts what is queued at the end, or on top when asked', () => {
    const queue = [item({ stage: 'queue', rank: 4 }), item({ stage: 'queue', rank: -2 })];
    const placed = (place: 'top' | 'end') => {
      const rank = moveTo('queue', queue, 0, place).queueRank ?? 0;
      return [...queue, item({ stage: 'queue', rank })]
        .sort(byQueueOrder)
        .map((each) => each.choices.queueRank.value)
        .indexOf(rank);
    };
    expect([placed('top'), placed('end')]).toEqual([0, 2]);
  });

  it('brings a page that is saved again to the top of where it is, and out of let go', () => {
    const queue = [item({ stage: 'queue', rank: 1 }), item({ stage: 'queue', rank: 2 })];
    expect(saveAgain(queue[1]!, queue, 99)).toEqual({ raisedAt: 99, queueRank: -1 });
    expect(saveAgain(item({ stage: 'let-go' }), queue, 99)).toEqual({ stage: 'inbox', raisedAt: 99 });
    expect(saveAgain(item({ stage: 'finished' }), queue, 99)).toEqual({ raisedAt: 99 });
  });
});

describe('progress in words', () => {
  test.each([
    [item({ minutes: 12 }), '12 min'],
    [item({ minutes: 12, read: 0.4 }), '12 min, 7 left'],
    [item({ minutes: 12, read: 0.1, furthest: 0.9 }), '12 min, 11 left'],
    [item({ minutes: 12, read: 1, finishedAt: 3 }), '12 min, finished'],
    [item({ minutes: 0.2 }), '1 min'],
  ])('%#: %s', (each, words) => {
    expect(lengthInWords(each)).toBe(words);
  });

  it('counts from the loose end, and nothing of what is finished', () => {
    expect(minutesLeft(item({ minutes: 10, read: 0.25, furthest: 0.9 }))).toBeCloseTo(7.5);
    expect(minutesLeft(item({ minutes: 10, read: 0.25, finishedAt: 1 }))).toBe(0);
    expect(inMinutes(0.1)).toBe('1 min');
  });
});

describe('an Inbox that has not been emptied', () => {
  const DAY_MS = 24 * 60 * 60 * 1000;
  it('is spoken of after a week, counted from its oldest thing', () => {
    const old = item();
    const since = Math.max(old.savedAt, old.choices.raisedAt.value, 2);
    expect(daysUnemptied([old], since + 7 * DAY_MS - 1)).toBeNull();
    expect(daysUnemptied([old], since + 7 * DAY_MS)).toBe(7);
    const raised = { ...old.choices, raisedAt: { value: since + 3 * DAY_MS, at: '000000003-0000-a' } };
    expect(daysUnemptied([{ ...old, choices: raised }], since + 9 * DAY_MS)).toBeNull();
    expect(daysUnemptied([old, item()], since + 9 * DAY_MS)).toBe(9);
  });

  it('counts nothing that has been decided on', () => {
    expect(daysUnemptied([item({ stage: 'queue' }), item({ stage: 'let-go' })], 100 * DAY_MS)).toBeNull();
  });

  it('counts what was put back from when it was put back', () => {
    const back = item();
    const choices = {
      ...back.choices,
      stage: { value: 'inbox' as const, at: `${(5 * DAY_MS).toString(36).padStart(9, '0')}-0000-a` },
    };
    expect(daysUnemptied([{ ...back, choices }], 11 * DAY_MS)).toBeNull();
    expect(daysUnemptied([{ ...back, choices }], 12 * DAY_MS)).toBe(7);
  });
});

// ECMA-262, 23.1.3.30: a consistent comparator comes to 0 for a value and itself, and to the opposite the other way about.
it('has orders that are orders', () => {
  const items = [item({ rank: 1 }), item({ rank: 1 }), item({ rank: 2 })];
  for (const by of [byRaised, byQueueOrder])
    for (const one of items)
      for (const other of items)
        expect(Math.sign(by(one, other))).toBe(one === other ? 0 : -Math.sign(by(other, one)) || NaN);
});
