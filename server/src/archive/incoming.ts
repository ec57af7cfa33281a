import { createWriteStream } from 'node:fs';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { MadeFiles } from '../files/made-files';
import { NotAnArchive, type OpenArchive, openArchive } from './read';

/** So long an archive waits to be brought in after it was sent. */
const WAITS_MS = 60 * 60 * 1000;
const FOLDER = 'incoming';

/**
 * Archives that readers have sent and not brought in yet, one for each.
 *
 * @param mostBytes no archive may be larger
 */
export function incomingArchives(files: MadeFiles, mostBytes: number, now: () => number) {
  const nameOf = (accountId: string) => `${FOLDER}/${accountId}.zip`;
  return {
    /** Keeps what is sent. @throws NotAnArchive when it is too large; nothing of it is kept then */
    async keep(accountId: string, sent: Readable): Promise<void> {
      let size = 0;
      const counted = new Transform({
        transform(chunk: Buffer, _encoding, done) {
          size += chunk.length;
          done(size > mostBytes ? new NotAnArchive('too-large') : null, chunk);
        },
      });
      // The one before is not what is meant any more, whatever becomes of this one.
      await files.remove(nameOf(accountId));
      await files.make(nameOf(accountId), (file) => pipeline(sent, counted, createWriteStream(file, { mode: 0o600 })));
    },
    /** Opens what was sent; null when nothing waits. @throws NotAnArchive */
    async open(accountId: string): Promise<OpenArchive | null> {
      const lent = await files.borrow(nameOf(accountId));
      if (!lent) return null;
      try {
        const archive = await openArchive(lent.file);
        return {
          ...archive,
          async close() {
            await archive.close();
            await lent.giveBack();
          },
        };
      } catch (error) {
        await lent.giveBack();
        throw error;
      }
    },
    forget: (accountId: string) => files.remove(nameOf(accountId)),
    /** Takes away what nobody has brought in. */
    forgetOld: () => files.removeAll(FOLDER, now() - WAITS_MS),
  };
}
export type IncomingArchives = ReturnType<typeof incomingArchives>;
