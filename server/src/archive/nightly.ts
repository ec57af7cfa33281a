import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Account, NightlyArchive } from '@dorvel/core/model';
import { differenceInCalendarDays, format } from 'date-fns';
import type { Logger } from 'pino';
import type { Database } from '../db/open';
import { accounts } from '../db/schema';
import type { ArchiveMaker } from './maker';

interface NightlyParts {
  database: Database;
  maker: ArchiveMaker;
  /** Where they are written: a folder for each account, a file for each day. Null for none. */
  folder: string | null;
  /** So many days each is kept; the last one always. */
  keptDays: number;
  /** The hour of the server's day from which on the day's archive is made, 0 to 23. */
  hour: number;
  now(): number;
  log: Pick<Logger, 'info' | 'error'>;
}

const DAY_FILE = /^\d{4}-\d{2}-\d{2}\.zip$/;

/** Archives that are written each night, so that there is a backup that needs no Dorvel to be read. */
export function nightlyArchives({ database, maker, folder, keptDays, hour, now, log }: NightlyParts) {
  const stuck = new Set<string>();
  /** By its mail address, for whoever looks into the folder; the end of its id tells two apart. */
  const folderOf = ({ id, mail }: Account) =>
    path.join(folder ?? '', `${mail.replace(/[^a-z0-9.@-]+/gi, '-')} ${id.slice(-8)}`);
  const daysIn = async (of: string) => {
    const names = await readdir(of).catch(() => []);
    return names.filter((name) => DAY_FILE.test(name)).sort();
  };

  async function makeOne(account: Account, day: string): Promise<void> {
    const into = folderOf(account);
    await mkdir(into, { recursive: true, mode: 0o700 });
    const known = await daysIn(into);
    if (known.includes(`${day}.zip`)) return;
    const unfinished = path.join(into, `${day}.unfinished`);
    try {
      await maker.make(account, unfinished, now());
      await rename(unfinished, path.join(into, `${day}.zip`));
    } finally {
      await rm(unfinished, { force: true });
    }
    for (const name of known)
      if (differenceInCalendarDays(day, name.slice(0, day.length)) >= keptDays) await rm(path.join(into, name));
  }

  return {
    /** Makes the archives of the day that are due and not there yet, one after the other. */
    async makeDue(): Promise<void> {
      if (folder === null || new Date(now()).getHours() < hour) return;
      const day = format(now(), 'yyyy-MM-dd');
      const all = await database.read
        .select({ id: accounts.id, mail: accounts.mail, name: accounts.name })
        .from(accounts);
      for (const account of all)
        try {
          await makeOne(account, day);
          stuck.delete(account.id);
        } catch (error) {
          stuck.add(account.id);
          log.error({ err: error, account: account.id }, 'the archive of the night was not written');
        }
    },

    /** Takes an account's away. */
    async forget(account: Account): Promise<void> {
      stuck.delete(account.id);
      if (folder !== null) await rm(folderOf(account), { recursive: true, force: true });
    },

    /** What there is of an account's. */
    async of(account: Account): Promise<NightlyArchive> {
      if (folder === null) return { nightly: null };
      const into = folderOf(account);
      const last = (await daysIn(into)).at(-1);
      const about = last ? await stat(path.join(into, last)) : null;
      return {
        nightly: {
          lastAt: about ? Math.round(about.mtimeMs) : null,
          bytes: about?.size ?? null,
          keptDays,
          isStuck: stuck.has(account.id),
        },
      };
    },
  };
}
export type NightlyArchives = ReturnType<typeof nightlyArchives>;
