import type { Fact, Item, PageFacts } from '../model';
import { newItem } from '../records';
import { dossierFrom, entryFrom, pageFrom, uuid } from '../testing';
import { valueInWords } from '../wording';
import { compareValues, compileDossier, type FactsTable, factsTable, writtenValue } from '.';

const DOSSIER = uuid(1);
const price = (amount: number, currency: string | null, of = 'Engine'): Fact => ({
  about: 'product',
  of,
  key: 'offers.price',
  value: { type: 'money', amount, currency },
  source: 'json-ld',
});
function itemWith(n: number, page: Partial<PageFacts>): Item {
  const made = newItem({
    id: uuid(n),
    stamp: '000000001-0000-a',
    type: 'save',
    itemId: uuid(n),
    address: `https://x.example/${n}`,
    savedAt: n,
  });
  return { ...made, capture: { ...made.capture, page: pageFrom(page) } };
}

function tableOf(
  items: readonly Item[],
  { columns = {}, cells = [] as Record<string, string | null>[] } = {},
): FactsTable {
  const dossier = dossierFrom({ id: DOSSIER, columns });
  const entries = items.map((item, n) =>
    entryFrom({
      id: uuid(50 + n),
      dossierId: DOSSIER,
      part: { kind: 'item', itemId: item.id },
      rank: `a${n}`,
      cells: cells[n] ?? {},
    }),
  );
  const compiled = compileDossier(dossier, entries, {
    item: (id) => items.find((item) => item.id === id),
    highlight: () => undefined,
    note: () => undefined,
    found: () => [],
  });
  return factsTable(dossier, compiled, entries);
}

const shown = ({ columns, rows }: FactsTable) =>
  rows.map(({ cells }) =>
    columns
      .filter(({ hidden }) => !hidden)
      .map(({ key }) => {
        const cell = cells.get(key);
        return cell ? valueInWords(cell.value) : null;
      }),
  );

it('lays side by side what pages state, and leaves a place empty where one states nothing', () => {
  const table = tableOf([
    itemWith(2, { title: 'Engine', facts: [price(480, 'EUR')] }),
    itemWith(3, {
      title: 'Oar',
      facts: [{ ...price(0, null, 'Oar'), key: 'brand', value: { type: 'text', text: 'Brack' } }],
    }),
  ]);
  expect(table.columns.filter(({ hidden }) => !hidden).map(({ title }) => title)).toEqual(['Price', 'Brand']);
  expect(shown(table)).toEqual([
    ['€480.00', null],
    [null, 'Brack'],
  ]);
});

it('of a page with several things takes the one that its title is of', () => {
  const facts = [price(9, 'EUR', 'Cold-weather gloves'), price(480, 'EUR', 'Quiet electric engine')];
  const [row] = tableOf([itemWith(2, { title: 'Quiet electric engine, 4 kW', facts })]).rows;
  expect(row?.cells.get('offers.price')).toMatchObject({
    value: { amount: 480 },
    of: 'Quiet electric engine',
    source: 'json-ld',
  });
});

it('says what the reader put right, and what the page states instead', () => {
  const items = [itemWith(2, { title: 'Engine', facts: [price(480, 'EUR')] })];
  const columns = { 'own-1': { title: 'Noise', hidden: false } };
  const [row] = tableOf(items, { columns, cells: [{ 'offers.price': '455', 'own-1': '62 dB' }] }).rows;
  expect(row?.cells.get('offers.price')).toEqual({
    value: { type: 'money', amount: 455, currency: 'EUR' },
    source: 'reader',
    of: null,
    stated: { type: 'money', amount: 480, currency: 'EUR' },
  });
  expect(row?.cells.get('own-1')).toMatchObject({ value: { type: 'text', text: '62 dB' }, source: 'reader' });
  // Taken back, the page speaks again.
  expect(tableOf(items, { cells: [{ 'offers.price': null }] }).rows[0]?.cells.get('offers.price')).toMatchObject({
    source: 'json-ld',
  });
});

it('keeps currencies as they are: the cheapest of each, one currency after the other', () => {
  const values = [price(20, 'GBP'), price(100, 'EUR'), price(5, 'EUR'), price(3, null)].map(({ value }) => value);
  expect([...values].sort(compareValues).map(valueInWords)).toEqual(['3', '€5.00', '€100.00', '£20.00']);
});

it.each([
  ['12', { type: 'number', number: 12, outOf: null }],
  ['12 EUR', { type: 'money', amount: 12, currency: 'EUR' }],
  ['2026-12-01', { type: 'date', date: '2026-12-01' }],
  ['12 to 15', { type: 'text', text: '12 to 15' }],
  ['=1+1', { type: 'text', text: '=1+1' }],
])('what the reader writes is a number only when it is one: %s', (written, value) => {
  expect(writtenValue(written, undefined)).toEqual(value);
});

it('where no page states facts, tells what is known of any page', () => {
  const table = tableOf([itemWith(2, { siteName: 'The Slipway', minutes: 7.4, publishedAt: '2026-03-02' })]);
  expect(shown(table)).toEqual([['2 March 2026', 'The Slipway', '7']]);
});
