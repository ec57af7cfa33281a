import {
  type CellSource,
  compareValues,
  type FactCell,
  type FactRow,
  factsTable,
  ownColumn,
} from '@dorvel/core/dossier';
import type { FactColumn } from '@dorvel/core/model';
import { titleOf, valueInWords } from '@dorvel/core/wording';
import {
  type ColumnDef,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { Link } from 'expo-router';
import { useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { v7 as uuidv7 } from 'uuid';
import { changeDossier, changeEntries } from '@/device/store/dossier-changes';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { Sheet } from '@/ui/sheet';
import type { OpenDossier } from './use-dossier';

const SOURCE_WORDS: Readonly<Record<CellSource, string>> = {
  'json-ld': 'The page states it in its data (JSON-LD).',
  microdata: 'The page states it in its data (microdata).',
  rdfa: 'The page states it in its data (RDFa).',
  meta: 'The page states it in its head (meta).',
  text: 'Read from the words of the page, in a list or table of such facts.',
  page: 'Known of any page.',
  reader: 'You wrote it.',
};

type Asking =
  { kind: 'cell'; row: FactRow; key: string; title: string } | { kind: 'column'; key: string } | { kind: 'new' };

/** What the pages of a dossier state, side by side; the reader's own columns beside it. */
export function FactsView({ open }: { open: OpenDossier }) {
  const { dossier, entries, compiled } = open;
  const table = useMemo(() => factsTable(dossier, compiled, entries), [dossier, compiled, entries]);
  const [sorting, setSorting] = useState<SortingState>([]);
  const [narrow, setNarrow] = useState('');
  const [asking, setAsking] = useState<Asking | null>(null);
  const shown = table.columns.filter(({ hidden }) => !hidden);
  const columns = useMemo(
    () => [
      { id: 'title', header: 'Title', accessorFn: (row: FactRow) => titleOf(row.item) } satisfies ColumnDef<FactRow>,
      ...table.columns
        .filter(({ hidden }) => !hidden)
        .map(({ key, title }): ColumnDef<FactRow> => ({
          id: key,
          header: title,
          accessorFn: ({ cells }) => cells.get(key)?.value,
          // What is missing is no value: it stands last whichever way the rest is put.
          sortUndefined: 'last',
          sortingFn: (a, b) => {
            const [x, y] = [a.original.cells.get(key), b.original.cells.get(key)];
            return x && y ? compareValues(x.value, y.value) : 0;
          },
        })),
    ],
    [table],
  );
  const sheet = useReactTable({
    data: table.rows,
    columns,
    state: { sorting, globalFilter: narrow },
    onSortingChange: setSorting,
    getRowId: ({ entryId }) => entryId,
    globalFilterFn: (row, _column, words: string) => textOf(row.original).includes(words.trim().toLocaleLowerCase()),
    getColumnCanGlobalFilter: () => true,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  if (table.rows.length === 0)
    return (
      <Text className="font-ui text-base text-soft">Items that are put in by themselves stand here, a row each.</Text>
    );
  const close = () => setAsking(null);
  const hidden = table.columns.filter((column) => column.hidden);
  return (
    <View className="gap-[12px]">
      {table.rows.length > 5 && <Field label="Filter" value={narrow} onChangeText={setNarrow} inputMode="search" />}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls sideways is reached by keyboard */}
      <div className="facts-frame" role="region" aria-label="Facts" tabIndex={0}>
        <table className="facts-table">
          <thead>
            <tr>
              {sheet.getFlatHeaders().map((header) => {
                const sorted = header.column.getIsSorted();
                const title = String(header.column.columnDef.header);
                return (
                  <th
                    key={header.id}
                    scope="col"
                    aria-sort={sorted === false ? 'none' : sorted === 'asc' ? 'ascending' : 'descending'}
                  >
                    <button type="button" onClick={header.column.getToggleSortingHandler()}>
                      {title}
                      <span aria-hidden>{sorted === false ? '' : sorted === 'asc' ? ' ↑' : ' ↓'}</span>
                    </button>
                    {header.id !== 'title' && (
                      <button
                        type="button"
                        aria-label={`The column “${title}”`}
                        onClick={() => setAsking({ kind: 'column', key: header.id })}
                      >
                        …
                      </button>
                    )}
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {sheet.getRowModel().rows.map(({ original }) => (
              <tr key={original.entryId}>
                <th scope="row">
                  <Link href={`/library/${original.item.id}`}>{titleOf(original.item)}</Link>
                </th>
                {shown.map(({ key, title }) => (
                  <td key={key}>
                    <Cell
                      cell={original.cells.get(key)}
                      name={`${title} of “${titleOf(original.item)}”`}
                      onPress={() => setAsking({ kind: 'cell', row: original, key, title })}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <View className="flex-row flex-wrap gap-[10px]">
        <Button label="A column of my own…" onPress={() => setAsking({ kind: 'new' })} />
        {hidden.map(({ key, title }) => (
          <Button
            key={key}
            label={`Show “${title}”`}
            onPress={() =>
              void changeDossier(dossier.id, {}, { [key]: { title: titleIn(dossier.columns, key), hidden: false } })
            }
          />
        ))}
      </View>
      {asking?.kind === 'cell' && <CellSheet asking={asking} onClose={close} />}
      {asking?.kind === 'column' && <ColumnSheet open={open} columnKey={asking.key} onClose={close} />}
      {asking?.kind === 'new' && <ColumnSheet open={open} columnKey={null} onClose={close} />}
    </View>
  );
}

const titleIn = (columns: OpenDossier['dossier']['columns'], key: string) => columns[key]?.value.title ?? null;
const textOf = ({ item, cells }: FactRow): string =>
  [titleOf(item), ...[...cells.values()].map(({ value }) => valueInWords(value))].join(' ').toLocaleLowerCase();

function Cell({ cell, name, onPress }: { cell: FactCell | undefined; name: string; onPress(): void }) {
  const words = cell ? valueInWords(cell.value) : 'not stated';
  return (
    <button
      type="button"
      className={`fact-cell ${cell ? '' : 'missing'} ${cell?.source === 'reader' ? 'own' : ''} ${cell?.source === 'text' ? 'read' : ''}`}
      aria-label={`${name}: ${words}`}
      onClick={onPress}
    >
      {cell ? words : '–'}
    </button>
  );
}

function CellSheet({
  asking: { row, key, title },
  onClose,
}: {
  asking: Extract<Asking, { kind: 'cell' }>;
  onClose(): void;
}) {
  const cell = row.cells.get(key);
  const [written, setWritten] = useState(cell ? editable(cell) : '');
  const put = (value: string | null) => {
    onClose();
    void changeEntries([row.entryId], {}, { [key]: value });
  };
  return (
    <Sheet title={`${title} of “${titleOf(row.item)}”`} onClose={onClose}>
      <View className="gap-[12px]">
        <Text className="font-ui text-base text-ink">
          {cell
            ? `${valueInWords(cell.value)}. ${SOURCE_WORDS[cell.source]}`
            : 'The page does not state it, so nothing stands here.'}
          {cell?.of ? ` It says so of “${cell.of}”.` : ''}
        </Text>
        {cell?.stated && (
          <Text className="font-ui text-base text-soft">The page states {valueInWords(cell.stated)}.</Text>
        )}
        <Field
          label="Correct it"
          value={written}
          onChangeText={setWritten}
          onSubmitEditing={() => put(written.trim())}
        />
        <Button label="Keep it" kind="main" disabled={written.trim() === ''} onPress={() => put(written.trim())} />
        {cell?.source === 'reader' && (
          <Button label={cell.stated ? 'Back to what the page states' : 'Empty it'} onPress={() => put(null)} />
        )}
      </View>
    </Sheet>
  );
}

/** A value as it can be written again: a number bare, with its currency where it has one. */
function editable({ value }: FactCell): string {
  if (value.type === 'money') return `${value.amount}${value.currency ? ` ${value.currency}` : ''}`;
  if (value.type === 'number') return String(value.number);
  return value.type === 'date' ? value.date.slice(0, 10) : valueInWords(value);
}

function ColumnSheet({
  open: { dossier },
  columnKey,
  onClose,
}: {
  open: OpenDossier;
  columnKey: string | null;
  onClose(): void;
}) {
  const [title, setTitle] = useState(columnKey === null ? '' : (titleIn(dossier.columns, columnKey) ?? ''));
  const put = (column: FactColumn) => {
    onClose();
    void changeDossier(dossier.id, {}, { [columnKey ?? ownColumn(uuidv7())]: column });
  };
  const named = title.trim().slice(0, 60);
  return (
    <Sheet title={columnKey === null ? 'A column of my own' : 'Column'} onClose={onClose}>
      <View className="gap-[12px]">
        <Field label="What it is called" value={title} onChangeText={setTitle} autoFocus />
        <Button
          label={columnKey === null ? 'Add the column' : 'Keep the name'}
          kind="main"
          disabled={columnKey === null && named === ''}
          onPress={() => put({ title: named === '' ? null : named, hidden: false })}
        />
        {columnKey !== null && (
          <Button label="Hide it" onPress={() => put({ title: titleIn(dossier.columns, columnKey), hidden: true })} />
        )}
      </View>
    </Sheet>
  );
}
