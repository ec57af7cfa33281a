import type { Activity, Item } from '../model';
import { isDue } from '../queue';
import { addDays, beginSession, daysBetween, hearOn, mondayOf, mostlyHeard, moveOn, weekByWeek } from '../reading';
import { newItem } from '../records';

const ID = '01900000-0000-7000-8000-000000000001';
const item = (savedOn: string, finishedOn: string | null = null, heard: Item['progress']['heard'] = []): Item => {
  const made = newItem({
    type: 'save',
    id: ID,
    itemId: ID,
    address: 'https://example.org/',
    savedAt: Date.parse(`${savedOn}T12:00Z`),
    stamp: '000000001-0000-a',
  });
  return {
    ...made,
    choices: {
      ...made.choices,
      finishedAt: { value: finishedOn ? Date.parse(`${finishedOn}T12:00Z`) : null, at: '000000001-0000-a' },
    },
    progress: { ...made.progress, furthest: finishedOn ? 1 : 0, heard },
  };
};
const dayOf = (instant: number) => new Date(instant).toISOString().slice(0, 10);

describe('days', () => {
  it('count across months, leap years and the change of clocks', () => {
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2);
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(addDays('2026-12-31', 1)).toBe('2027-01-01');
  });

  it('belong to weeks that begin on Monday (ISO 8601)', () => {
    expect(['2026-11-23', '2026-11-24', '2026-11-29', '2026-11-30'].map(mondayOf)).toEqual([
      '2026-11-23',
      '2026-11-23',
      '2026-11-23',
      '2026-11-30',
    ]);
  });
});

describe('a sitting', () => {
  const start = beginSession({ id: ID, itemId: ID, day: '2026-11-24', by: 'eyes' }, 0, 0);

  it('counts time and words while signs of life come', () => {
    const later = moveOn(moveOn(start, 60_000, 200) ?? start, 90_000, 300);
    expect(later?.activity).toMatchObject({ seconds: 90, words: 300 });
  });

  it('counts little of a long silence, and ends with a very long one', () => {
    expect(moveOn(start, 10 * 60_000, 100)?.activity.seconds).toBe(30);
    expect(moveOn(start, 60 * 60_000, 100)).toBeNull();
  });

  it('counts no words that were skimmed, gone back over or jumped', () => {
    expect(moveOn(start, 1000, 900)?.activity.words).toBe(0);
    const back = moveOn(moveOn(start, 60_000, 200) ?? start, 70_000, 100);
    expect(back?.activity.words).toBe(200);
  });

  it('counts what was heard as it was heard', () => {
    expect(hearOn(hearOn(start, 5000, 4.5, 12), 9000, 4, 10).activity).toMatchObject({
      seconds: 8.5,
      words: 22,
    });
  });
});

describe('week by week', () => {
  const activity = (day: string, by: Activity['by'], minutes: number): Activity => ({
    id: ID,
    itemId: ID,
    startedAt: 0,
    day,
    by,
    seconds: minutes * 60,
    words: 100,
  });

  it('tells what came in, what was read and heard, and the minutes', () => {
    const weeks = weekByWeek(
      [item('2026-11-10'), item('2026-11-16', '2026-11-24'), item('2026-11-23', '2026-11-24', [[0, 800]])],
      [activity('2026-11-23', 'eyes', 20), activity('2026-11-29', 'ears', 5), activity('2026-11-15', 'eyes', 9)],
      '2026-11-24',
      3,
      dayOf,
    );
    expect(weeks).toEqual([
      { startsOn: '2026-11-09', cameIn: 1, read: 0, heard: 0, minutesByEyes: 9, minutesByEars: 0 },
      { startsOn: '2026-11-16', cameIn: 1, read: 0, heard: 0, minutesByEyes: 0, minutesByEars: 0 },
      { startsOn: '2026-11-23', cameIn: 1, read: 1, heard: 1, minutesByEyes: 20, minutesByEars: 5 },
    ]);
  });

  it('leaves out what lies before', () => {
    const [only] = weekByWeek([item('2020-01-01')], [activity('2020-01-01', 'eyes', 3)], '2026-11-24', 1, dayOf);
    expect(only).toMatchObject({ cameIn: 0, minutesByEyes: 0 });
  });

  it('takes for heard what went by ear for the most part', () => {
    expect(mostlyHeard(item('2026-11-01', '2026-11-02', [[0, 400]]))).toBe(false);
    expect(mostlyHeard(item('2026-11-01', '2026-11-02', [[0, 600]]))).toBe(true);
  });
});

describe('a day to come back on', () => {
  const promised = (day: string | null, stage: Item['choices']['stage']['value'] = 'kept'): Item => {
    const made = item('2026-11-01');
    return {
      ...made,
      choices: {
        ...made.choices,
        stage: { value: stage, at: '000000002-0000-a' },
        comeBackOn: { value: day, at: '000000002-0000-a' },
      },
    };
  };
  it('is due from that day on, until the reader has been in it', () => {
    expect(isDue(promised('2026-11-25'), '2026-11-24', null)).toBe(false);
    expect(isDue(promised('2026-11-24'), '2026-11-24', '2026-11-20')).toBe(true);
    expect(isDue(promised('2026-11-20'), '2026-11-24', '2026-11-21')).toBe(false);
    expect(isDue(promised(null), '2026-11-24', null)).toBe(false);
  });
  it('is none for what was let go', () => {
    expect(isDue(promised('2026-11-24', 'let-go'), '2026-11-24', null)).toBe(false);
  });
});
