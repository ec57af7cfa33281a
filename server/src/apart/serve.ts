import { Worker } from 'node:worker_threads';
import { z } from 'zod';

type Tasks = Readonly<Record<string, (input: never) => unknown>>;
const Request = z.object({ task: z.string(), input: z.unknown() });

/** Serves tasks to the process that started this one, one at a time, under a guard; see workshop.ts. */
export function serve(tasks: Tasks): void {
  const mostBytes = Number(process.argv[2]);
  // A thread of its own: what runs here may leave no moment to look up.
  new Worker(new URL('./guard.mjs', import.meta.url), { workerData: { mostBytes }, execArgv: [] }).unref();
  const say = (message: unknown) => process.send?.(message);
  process.on('disconnect', () => process.exit(0));
  process.on('message', (message) => {
    const { task, input } = Request.parse(message);
    const work = tasks[task];
    Promise.resolve()
      .then(() => {
        if (!work) throw new Error(`no task ${task}`);
        return work(input as never);
      })
      .then(
        (value) => say({ is: 'done', value, bytes: process.memoryUsage.rss() }),
        (error: unknown) =>
          say({
            is: 'thrown',
            message: error instanceof Error ? error.message : String(error),
            bytes: process.memoryUsage.rss(),
          }),
      );
  });
  say({ is: 'ready' });
}
