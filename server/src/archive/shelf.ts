import { mkdir, open, readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Account } from '@dorvel/core/model';
import { eq } from 'drizzle-orm';
import type { Database } from '../db/open';
import { accounts } from '../db/schema';
import { removeOld } from '../files/made-files';
import type { ArchiveMaker } from './maker';

/** An archive, whole or in the making. */
export interface Archive {
  /** Tells it from every other: two with the same tag are alike, byte for byte. */
  etag: string;
  /** Milliseconds since 1970. */
  madeAt: number;
  /** Its size in bytes, when it is whole. @throws what kept it from becoming so */
  whole: Promise<number>;
  /**
   * Its bytes as they come; ends with the archive.
   *
   * @param start the first byte, from 0
   */
  bytesFrom(start: number): AsyncGenerator<Uint8Array>;
}

/** So long an archive is kept after it was made, so that a download that broke off can go on. */
const KEPT_MS = 60 * 60 * 1000;
const CHUNK_BYTES = 256 * 1024;
/** Who has read all that is written looks again after this. */
const LOOK_AGAIN_MS = 20;

interface ShelfParts {
  database: Database;
  maker: ArchiveMaker;
  /** Of its own. Other processes of the same library may have theirs in it. */
  folder: string;
  now(): number;
}

/**
 * Archives that readers take along: each is written to a file, and sent from there while it is written, so that whoever loses
 * the connection can go on where they were. One of a library that has not changed meanwhile is not made again.
 */
export function archiveShelf({ database, maker, folder, now }: ShelfParts) {
  const kept = new Map<string, { sequence: number; archive: Promise<Archive> }>();
  // What a process left that was ended; what another has just made is not ours to take away.
  const swept = removeOld(folder, now() - 2 * KEPT_MS).then(() => mkdir(folder, { recursive: true }));

  async function begin(account: Account, name: string, forget: () => void): Promise<Archive> {
    await swept;
    const madeAt = now();
    const file = path.join(folder, `${account.id} ${name}.zip`);
    await (await open(file, 'w', 0o600)).close();
    let isWhole = false;
    const make = async () => {
      const size = await maker.make(account, file, madeAt);
      isWhole = true;
      return size;
    };
    const putAway = () => {
      forget();
      return rm(file, { force: true });
    };
    const whole = make();
    whole.then(
      () => setTimeout(() => void putAway(), KEPT_MS).unref(),
      () => void putAway(),
    );
    return {
      etag: `"${name}"`,
      madeAt,
      whole,
      async *bytesFrom(start) {
        const handle = await open(file);
        try {
          for (let at = start; ;) {
            const wasWhole = isWhole;
            const { bytesRead, buffer } = await handle.read(Buffer.alloc(CHUNK_BYTES), 0, CHUNK_BYTES, at);
            at += bytesRead;
            if (bytesRead > 0) yield buffer.subarray(0, bytesRead);
            else if (wasWhole) return;
            else await Promise.race([whole, sleep(LOOK_AGAIN_MS)]);
          }
        } finally {
          await handle.close();
        }
      },
    };
  }

  return {
    /** The archive of a library as it is now: the one that was made last, unless something has changed since. */
    async of(account: Account): Promise<Archive> {
      const [row] = await database.read
        .select({ sequence: accounts.sequence })
        .from(accounts)
        .where(eq(accounts.id, account.id));
      const sequence = row?.sequence ?? 0;
      const known = kept.get(account.id);
      if (known?.sequence === sequence) return known.archive;
      const made = {
        sequence,
        archive: begin(account, `${sequence}-${now()}`, () => {
          if (kept.get(account.id) === made) kept.delete(account.id);
        }),
      };
      kept.set(account.id, made);
      made.archive.catch(() => kept.delete(account.id));
      return made.archive;
    },

    /** Takes away what was made for an account. */
    async forget(accountId: string): Promise<void> {
      kept.delete(accountId);
      await swept;
      const mine = (await readdir(folder)).filter((name) => name.startsWith(`${accountId} `));
      for (const name of mine) await rm(path.join(folder, name), { force: true });
    },
  };
}
export type ArchiveShelf = ReturnType<typeof archiveShelf>;
