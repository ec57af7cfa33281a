import { createWriteStream } from 'node:fs';
import { mkdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { NotAnArchive, type OpenArchive, openArchive } from './read';

/** So long an archive waits to be brought in after it was sent. */
const WAITS_MS = 60 * 60 * 1000;

/**
 * Archives that readers have sent and not brought in yet, one for each.
 *
 * @param folder of its own, emptied at the start
 * @param mostBytes no archive may be larger
 */
export function incomingArchives(folder: string, mostBytes: number) {
  const emptied = rm(folder, { recursive: true, force: true }).then(() => mkdir(folder, { recursive: true }));
  const fileOf = (accountId: string) => path.join(folder, `${accountId}.zip`);
  const timers = new Map<string, NodeJS.Timeout>();
  const forget = async (accountId: string) => {
    clearTimeout(timers.get(accountId));
    timers.delete(accountId);
    await rm(fileOf(accountId), { force: true });
  };
  return {
    /** Keeps what is sent. @throws NotAnArchive when it is too large; what was kept of it is gone then */
    async keep(accountId: string, sent: Readable): Promise<void> {
      await emptied;
      await forget(accountId);
      let size = 0;
      const counted = new Transform({
        transform(chunk: Buffer, _encoding, done) {
          size += chunk.length;
          done(size > mostBytes ? new NotAnArchive('too-large') : null, chunk);
        },
      });
      try {
        await pipeline(sent, counted, createWriteStream(fileOf(accountId), { mode: 0o600 }));
      } catch (error) {
        await forget(accountId);
        throw error;
      }
      timers.set(accountId, setTimeout(() => void forget(accountId), WAITS_MS).unref());
    },
    /** Opens what was sent; null when nothing waits. @throws NotAnArchive */
    async open(accountId: string): Promise<OpenArchive | null> {
      const file = fileOf(accountId);
      const isThere = await stat(file).then(
        () => true,
        () => false,
      );
      return isThere ? openArchive(file) : null;
    },
    forget,
  };
}
export type IncomingArchives = ReturnType<typeof incomingArchives>;
