import type { AddressTable, TableColumns, TableField } from '@dorvel/core/bring-in';
import { Text, View } from 'react-native';

const FIELD_WORDS: Readonly<Record<TableField, string>> = {
  address: 'Address',
  title: 'Title',
  tags: 'Tags',
  saved: 'Day of saving',
  read: 'Whether it was read',
  note: 'Note',
};

// Not core's own list of them: it stands in the part that is fetched when a file is read.
const FIELDS = Object.keys(FIELD_WORDS) as TableField[];

interface ColumnsProps {
  table: AddressTable;
  columns: TableColumns;
  onChange(columns: TableColumns): void;
}

/** What the columns of a table are: as they most likely are, and as the reader puts them right. */
export function Columns({ table: { head, rows }, columns, onChange }: ColumnsProps) {
  const example = (place: number) => rows.map((row) => row[place]?.trim() ?? '').find(Boolean) ?? '';
  return (
    <View role="group" aria-label="Columns of the table" className="gap-[8px]">
      <Text className="font-ui text-small font-semibold text-soft">What stands in which column</Text>
      {FIELDS.map((field) => {
        const place = columns[field];
        return (
          <label key={field} className="column-choice">
            <span>{FIELD_WORDS[field]}</span>
            <select
              value={place ?? ''}
              onChange={({ target }) =>
                onChange({ ...columns, [field]: target.value === '' ? null : Number(target.value) })
              }
            >
              {field !== 'address' && <option value="">none</option>}
              {head.map((name, n) => (
                <option key={`${n} ${name}`} value={n}>
                  {name}
                </option>
              ))}
            </select>
            <small>{place === null ? '' : example(place).slice(0, 60)}</small>
          </label>
        );
      })}
    </View>
  );
}
