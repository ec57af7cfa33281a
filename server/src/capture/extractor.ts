import { Piscina } from 'piscina';
import type { Input, Taken } from './inputs';

/** Turns what was fetched or given into clean text, somewhere that is not the request's thread. */
export interface Extractor {
  extract(input: Input): Promise<Taken>;
  close(): Promise<void>;
}

const TIME_LIMIT_MS = 30_000;

/** An extractor over a pool of worker threads. @param workerFile path of extract.worker.ts */
export function poolExtractor(workerFile: string): Extractor {
  const pool = new Piscina({
    filename: workerFile,
    execArgv: ['--import', 'tsx'],
    minThreads: 1,
    maxThreads: 2,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: 512, stackSizeMb: 8 },
  });
  return {
    async extract(input) {
      try {
        return (await pool.run(input, { signal: AbortSignal.timeout(TIME_LIMIT_MS) })) as Taken;
      } catch (error) {
        const name = error instanceof Error ? error.name : '';
        return name === 'AbortError' || name === 'TimeoutError'
          ? { ok: false, says: 'The page could not be taken apart within 30 seconds.' }
          : { ok: false, says: 'The page could not be taken apart.' };
      }
    },
    close: () => pool.destroy(),
  };
}
