import { useState } from 'react';
import { Choice } from '@/ui/choice';
import { Columns } from './columns';
import { type SaveList, saveListOfChapters, saveListOfFiles, saveListOfTable } from './files';

interface OfFileProps {
  list: SaveList;
  /** It is to be taken in another way. */
  onTake(read: (signal: AbortSignal) => Promise<SaveList>): void;
}

/** How a file is to be taken, where there is more than one way. */
export function OfFile({ list, onTake }: OfFileProps) {
  return (
    <>
      {list.table && <OfTable list={list} onTake={onTake} />}
      {list.book && <OfBook list={list} onTake={onTake} />}
    </>
  );
}

function OfTable({ list, onTake }: OfFileProps) {
  const [columns, setColumns] = useState(list.table?.columns);
  if (!list.table || !columns) return null;
  const { table } = list.table;
  return (
    <Columns
      table={table}
      columns={columns}
      onChange={(changed) => {
        setColumns(changed);
        onTake((signal) => saveListOfTable(table, changed, signal));
      }}
    />
  );
}

const OF_A_BOOK = [
  { value: 'whole', label: 'As one item' },
  { value: 'chapters', label: 'By its chapters' },
] as const;
type OfABook = (typeof OF_A_BOOK)[number]['value'];

function OfBook({ list: { book }, onTake }: OfFileProps) {
  const [how, setHow] = useState<OfABook>('whole');
  if (!book) return null;
  return (
    <Choice<OfABook>
      name="The e-book"
      options={OF_A_BOOK}
      value={how}
      onChange={(chosen) => {
        setHow(chosen);
        onTake((signal) =>
          chosen === 'chapters' ? saveListOfChapters(book, signal) : saveListOfFiles([book], signal),
        );
      }}
    />
  );
}
