import { useDraggable } from '@dnd-kit/core';
import { type Item, tagKey, tagsOf } from '@dorvel/core/model';
import { inMinutes, reasonForTag, sourceOf, titleOf, whenWords } from '@dorvel/core/wording';
import {
  createColumnHelper,
  getCoreRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { type KeyboardEvent, memo, type MouseEvent, useEffect, useMemo, useRef, useState } from 'react';
import { FlatList, View } from 'react-native';
import { useSuggestedTags } from '@/features/tags/item-tags';
import type { Reach, Selection } from './selection';

const column = createColumnHelper<Item>();
const COLUMNS = [
  column.accessor(titleOf, { id: 'title', header: 'Title', sortingFn: 'text' }),
  column.accessor(sourceOf, { id: 'source', header: 'Source', sortingFn: 'text' }),
  column.accessor((item) => item.choices.raisedAt.value, {
    id: 'saved',
    header: 'Saved',
    sortDescFirst: true,
  }),
  column.accessor((item) => item.capture.page?.minutes ?? 0, { id: 'minutes', header: 'Minutes' }),
  column.accessor((item) => tagsOf(item).join(', '), { id: 'tags', header: 'Tags', sortingFn: 'text' }),
];

interface BulkTableProps {
  name: string;
  items: readonly Item[];
  library: readonly Item[];
  selection: Selection;
  onReach(id: string, how: Reach): void;
  /** Told of the rows in the order in which they stand. */
  onOrder(ids: readonly string[]): void;
}

/** Rows to be selected, many at once; only those on screen are made. */
export function BulkTable({ name, items, library, selection, onReach, onOrder }: BulkTableProps) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const data = useMemo(() => [...items], [items]);
  const table = useReactTable({
    data,
    columns: COLUMNS,
    state: { sorting },
    onSortingChange: setSorting,
    getRowId: ({ id }) => id,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const { rows } = table.getRowModel();
  const shown = useMemo(() => rows.map(({ original }) => original), [rows]);
  const ids = useMemo(() => shown.map(({ id }) => id), [shown]);
  useEffect(() => onOrder(ids), [ids, onOrder]);
  const list = useRef<FlatList<Item>>(null);
  const step = (event: KeyboardEvent) => {
    const at = ids.indexOf(selection.at ?? '');
    const to = {
      ArrowDown: at + 1,
      ArrowUp: Math.max(0, at - 1),
      PageDown: at + 10,
      PageUp: at - 10,
      Home: 0,
      End: ids.length - 1,
    }[event.key];
    const isAll = event.key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey);
    if (to === undefined && event.key !== ' ' && !isAll) return;
    event.preventDefault();
    event.stopPropagation();
    const [first, last] = [ids[0], ids.at(-1)];
    if (isAll && first !== undefined && last !== undefined) {
      onReach(first, 'only');
      onReach(last, 'range');
      return;
    }
    const place = to === undefined ? at : Math.min(ids.length - 1, Math.max(0, to));
    const id = ids[place];
    if (id === undefined) return;
    onReach(id, to === undefined ? 'toggle' : event.shiftKey ? 'range' : event.ctrlKey ? 'look' : 'only');
    list.current?.scrollToIndex({ index: place, viewPosition: 0.5, animated: false });
  };
  return (
    // eslint-disable-next-line jsx-a11y/interactive-supports-focus -- its rows take the focus
    <div
      role="grid"
      aria-label={name}
      aria-multiselectable
      aria-rowcount={ids.length + 1}
      className="bulk-table"
      onKeyDown={step}
    >
      <div role="row" className="bulk-row bulk-head">
        <span role="gridcell" />
        {table.getFlatHeaders().map((header) => {
          const sorted = header.column.getIsSorted();
          return (
            <span
              key={header.id}
              role="columnheader"
              aria-sort={sorted === false ? 'none' : sorted === 'asc' ? 'ascending' : 'descending'}
            >
              <button type="button" onClick={header.column.getToggleSortingHandler()}>
                {String(header.column.columnDef.header)}
                <span aria-hidden>{sorted === false ? '' : sorted === 'asc' ? ' ↑' : ' ↓'}</span>
              </button>
            </span>
          );
        })}
        <span role="columnheader">Suggestion</span>
      </div>
      <FlatList
        ref={list}
        data={shown}
        keyExtractor={({ id }) => id}
        initialNumToRender={20}
        getItemLayout={(_, index) => ({ length: ROW, offset: ROW * index, index })}
        extraData={selection}
        renderItem={({ item, index }) => (
          <BulkRow
            item={item}
            library={library}
            index={index}
            chosen={selection.chosen.has(item.id)}
            at={selection.at === null ? index === 0 : selection.at === item.id}
            moved={selection.at === item.id}
            onReach={onReach}
          />
        )}
      />
    </div>
  );
}

/** Height of a row, in points: all are alike, so that any of them can be gone to. */
const ROW = 60;

interface BulkRowProps {
  item: Item;
  /** All items, for the reasons of suggestions. */
  library: readonly Item[];
  index: number;
  chosen: boolean;
  /** The keys come to this row first. */
  at: boolean;
  /** The keys are at this row. */
  moved: boolean;
  onReach(id: string, how: Reach): void;
}

const BulkRow = memo(function BulkRow({ item, library, index, chosen, at, moved, onReach }: BulkRowProps) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: item.id });
  const row = useRef<HTMLDivElement | null>(null);
  useEffect(() => {
    if (moved && row.current?.closest('[role=grid]')?.contains(document.activeElement)) row.current.focus();
  }, [moved]);
  const pressed = (event: MouseEvent) =>
    onReach(item.id, event.shiftKey ? 'range' : event.ctrlKey || event.metaKey ? 'toggle' : 'only');
  return (
    // eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the grid around it listens to keys
    <div
      ref={(element) => {
        row.current = element;
        setNodeRef(element);
      }}
      role="row"
      aria-selected={chosen}
      aria-rowindex={index + 2}
      tabIndex={at ? 0 : -1}
      className="bulk-row"
      data-dragging={isDragging || undefined}
      {...listeners}
      onClick={pressed}
    >
      <span role="gridcell">
        <input
          type="checkbox"
          aria-label={`Select “${titleOf(item)}”`}
          checked={chosen}
          tabIndex={-1}
          onClick={(event) => event.stopPropagation()}
          onChange={() => onReach(item.id, 'toggle')}
        />
      </span>
      <span role="gridcell" className="bulk-title">
        {titleOf(item)}
      </span>
      <span role="gridcell">{sourceOf(item)}</span>
      <span role="gridcell">{whenWords(item.choices.raisedAt.value).replace(/^on /, '')}</span>
      <span role="gridcell">{item.capture.page ? inMinutes(item.capture.page.minutes) : ''}</span>
      <span role="gridcell">{tagsOf(item).join(', ')}</span>
      <Suggestion item={item} items={library} />
    </div>
  );
});

/** The tag that the reader's own use suggests, and why; computed for the rows on screen. */
function Suggestion({ item, items }: { item: Item; items: readonly Item[] }) {
  const own = useMemo(() => new Set(tagsOf(item).map(tagKey)), [item]);
  const [first] = useSuggestedTags(item, items, own);
  return (
    <span role="gridcell" className="bulk-suggestion">
      {first && (
        <View>
          <b>{first.tag}</b>
          <small>{reasonForTag(first, items)}</small>
        </View>
      )}
    </span>
  );
}
