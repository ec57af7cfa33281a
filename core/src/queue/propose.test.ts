import type { Fact, Item } from '../model';
import { newItem } from '../records';
import { pageFrom } from '../testing';
import { proposeLettingGo } from './propose';

const TODAY = '2026-11-26';
const NOW = Date.parse(`${TODAY}T12:00Z`);
const DAY = 86_400_000;
const dayOf = (instant: number) => new Date(instant).toISOString().slice(0, 10);
const stamp = (daysAgo: number) => `${(NOW - daysAgo * DAY).toString(36).padStart(9, '0')}-0000-a`;
const event = (key: string, date: string): Fact => ({
  about: 'event',
  of: null,
  key,
  value: { type: 'date', date },
  source: 'json-ld',
});

let made = 0;
function item(
  savedDaysAgo: number,
  more: { choices?: Partial<Item['choices']>; facts?: Fact[]; read?: number } = {},
): Item {
  const id = `01900000-0000-7000-8000-${String(++made).padStart(12, '0')}`;
  const savedAt = NOW - savedDaysAgo * DAY;
  const base = newItem({
    type: 'save',
    id,
    itemId: id,
    address: `https://example.org/${made}`,
    savedAt,
    stamp: stamp(savedDaysAgo),
  });
  return {
    ...base,
    choices: { ...base.choices, ...more.choices },
    progress: { ...base.progress, furthest: more.read ?? 0 },
    capture: { ...base.capture, page: pageFrom({ facts: more.facts ?? [] }) },
  };
}
const passedOver = (times: number) => ({ passedOver: { value: { times, lastOn: '2026-11-20' }, at: stamp(6) } });
const proposed = (items: Item[]) =>
  proposeLettingGo(items, TODAY, dayOf).map(({ item: { id }, because }) => [id, because]);

describe('what might be let go', () => {
  it('is what was never begun for eight weeks, passed over time and again, or over by its date; the clearest first', () => {
    const old = item(80);
    const unwanted = item(30, { choices: passedOver(3) });
    const over = item(20, { facts: [event('startDate', '2026-11-20T19:00'), event('endDate', '2026-11-21')] });
    expect(proposed([old, unwanted, over])).toEqual([
      [over.id, { kind: 'event-past', day: '2026-11-21' }],
      [unwanted.id, { kind: 'passed-over', times: 3 }],
      [old.id, { kind: 'never-begun', days: 80 }],
    ]);
  });

  it.each<[string, Item]>([
    ['has not waited for so long', item(55)],
    ['was passed over twice', item(30, { choices: passedOver(2) })],
    ['is about an event to come', item(20, { facts: [event('startDate', '2026-11-26')] })],
    ['was begun', item(90, { read: 0.1 })],
    ['is to come back on a day', item(90, { choices: { comeBackOn: { value: '2026-12-01', at: stamp(1) } } })],
    ['was decided on lately', item(90, { choices: { stage: { value: 'queue', at: stamp(3) } } })],
    ['is kept', item(90, { choices: { stage: { value: 'kept', at: stamp(80) } } })],
    ['is finished', item(90, { choices: { finishedAt: { value: NOW - 70 * DAY, at: stamp(70) } } })],
  ])('is not what %s', (_, each) => {
    expect(proposed([each])).toEqual([]);
  });

  it('is never more than can be looked through', () => {
    expect(proposed(Array.from({ length: 40 }, () => item(100)))).toHaveLength(12);
  });
});
