import { bestAsMarkdown } from '../formats';
import type { Activity, Highlight, Item } from '../model';
import { newItem } from '../records';
import { highlightFrom, pageFrom } from '../testing';
import { periodInWords } from '../wording';
import { isWithin, lookBackOn, periodAfter, periodBefore, periodOf, type Records, subjectsOf } from '.';

const dayOf = (instant: number) => new Date(instant).toISOString().slice(0, 10);
const at = (day: string) => Date.parse(`${day}T12:00Z`);
const STAMP = '000000001-0000-a';
const WEEK = periodOf('week', '2026-11-18');
const TODAY = '2026-11-24';

let made = 0;
const newId = () => `01900000-0000-7000-8000-${String(++made).padStart(12, '0')}`;
function item(
  title: string,
  savedOn: string,
  choices: Partial<{ finishedOn: string; best: string; comeBackOn: string }> = {},
  heard = false,
): Item {
  const id = newId();
  const base = newItem({
    type: 'save',
    id,
    itemId: id,
    address: 'https://example.org/a',
    savedAt: at(savedOn),
    stamp: STAMP,
  });
  const on = (day: string | undefined) => ({ value: day === undefined ? null : at(day), at: STAMP });
  return {
    ...base,
    choices: {
      ...base.choices,
      finishedAt: on(choices.finishedOn),
      best: on(choices.best),
      comeBackOn: { value: choices.comeBackOn ?? null, at: STAMP },
    },
    progress: { furthest: choices.finishedOn ? 1 : 0, position: null, heard: heard ? [[0, 1000]] : [] },
    capture: { ...base.capture, page: pageFrom({ title }) },
  };
}
const sitting = ({ id }: Item, day: string, minutes: number, by: Activity['by'] = 'eyes'): Activity => ({
  id: newId(),
  itemId: id,
  startedAt: at(day),
  day,
  by,
  seconds: minutes * 60,
  words: 100,
});
const highlight = ({ id }: Item, day: string, exact = 'Roots hold sand.'): Highlight =>
  highlightFrom({ id: newId(), itemId: id, madeAt: at(day), passage: { exact } });
const on = (records: Partial<Records>, period = WEEK) =>
  lookBackOn(period, { items: [], activities: [], highlights: [], notes: [], ...records }, TODAY, dayOf);
const titles = (items: readonly Item[]) => items.map(({ capture }) => capture.page?.title);

describe('periods', () => {
  it('are weeks from Monday to Sunday, and months of their length, one behind the other', () => {
    expect(WEEK).toEqual({ kind: 'week', from: '2026-11-16', to: '2026-11-22' });
    expect(periodOf('month', '2028-02-10')).toEqual({ kind: 'month', from: '2028-02-01', to: '2028-02-29' });
    expect(periodOf('month', '2026-12-31').to).toBe('2026-12-31');
    expect(periodBefore(periodOf('month', '2026-03-31'))).toEqual(periodOf('month', '2026-02-01'));
    for (const period of [WEEK, periodOf('month', TODAY)]) expect(periodAfter(periodBefore(period))).toEqual(period);
    expect(['2026-11-15', '2026-11-16', '2026-11-22', '2026-11-23'].map((day) => isWithin(WEEK, day))).toEqual([
      false,
      true,
      true,
      false,
    ]);
    const named = [WEEK, periodOf('week', '2026-01-01'), periodOf('month', TODAY)];
    expect(named.map((period) => periodInWords(period, TODAY))).toEqual([
      'Week of 16 November',
      'Week of 29 December 2025',
      'November 2026',
    ]);
  });
});

