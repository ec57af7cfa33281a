import type { FactCell } from '@dorvel/core/dossier';
import { type HandedOn, oneLine, shownItems, webAddress } from '@dorvel/core/formats';
import type { FactValue, Item } from '@dorvel/core/model';
import { sourceOf, titleOf, valueInWords } from '@dorvel/core/wording';
import ExcelJS from 'exceljs';

/** A cell holds so many characters (Office Open XML; Excel's specifications and limits, Microsoft). */
const MAX_CELL = 32_000;

/**
 * The facts of a dossier as a spreadsheet (Office Open XML, ECMA-376): numbers, money and dates as what they are, titles leading
 * to their pages, and a second sheet that says where each cell is from. A text stays a text: none is taken for a formula.
 */
export async function spreadsheet({ compiled, table, owner, updatedAt }: HandedOn): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  book.title = oneLine(compiled.title);
  book.creator = owner === null ? 'Dorvel' : oneLine(owner);
  book.created = new Date(updatedAt);
  const columns = table?.columns.filter(({ hidden }) => !hidden) ?? [];
  const rows = table?.rows ?? shownItems(compiled).map((item) => ({ item, cells: new Map<string, FactCell>() }));
  // All columns beside one another on paper, too.
  const pageSetup = { orientation: 'landscape', fitToPage: true, fitToWidth: 1, fitToHeight: 0 } as const;
  const facts = book.addWorksheet('Facts', {
    pageSetup,
    views: [{ state: 'frozen', xSplit: 1, ySplit: 1 }],
  });
  const sources = book.addWorksheet('Where from', { pageSetup });
  for (const sheet of [facts, sources]) {
    sheet.addRow(['Title', 'Source', ...columns.map(({ title }) => text(title))]);
    sheet.getRow(1).font = { bold: true };
    sheet.columns.forEach((column, at) => (column.width = at === 0 ? 42 : 20));
  }
  for (const { item, cells } of rows) {
    const row = facts.addRow([]);
    row.getCell(1).value = titleCell(item);
    row.getCell(2).value = text(sourceOf(item));
    columns.forEach(({ key }, at) => {
      const cell = cells.get(key);
      if (!cell) return;
      const { value, format } = asCell(cell.value);
      row.getCell(at + 3).value = value;
      if (format) row.getCell(at + 3).numFmt = format;
    });
    sources.addRow([text(titleOf(item)), text(sourceOf(item)), ...columns.map(({ key }) => saidBy(cells.get(key)))]);
  }
  return Buffer.from(await book.xlsx.writeBuffer());
}

const text = (words: string): string => oneLine(words).slice(0, MAX_CELL);

function titleCell(item: Item): ExcelJS.CellValue {
  const address = webAddress(item);
  return address === null ? text(titleOf(item)) : { text: text(titleOf(item)), hyperlink: address };
}

function asCell(value: FactValue): { value: ExcelJS.CellValue; format: string | null } {
  switch (value.type) {
    case 'money':
      return {
        value: value.amount,
        format: value.currency ? `#,##0.00 "${value.currency.replace(/"/g, '')}"` : '#,##0.00',
      };
    case 'number':
      return { value: value.number, format: value.outOf === null ? null : `0.0# "of ${value.outOf}"` };
    case 'duration':
      // As a part of a day, which is how spreadsheets reckon time.
      return { value: value.seconds / 86_400, format: '[h]:mm:ss' };
    case 'date': {
      // The day as the page states it, not as it falls in this server's zone.
      const day = new Date(`${value.date.slice(0, 10)}T00:00:00Z`);
      return Number.isNaN(day.getTime())
        ? { value: text(value.date), format: null }
        : { value: day, format: 'yyyy-mm-dd' };
    }
    case 'text':
      return { value: text(value.text), format: null };
  }
}

function saidBy(cell: FactCell | undefined): string {
  if (!cell) return '';
  return cell.stated ? `reader; the page states ${text(valueInWords(cell.stated))}` : cell.source;
}
