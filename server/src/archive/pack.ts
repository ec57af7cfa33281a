import { once } from 'node:events';
import { PassThrough, Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { ZipFile } from 'yazl';

/** Something in an archive, as it is made. Pictures are packed already. */
export interface ArchiveFile {
  name: string;
  isPacked?: boolean;
  content: AsyncIterable<string | Uint8Array> | Iterable<string | Uint8Array>;
}

/** Gives a stream when it is asked for, and lets it go: the packer remembers its files, and with them what they were read from. */
function givenOnce(stream: Readable): (give: (error: unknown, stream: Readable) => void) => void {
  let held: Readable | null = stream;
  return (give) => {
    const taken = held;
    held = null;
    if (taken) give(null, taken);
  };
}

/**
 * Packs files as they are made (ZIP, PKWARE APPNOTE 6.3.10; ZIP64 where there are many): each is asked for when the one before
 * has been taken, and no faster than what is packed is read.
 *
 * @param madeAt milliseconds since 1970: the time that all files have
 * @returns the archive's bytes; destroying it ends the making
 */
export function packed(files: AsyncIterable<ArchiveFile>, madeAt: number): Readable {
  const zip = new ZipFile();
  const bytes = zip.outputStream.pipe(new PassThrough());
  const fail = (error: unknown) => bytes.destroy(error instanceof Error ? error : new Error(String(error)));
  zip.on('error', fail);
  const gone = new AbortController();
  void once(bytes, 'close').then(
    () => gone.abort(),
    () => gone.abort(),
  );
  const add = async () => {
    for await (const { name, isPacked, content } of files) {
      if (gone.signal.aborted) return;
      const from = Readable.from(content);
      zip.addReadStreamLazy(name, { mtime: new Date(madeAt), mode: 0o100644, compress: !isPacked }, givenOnce(from));
      await finished(from, { signal: gone.signal }).finally(() => from.destroy());
    }
    zip.end();
  };
  void add().catch((error: unknown) => {
    if (!gone.signal.aborted) fail(error);
  });
  return bytes;
}
