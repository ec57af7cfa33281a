import { type ChildProcess, fork } from 'node:child_process';
import { setPriority } from 'node:os';
import path from 'node:path';
import pLimit from 'p-limit';
import { z } from 'zod';

/**
 * Why a piece of work came to nothing. `time` and `memory` lie with the work: it wants more than it may have. `ended` does not:
 * its process could not be started, or something else ended it, or nothing is begun any more.
 */
export type WhyNot = 'time' | 'memory' | 'ended';

/** Work that was given up. What else goes wrong in it is an ordinary error. */
export class GivenUp extends Error {
  override readonly name = 'GivenUp';
  constructor(readonly why: WhyNot) {
    super(`given up: ${why}`);
  }
}

/** A place where what strangers sent is taken apart, one piece after the other, outside this process. */
export interface Workshop {
  /**
   * @param task one of those that the workshop's process knows
   * @param limitMs of running; waiting for its turn does not count
   * @param spent told for how long it ran, also when it came to nothing
   * @throws GivenUp; Error with the message of what the task threw
   */
  run(task: string, input: unknown, limitMs: number, spent?: (ms: number) => void): Promise<unknown>;
  /** Ends the process. Nothing is begun any more. */
  close(): Promise<void>;
}

/** A process that has not even begun by then never will. */
const START_LIMIT_MS = 60_000;
/** The engine's own end, when it finds no more memory, looks like this; the guard's is a signal that nothing else sends. */
const FOR_WANT_OF_MEMORY = new Set(['SIGUSR2', 'SIGABRT', 'SIGTRAP', 'SIGILL', 'SIGSEGV']);

/** A process that has grown to this part of what it may take is ended after its work. */
const FAT = 0.7;

const Answer = z.discriminatedUnion('is', [
  z.object({ is: z.literal('ready') }),
  z.object({ is: z.literal('done'), value: z.unknown(), bytes: z.number() }),
  z.object({ is: z.literal('thrown'), message: z.string(), bytes: z.number() }),
]);

interface WorkshopOptions {
  entry: string;
  mostBytes: number;
  idleMs: number;
  niceness?: number;
}

/**
 * A workshop over one process, which is started when it is wanted and ended when nothing has been wanted for a while.
 *
 * A process of its own and not a thread: a thread that runs out of memory can take the whole server with it, and shares
 * the few threads that files and passphrases wait for. It is killed, not asked: what it runs may never listen.
 *
 * @param entry path of the process's own file, which serves tasks by `serve`
 * @param mostBytes of memory, all of it counted; more ends the process
 * @param idleMs after which a process that nobody wants is ended
 * @param niceness how far the process stands back behind others, 0 to 19
 */
export function openWorkshop(options: WorkshopOptions): Workshop {
  const turn = pLimit(1);
  let child: ChildProcess | null = null;
  let idle: NodeJS.Timeout | undefined;
  let closed = false;

  const end = async () => {
    clearTimeout(idle);
    const ending = child;
    child = null;
    if (ending?.exitCode !== null || ending.signalCode !== null) return;
    const gone = new Promise((resolve) => ending.once('exit', resolve));
    ending.kill('SIGKILL');
    await gone;
  };

  const one: Workshop['run'] = async (task, input, limitMs, spent) => {
    if (closed) throw new GivenUp('ended');
    clearTimeout(idle);
    const isFresh = child === null;
    child ??= await start(options);
    const began = performance.now();
    try {
      const answer = await next(child, limitMs, () => child?.send({ task, input }));
      if (answer.is === 'ready') throw new Error('a process began twice');
      // What earlier work left behind must not count against later work.
      if (answer.bytes > options.mostBytes * FAT) await end();
      if (answer.is === 'thrown') throw new Error(answer.message);
      return answer.value;
    } catch (error) {
      if (!(error instanceof GivenUp)) throw error;
      await end();
      // It may be what came before that had filled the process: once more, in one that nobody has used.
      if (isFresh || error.why === 'time') throw error;
      return await one(task, input, limitMs, spent);
    } finally {
      spent?.(performance.now() - began);
      clearTimeout(idle);
      idle = setTimeout(() => void turn(end), options.idleMs);
      idle.unref();
    }
  };

  return {
    run: (task, input, limitMs, spent) => turn(one, task, input, limitMs, spent),
    async close() {
      closed = true;
      await end();
    },
  };
}

async function start({ entry, mostBytes, niceness = 0 }: WorkshopOptions): Promise<ChildProcess> {
  const megabytes = Math.round(mostBytes / 1e6);
  const child = fork(entry, [String(mostBytes)], {
    // The guard sees all memory, but late; the engine's own limit stops what grows fast.
    execArgv: [`--max-old-space-size=${megabytes}`, '--max-semi-space-size=4', '--stack-size=3000'],
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    cwd: path.dirname(entry),
    // Nothing that the server knows: neither where its database is nor what it is called.
    env: {
      PATH: process.env.PATH,
      TMPDIR: process.env.TMPDIR,
      NODE_ENV: process.env.NODE_ENV,
      // The C library's allocator keeps a heap for each thread, and each of them grows (mallopt(3)).
      MALLOC_ARENA_MAX: '2',
    },
  });
  // What cannot be sent any more is seen by its process having ended; unheard, the event would end this process too.
  child.on('error', () => undefined);
  try {
    await next(child, START_LIMIT_MS, () => {
      if (niceness > 0 && child.pid !== undefined) setPriority(child.pid, niceness);
    });
  } catch {
    child.kill('SIGKILL');
    throw new GivenUp('ended');
  }
  return child;
}

/** Waits for the next thing that a process says. @throws GivenUp */
function next(child: ChildProcess, limitMs: number, begin: () => void): Promise<z.infer<typeof Answer>> {
  return new Promise((resolve, reject) => {
    const settle = (how: () => void) => {
      clearTimeout(limit);
      child.off('message', said).off('exit', exited).off('error', failed);
      how();
    };
    const said = (message: unknown) => settle(() => resolve(Answer.parse(message)));
    const exited = (_code: number | null, signal: string | null) =>
      settle(() => reject(new GivenUp(signal !== null && FOR_WANT_OF_MEMORY.has(signal) ? 'memory' : 'ended')));
    const failed = () => settle(() => reject(new GivenUp('ended')));
    const limit = setTimeout(() => settle(() => reject(new GivenUp('time'))), limitMs);
    child.on('message', said).on('exit', exited).on('error', failed);
    begin();
  });
}
