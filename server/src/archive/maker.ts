import type { Account } from '@dorvel/core/model';
import { Piscina } from 'piscina';
import type { PicturesPlace } from '../files/open';
import type { ArchiveTask } from './make.worker';

/** Makes archives somewhere that is not the requests' thread. */
export interface ArchiveMaker {
  /** Writes the archive of a library into a file. @returns its size in bytes */
  make(account: Account, file: string, madeAt: number): Promise<number>;
  close(): Promise<void>;
}

/** A large library is many texts, one after the other: more memory than for some of them is never needed. */
const MOST_MEGABYTES = 96;

/** A maker over one worker thread: archives wait for one another, and no reader for them. */
export function threadArchiveMaker(
  workerFile: string,
  place: Pick<ArchiveTask, 'databaseUrl' | 'migrationsFolder' | keyof PicturesPlace>,
): ArchiveMaker {
  const pool = new Piscina({
    filename: workerFile,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 5000,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES, maxYoungGenerationSizeMb: 8, stackSizeMb: 8 },
  });
  return {
    make: async (account, file, madeAt) => {
      const task: ArchiveTask = {
        ...{ account: { id: account.id, mail: account.mail, name: account.name }, file, madeAt },
        databaseUrl: place.databaseUrl,
        migrationsFolder: place.migrationsFolder,
        picturesFolder: place.picturesFolder,
        objectStore: place.objectStore,
      };
      return (await pool.run(task)) as number;
    },
    close: () => pool.destroy(),
  };
}
