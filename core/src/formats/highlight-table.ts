import { notesUnder, noteText } from '../notes';
import { titleOf } from '../wording';
import type { HighlightedItem } from './highlights';
import { writeTable } from './table';

/** The columns of a table of highlights. */
export const HIGHLIGHT_COLUMNS = ['quotation', 'kind', 'note', 'title', 'address', 'date'] as const;

/**
 * Highlights as CSV (RFC 4180), one a row, each with its source and what was written on it. What was written on an item alone
 * is a row without a quotation.
 */
export function highlightsAsCsv(marked: readonly HighlightedItem[]): string {
  const data = marked.flatMap((each) => {
    const row = (quotation: string, kind: string, notes: readonly string[], madeAt: number) => [
      quotation,
      kind,
      notes.filter(Boolean).join('\n\n'),
      titleOf(each.item),
      each.item.address,
      new Date(madeAt).toISOString(),
    ];
    const onItem = notesUnder(each, null);
    return [
      ...each.highlights.map(({ id, madeAt, choices }) =>
        row(choices.passage.value.exact, choices.kind.value, notesUnder(each, id).map(noteText), madeAt),
      ),
      ...(onItem[0] ? [row('', '', onItem.map(noteText), onItem[0].madeAt)] : []),
    ];
  });
  return writeTable(HIGHLIGHT_COLUMNS, data);
}
