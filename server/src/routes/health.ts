import { stat } from 'node:fs/promises';
import { Alive, Ready } from '@dorvel/core/model';
import { Router } from 'express';

/** Who asks whether a server is ready does not want to wait for longer. */
const LIMIT_MS = 1000;

/**
 * Whether the process is alive, and whether it can do its work: those are two questions, as one that answers may have its
 * database locked, or all threads busy that files and passphrases wait for.
 */
export function healthRoutes(parts: { jobs: { openCount(): Promise<number> } }): Router {
  const router = Router();
  router.get('/healthz', (_request, response) => {
    response.json(Alive.parse({ status: 'alive' }));
  });
  router.get('/readyz', async (_request, response) => {
    const [jobsOpen, thread] = await Promise.all([inTime(parts.jobs.openCount()), inTime(stat(import.meta.dirname))]);
    const waitingFor = [
      ...(jobsOpen === null ? (['database'] as const) : []),
      ...(thread === null ? (['threads'] as const) : []),
    ];
    const status = waitingFor.length === 0 ? 'ready' : 'not-ready';
    response.status(status === 'ready' ? 200 : 503).json(Ready.parse({ status, jobsOpen, waitingFor }));
  });
  return router;
}

/** What comes within the limit; null for what fails or takes longer. */
async function inTime<Value>(work: Promise<Value>): Promise<Value | null> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<null>((resolve) => {
    timer = setTimeout(() => resolve(null), LIMIT_MS);
  });
  try {
    return await Promise.race([work, late]);
  } catch {
    // Not there is not ready, which is the answer asked for.
    return null;
  } finally {
    clearTimeout(timer);
  }
}
