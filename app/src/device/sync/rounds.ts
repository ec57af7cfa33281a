import { ServerProblem, Unreachable } from '@dorvel/core/client';

/** What the reader can be told of the loop. */
export interface SyncStatus {
  online: boolean;
  /** What the loop is doing now. */
  doing: 'nothing' | 'sending' | 'receiving' | 'downloading';
  /** A problem that is not just being offline, in words; null when all is well. */
  problem: string | null;
  /** True once a pull has come through in this session, or the device is known to be offline. */
  settled: boolean;
}

/** What a loop needs from outside, for the library that is to be kept in step. */
export interface Surroundings<Library> {
  /** The library; null while there is none, or while nobody is signed in. */
  library(): Library | null;
  isOnline(): boolean;
  /** Sends what waits. @throws ServerProblem, Unreachable */
  send(library: Library): Promise<void>;
  /** Fetches what is new. @returns whether there is something to be sent because of it @throws as send does */
  receive(library: Library): Promise<boolean>;
  /** Brings texts ahead, as long as it may go on. @throws as send does */
  download(library: Library, mayGoOn: () => boolean): Promise<void>;
  sessionLost(): void;
  tell(status: Partial<SyncStatus>): void;
  /** Calls back after a while. @returns takes that back */
  after(ms: number, call: () => void): () => void;
}

/** Rounds of sending and fetching, one after the other, for as long as somebody asks for them. */
export interface SyncRounds {
  /** Asks for a round: after a change, when the network is back, when the server rang. */
  soon(delayMs?: number): void;
  /** Forgets that rounds have failed: the next failure is waited out for as short a time as the first. */
  forgetFailures(): void;
  /** Begins with rounds, at once. */
  start(): void;
  /** Begins no more rounds, until it is started once more. */
  stop(): void;
}

export const SOON_MS = 120;
export const REGULAR_MS = 60_000;
const FIRST_RETRY_MS = 2000;
export const MAX_RETRY_MS = 60_000;

/**
 * A loop over a library: a round when it is asked for, one a minute otherwise, and after a failure again after two
 * seconds, four, and so on up to a minute. A change that is made while texts are brought ahead does not wait for them.
 */
export function syncRounds<Library>(around: Surroundings<Library>): SyncRounds {
  let cancel = () => {};
  let isRunning = false;
  let isWantedAgain = false;
  let isStopped = true;
  let retryMs = FIRST_RETRY_MS;

  const soon = (delayMs = SOON_MS) => {
    if (isRunning) {
      isWantedAgain = true;
      return;
    }
    cancel();
    if (!isStopped) cancel = around.after(delayMs, () => void round());
  };

  /** One round: send what waits, fetch what is new, bring copies to the device. */
  const round = async () => {
    const library = around.library();
    if (library === null || isRunning) return;
    if (!around.isOnline()) {
      around.tell({ online: false, settled: true });
      return;
    }
    isRunning = true;
    isWantedAgain = false;
    let nextMs = REGULAR_MS;
    try {
      await around.send(library);
      if (await around.receive(library)) isWantedAgain = true;
      around.tell({ online: true, problem: null, settled: true, doing: 'downloading' });
      await around.download(library, () => !isWantedAgain);
      retryMs = FIRST_RETRY_MS;
    } catch (error) {
      nextMs = retryMs;
      retryMs = Math.min(MAX_RETRY_MS, retryMs * 2);
      around.tell({ ...failure(error), settled: true });
      if (error instanceof ServerProblem && error.status === 401) around.sessionLost();
    } finally {
      isRunning = false;
      around.tell({ doing: 'nothing' });
      soon(isWantedAgain ? SOON_MS : nextMs);
    }
  };

  return {
    soon,
    forgetFailures: () => void (retryMs = FIRST_RETRY_MS),
    start() {
      isStopped = false;
      soon(0);
    },
    stop() {
      isStopped = true;
      cancel();
    },
  };
}

function failure(error: unknown): Partial<SyncStatus> {
  if (error instanceof Unreachable) return { online: false, problem: error.status === null ? null : error.message };
  if (error instanceof ServerProblem)
    // A session that has ended is asked for by itself, in its own words.
    return error.status === 401 ? {} : { online: true, problem: error.detail };
  return { problem: `Syncing stopped: ${String(error)}. Nothing is lost; it is tried again.` };
}
