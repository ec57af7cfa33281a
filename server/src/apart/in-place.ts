import type { Workshop } from './workshop';

/** A workshop without a process, for tests of what is asked of one. */
export function workshopInPlace(tasks: Readonly<Record<string, (input: never) => unknown>>): Workshop {
  return {
    run(task, input) {
      const work = tasks[task];
      return work ? Promise.resolve(input as never).then(work) : Promise.reject(new Error(`no task ${task}`));
    },
    close: () => Promise.resolve(),
  };
}
