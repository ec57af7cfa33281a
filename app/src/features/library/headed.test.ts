import type { Item } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { pageFrom, uuid } from '@dorvel/core/testing';
import { shownOf } from '@/device/store/shown-items';
import { rowsAfter, rowsOf, type SortOrder } from './headed';
import { itemsOfTab } from './library-view';

interface Wanted {
  title?: string;
  site?: string;
  minutes?: number;
  tags?: readonly string[];
  saved?: string;
}

let made = 0;
function item({ title = 'A', site = 'Tidewater', minutes = 4, tags = [], saved = '2026-11-03' }: Wanted = {}): Item {
  const id = uuid(++made);
  const savedAt = new Date(`${saved}T12:00`).getTime();
  const stamp = `${savedAt.toString(36).padStart(9, '0')}-0000-a`;
  const item = newItem({ type: 'save', id, itemId: id, address: `https://a.example/${made}`, savedAt, stamp });
  item.capture.page = pageFrom({ title, siteName: site, minutes });
  for (const tag of tags) item.tags[tag] = { value: tag, at: stamp };
  return item;
}

const many = (count: number, of: (n: number) => Wanted) => Array.from({ length: count }, (_, n) => item(of(n)));
const shown = (items: readonly Item[]) => shownOf(new Map(items.map((each) => [each.id, each])), {});
const said = (items: readonly Item[], order: SortOrder) =>
  rowsOf(itemsOfTab(shown(items), 'library', { filter: 'all', order }), order).map((row) =>
    row.kind === 'heading' ? `# ${row.title} (${row.count})` : row.item.capture.page?.title,
  );

describe('a list under headings', () => {
  it('is left as it is while it is short', () => {
    expect(said([item({ title: 'B' }), item({ title: 'A' })], 'title')).toEqual(['A', 'B']);
  });

  it('has its months, the newest first, when it is long', () => {
    const items = many(31, (n) => ({ saved: n < 11 ? '2026-01-31' : '2026-03-01' }));
    const headings = said(items, 'saved').filter((each) => each?.startsWith('#'));
    expect(headings).toEqual(['# March 2026 (20)', '# January 2026 (11)']);
  });

  it('has sites by their names', () => {
    const items = [item({ site: 'Slipway' }), item({ site: 'émigré' }), item({ site: 'Almanac', title: 'C' })];
    expect(said(items, 'site')).toEqual(['# Almanac (1)', 'C', '# émigré (1)', 'A', '# Slipway (1)', 'A']);
  });

  it('has an item under each of its tags, and what has none at the end', () => {
    const items = [item({ title: 'both', tags: ['tides', 'boats'] }), item({ title: 'none' })];
    expect(said(items, 'tag')).toEqual(['# boats (1)', 'both', '# tides (1)', 'both', '# Without a tag (1)', 'none']);
    const keys = rowsOf(items, 'tag').map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
  });

  it('has lengths in bands, what has not arrived at the end', () => {
    const items = many(31, (n) => ({ minutes: [4.9, 5, 39, 60][n % 4] ?? 0 }));
    const waiting = item();
    waiting.capture.page = null;
    const headings = said([waiting, ...items], 'length').filter((each) => each?.startsWith('#'));
    expect(headings).toEqual([
      '# Under 5 minutes (8)',
      '# 5 to 10 minutes (8)',
      '# 20 to 40 minutes (8)',
      '# 40 minutes and more (7)',
      '# Length not known yet (1)',
    ]);
  });

  it('has letters without their marks, and figures under one sign', () => {
    const items = many(32, (n) => ({ title: ['Étude', 'echo', '41 crossings', '“Far”'][n % 4] ?? '' }));
    const headings = said(items, 'title').filter((each) => each?.startsWith('#'));
    expect(new Set(headings)).toEqual(new Set(['# # (8)', '# E (16)', '# F (8)']));
  });
});

describe('rows after a change', () => {
  const before = many(40, (n) => ({ title: `T${n}`, saved: n < 20 ? '2026-01-31' : '2026-03-01' }));
  const list = itemsOfTab(shown(before), 'library', { filter: 'all', order: 'saved' });
  const rows = rowsOf(list, 'saved');

  it.each([[0], [19], [20], [39]])('are the same when the one at %i has changed in its place', (at) => {
    const items = list.map((each, n) => (n === at ? { ...each, address: 'https://a.example/other' } : each));
    expect(rowsAfter(rows, list, items)).toBe(rows);
  });

  it('are made anew when one came, went, moved, or has a text at last', () => {
    const first = list[0]!;
    const raised = { ...first, choices: { ...first.choices, raisedAt: { ...first.choices.raisedAt, value: 1 } } };
    const page = { ...first.capture.page!, copyId: uuid(900) };
    const fetched = { ...first, capture: { ...first.capture, page } };
    const rest = list.slice(1);
    const lists = [rest, [raised, ...rest], [...list].reverse(), [fetched, ...rest]];
    expect(lists.map((items) => rowsAfter(rows, list, items))).toEqual([null, null, null, null]);
  });
});
