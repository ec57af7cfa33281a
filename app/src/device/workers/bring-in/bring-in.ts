import type { AddressTable, Findings, HighlightFile, TableColumns } from '@dorvel/core/bring-in';
import type { Bookmark } from '@dorvel/core/formats';
import { type Remote, wrap } from 'comlink';

/** A table with what its columns most likely are. */
export interface ReadTable {
  table: AddressTable;
  columns: TableColumns;
}

/** What the worker reads. Where null is answered, a file is something else. */
export interface BringIn {
  bookmarks(file: File): Promise<Bookmark[] | null>;
  chapters(book: File): Promise<Findings>;
  feed(file: File): Promise<Findings | null>;
  highlights(file: File): Promise<HighlightFile>;
  table(text: string): ReadTable | null;
  inTable(table: AddressTable, columns: TableColumns): Findings;
  warc(file: File): Promise<Findings>;
  zip(file: File): Promise<Findings>;
}

/**
 * Reads files from elsewhere beside the app's own thread, which a web archive of hundreds of megabytes would hold up for seconds.
 *
 * @param signal ends it, with what is being read
 * @throws what the reading throws, or an Error when it is ended
 */
export async function readApart<Read>(
  read: (bringIn: Remote<BringIn>) => Promise<Read>,
  signal?: AbortSignal,
): Promise<Read> {
  const worker = new Worker('/workers/bring-in.js', { type: 'module' });
  const { promise: ended, reject } = withResolvers();
  worker.onerror = ({ message }) => reject(new Error(message || 'what reads files could not be started'));
  const stop = () => reject(new Error('stopped'));
  signal?.addEventListener('abort', stop);
  try {
    if (signal?.aborted) throw new Error('stopped');
    return await Promise.race([read(wrap<BringIn>(worker)), ended]);
  } finally {
    signal?.removeEventListener('abort', stop);
    worker.terminate();
  }
}

/** A promise that is never kept, only broken. */
function withResolvers(): { promise: Promise<never>; reject(error: Error): void } {
  let reject: (error: Error) => void = () => undefined;
  const promise = new Promise<never>((_resolve, onBroken) => (reject = onBroken));
  return { promise, reject };
}
