import type { Item } from '@dorvel/core/model';
import { useRef } from 'react';
import { asRow, type ListRow, rowsAfter, rowsOf, type SortOrder } from './headed';

interface Made {
  items: readonly Item[];
  order: SortOrder | null;
  rows: readonly ListRow[];
}

/** The rows of a list, under headings in its order; null for an order without any. The same ones as long as they stand for the same items. */
export function useRows(items: readonly Item[], order: SortOrder | null): readonly ListRow[] {
  const last = useRef<Made | null>(null);
  const before = last.current;
  if (before?.items === items && before.order === order) return before.rows;
  const isByPlace = order === 'saved' || order === null;
  const inPlace = before?.order === order && isByPlace ? rowsAfter(before.rows, before.items, items) : null;
  const rows = inPlace ?? (order === null ? items.map(asRow) : rowsOf(items, order));
  last.current = { items, order, rows };
  return rows;
}
