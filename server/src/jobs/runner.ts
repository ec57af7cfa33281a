import type { Logger } from 'pino';

export interface Runner {
  /** Says that a job may be due. */
  wake(): void;
  /** Takes no new jobs and waits for those under way. */
  stop(): Promise<void>;
}

/** What is to be done, in the order in which it is due. */
export interface Row<Job> {
  /** Takes up to `limit` jobs that are due, so that nobody else takes them. */
  take(limit: number): Promise<Job[]>;
  /** When the next one is due, in milliseconds since 1970; null when none waits. */
  nextDue(): Promise<number | null>;
  /** Says that those are still being run, where that has to be said. */
  hold?(ids: readonly string[]): Promise<void>;
}

const MAX_NAP_MS = 60_000;
/** What is due and was not to be had waits for others of its kind, which may be run elsewhere. */
const HELD_UP_MS = 1000;
const HOLD_EVERY_MS = 15_000;

/**
 * Works off the row of jobs, at most `atOnce` together.
 *
 * @param run does a job; it settles the job's row itself
 * @param failed is called when `run` threw: it should put the job back
 */
export function startRunner<Job extends { id: string }>(
  jobs: Row<Job>,
  atOnce: number,
  run: (job: Job) => Promise<void>,
  failed: (job: Job, error: unknown) => Promise<void>,
  log: Logger,
): Runner {
  const running = new Map<string, Promise<void>>();
  let timer: NodeJS.Timeout | undefined;
  let stopped = false;
  let looking: Promise<void> | null = null;
  let lookAgain = false;

  const start = (job: Job) => {
    // Its lease ran out although it is being run here: it goes on as it is.
    if (running.has(job.id)) return;
    const work: Promise<void> = run(job)
      .catch(async (error: unknown) => {
        log.error({ err: error, jobId: job.id }, 'a job failed in an unforeseen way');
        // If even this fails (a full disk), the row stays "running" until its lease has run out.
        await failed(job, error).catch((second: unknown) =>
          log.error({ err: second, jobId: job.id }, 'job not put back'),
        );
      })
      .finally(() => {
        running.delete(job.id);
        wake();
      });
    running.set(job.id, work);
  };

  const look = async () => {
    do {
      lookAgain = false;
      for (const job of stopped ? [] : await jobs.take(atOnce - running.size)) start(job);
      // eslint-disable-next-line @typescript-eslint/no-unnecessary-condition -- wake() sets it while we wait
    } while (lookAgain);
    const due = await jobs.nextDue();
    clearTimeout(timer);
    if (due === null || stopped || running.size >= atOnce) return;
    const napMs = due - Date.now();
    timer = setTimeout(wake, napMs <= 0 ? HELD_UP_MS : Math.min(MAX_NAP_MS, Math.max(20, napMs)));
  };

  function wake() {
    if (stopped) return;
    lookAgain = true;
    looking ??= look()
      .catch((error: unknown) => {
        log.error({ err: error }, 'cannot read the row of jobs');
        timer = setTimeout(wake, 1000);
      })
      .finally(() => {
        looking = null;
      });
  }

  const holding = setInterval(() => {
    if (running.size > 0)
      jobs.hold?.([...running.keys()]).catch((error: unknown) => log.error({ err: error }, 'jobs not held'));
  }, HOLD_EVERY_MS);
  holding.unref();

  wake();
  return {
    wake,
    async stop() {
      stopped = true;
      clearInterval(holding);
      clearTimeout(timer);
      await looking;
      await Promise.all(running.values());
    },
  };
}
