import type { Workshop } from './workshop';

/** A workshop without a process, for tests of what is asked of one. */
export function workshopInPlace(tasks: Readonly<Record<string, (input: never) => unknown>>): Workshop {
  return {
    async run(task, input) {
      const work = tasks[task];
      if (!work) throw new Error(`no task ${task}`);
      return work(input as never);
    },
    close: () => Promise.resolve(),
  };
}
