import { useState } from 'react';
import { Choice } from '@/ui/choice';
import { Columns } from './columns';
import { type SaveList, saveListOfChapters, saveListOfFiles, saveListOfTable } from './files';

interface OfFileProps {
  list: SaveList;
  onChange(list: SaveList): void;
}

/** How a file is to be taken, where there is more than one way. */
export function OfFile({ list, onChange }: OfFileProps) {
  return (
    <>
      {list.table && <OfTable list={list} onChange={onChange} />}
      {list.book && <OfBook list={list} onChange={onChange} />}
    </>
  );
}

function OfTable({ list, onChange }: OfFileProps) {
  const [columns, setColumns] = useState(list.table?.columns);
  if (!list.table || !columns) return null;
  const { table } = list.table;
  return (
    <Columns
      table={table}
      columns={columns}
      onChange={(changed) => {
        setColumns(changed);
        void saveListOfTable(table, changed).then(onChange);
      }}
    />
  );
}

const OF_A_BOOK = [
  { value: 'whole', label: 'As one item' },
  { value: 'chapters', label: 'By its chapters' },
] as const;
type OfABook = (typeof OF_A_BOOK)[number]['value'];

function OfBook({ list: { book }, onChange }: OfFileProps) {
  const [how, setHow] = useState<OfABook>('whole');
  if (!book) return null;
  return (
    <Choice<OfABook>
      name="The e-book"
      options={OF_A_BOOK}
      value={how}
      onChange={(chosen) => {
        setHow(chosen);
        void (chosen === 'chapters' ? saveListOfChapters(book) : saveListOfFiles([book])).then(onChange);
      }}
    />
  );
}
