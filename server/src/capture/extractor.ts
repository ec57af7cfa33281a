import type { Article } from '@dorvel/core/extract';
import { Piscina } from 'piscina';

type ExtractOutcome = { ok: true; article: Article } | { ok: false; says: string };

/** Turns pages into clean text, somewhere that is not the request's thread. */
export interface Extractor {
  extract(html: string, url: string): Promise<ExtractOutcome>;
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
    async extract(html, url) {
      try {
        const article = (await pool.run(
          { html, url },
          { signal: AbortSignal.timeout(TIME_LIMIT_MS) },
        )) as Article;
        return { ok: true, article };
      } catch (error) {
        const name = error instanceof Error ? error.name : '';
        if (name === 'AbortError' || name === 'TimeoutError')
          return { ok: false, says: 'The page could not be taken apart within 30 seconds.' };
        return {
          ok: false,
          says:
            error instanceof Error && name === 'PageTooLarge'
              ? error.message
              : 'The page could not be taken apart.',
        };
      }
    },
    close: () => pool.destroy(),
  };
}
