import type { TermProfile } from '@dorvel/core/terms';
import { Piscina } from 'piscina';

/** Profiles copies somewhere that is not the request's thread. */
export interface Profiler {
  /** @param record the copy as it is stored */
  profile(record: string): Promise<TermProfile>;
  close(): Promise<void>;
}

const TIME_LIMIT_MS = 30_000;
const NOTHING: TermProfile = { length: 0, title: [], terms: [] };

/** A profiler over one worker thread. @param workerFile path of profile.worker.ts */
export function threadProfiler(workerFile: string): Profiler {
  const pool = new Piscina({
    filename: workerFile,
    execArgv: ['--import', 'tsx'],
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: 512, stackSizeMb: 8 },
  });
  return {
    async profile(record) {
      try {
        return (await pool.run(record, { signal: AbortSignal.timeout(TIME_LIMIT_MS) })) as TermProfile;
      } catch (_tooLarge) {
        // A text that cannot be profiled is near to nothing, now and later: it is not tried again at each question.
        return NOTHING;
      }
    },
    close: () => pool.destroy(),
  };
}