describe('a look-back', () => {
  it('tells what came in, what was read and heard, and the time that it took, within its days alone', () => {
    const items = [
      item('before', '2026-11-15'),
      item('within', '2026-11-16'),
      item('read', '2026-11-01', { finishedOn: '2026-11-22' }),
      item('heard', '2026-11-17', { finishedOn: '2026-11-18' }, true),
      item('after', '2026-11-23', { finishedOn: '2026-11-23' }),
    ];
    const activities = [
      sitting(items[2]!, '2026-11-16', 10),
      sitting(items[3]!, '2026-11-18', 20, 'ears'),
      sitting(items[4]!, '2026-11-23', 30),
    ];
    const told = on({ items, activities });
    expect(titles(told.cameIn)).toEqual(['within', 'heard']);
    expect(titles(told.read)).toEqual(['read']);
    expect(titles(told.heard)).toEqual(['heard']);
    expect(titles(told.touched)).toEqual(['read', 'heard']);
    expect(told).toMatchObject({ minutesByEyes: 10, minutesByEars: 20 });
  });

  it('puts first what the reader called one of the best, then what they marked, came back to and finished', () => {
    const chosen = item('chosen', '2026-11-16', { best: '2026-11-19' });
    const marked = item('marked', '2026-11-16');
    const again = item('again', '2026-11-16', { finishedOn: '2026-11-20' });
    const onlyRead = item('only read', '2026-11-16', { finishedOn: '2026-11-20' });
    const other = item('called so in another week', '2026-11-01', { best: '2026-11-09' });
    const told = on({
      items: [onlyRead, again, other, marked, chosen],
      highlights: [1, 2, 3].map(() => highlight(marked, '2026-11-17')),
      activities: ['2026-11-17', '2026-11-18', '2026-11-18'].map((day) => sitting(again, day, 5)),
    });
    expect(told.best.map(({ item: { capture }, reasons }) => [capture.page?.title, reasons])).toEqual([
      ['chosen', [{ kind: 'chosen' }]],
      ['marked', [{ kind: 'highlights', count: 3 }]],
      ['again', [{ kind: 'days', count: 2 }, { kind: 'finished' }]],
    ]);
    expect(told.highlights).toHaveLength(3);
  });

  it('names five at most, but all that the reader named', () => {
    const many = Array.from({ length: 9 }, (_, n) =>
      item(String(n), '2026-11-16', n < 7 ? { best: '2026-11-18' } : {}),
    );
    expect(on({ items: many }).best).toHaveLength(7);
    const marked = many.slice(7).concat(Array.from({ length: 6 }, (_, n) => item(`m${n}`, '2026-11-16')));
    expect(
      on({
        items: marked,
        highlights: marked.flatMap((each) => [
          highlight(each, TODAY),
          highlight(each, '2026-11-17'),
          highlight(each, '2026-11-17'),
        ]),
      }).best,
    ).toHaveLength(5);
  });

  it('tells what was promised and not read', () => {
    const kept = item('kept', '2026-11-01', { comeBackOn: '2026-11-18' });
    const broken = item('broken', '2026-11-01', { comeBackOn: '2026-11-18' });
    const later = item('later', '2026-11-01', { comeBackOn: '2026-11-24' });
    const told = on({ items: [kept, broken, later], activities: [sitting(kept, '2026-11-19', 5)] });
    expect(titles(told.promised)).toEqual(['broken']);
  });

  it('is taken along as Markdown, with its sources and what was marked', () => {
    const one = item('A [sea] wall', '2026-11-16', { best: '2026-11-19' });
    const { best, highlights } = on({ items: [one], highlights: [highlight(one, '2026-11-17', 'It *holds*.')] });
    expect(bestAsMarkdown('Week of 16 November', best, highlights)).toBe(
      '# Week of 16 November\n\n## A \\[sea] wall\n\nexample.org, <https://example.org/a>: you called it one of the best, 1 highlight\n\n> It \\*holds\\*.\n',
    );
  });
});

describe('subjects', () => {
  const item = (id: string, title: string, ...phrases: [key: string, count: number, salience: number][]) => ({
    id,
    profile: {
      title: title.split(' '),
      phrases: phrases.map(([key, count, salience]): [string, string, number, number] => [key, key, count, salience]),
    },
  });

  it('are what several items speak of, or what the title of one names, beside the period before', () => {
    const now = [
      item('a', 'a quiet engine', ['quiet engine', 3, 1], ['harbour board', 2, 0.9], ['passing', 1, 4]),
      item('b', 'louder', ['quiet engine', 1, 0.8], ['eelgrass', 1, 0.7], ['passing', 1, 3]),
      item('c', 'rye bread', ['rye bread', 4, 1], ['tall miller', 1, 5]),
    ];
    const before = [item('d', '', ['rye bread', 2, 1]), item('e', '', ['rye bread', 1, 0.4], ['eelgrass', 1, 0.1])];
    expect(subjectsOf(now, before, 6)).toEqual([
      { form: 'quiet engine', items: ['a', 'b'], before: 0 },
      { form: 'rye bread', items: ['c'], before: 2 },
    ]);
    expect(subjectsOf(now, before, 1)).toHaveLength(1);
  });

  it('are one where terms have a word in common', () => {
    const now = [
      item('a', 'eelgrass meadow', ['eelgrass meadow', 2, 1]),
      item('b', 'eelgrass', ['eelgrass', 3, 0.9]),
      item('c', '', ['eelgrass meadow', 1, 0.5]),
    ];
    expect(subjectsOf(now, [item('d', '', ['eelgrass', 1, 1])], 6)).toEqual([
      { form: 'eelgrass meadow', items: ['a', 'b', 'c'], before: 1 },
    ]);
  });
});
