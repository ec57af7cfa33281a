import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { create } from 'zustand';
import { downloadAhead } from '@/device/cache/downloads';
import { eraseLetGo } from '@/device/cache/erase';
import { useAccount } from '@/device/store/account';
import { serverTime } from '@/device/store/clock';
import { type News, receive, send } from './exchange';

interface SyncState {
  online: boolean;
  /** What the loop is doing now. */
  doing: 'nothing' | 'sending' | 'receiving' | 'downloading';
  /** A problem that is not just being offline, in words; null when all is well. */
  problem: string | null;
  /** True once a pull has come through in this session, or the device is known to be offline. */
  settled: boolean;
  /** What the server said of changes that the reader should hear of; the screen tells it and clears it. */
  news: News[];
}

export const useSync = create<SyncState>()(() => ({
  online: typeof navigator === 'undefined' || navigator.onLine,
  doing: 'nothing',
  problem: null,
  settled: false,
  news: [],
}));

const SOON_MS = 120;
const REGULAR_MS = 60_000;
const FIRST_RETRY_MS = 2000;
const MAX_RETRY_MS = 60_000;

let timer: ReturnType<typeof setTimeout> | undefined;
/** Whether a round is running, and whether another was asked for meanwhile. */
const rounds = { running: false, again: false };
let retryMs = FIRST_RETRY_MS;

/** Asks for a round of the loop: after a change, when the network is back, when the server rang. */
export function syncSoon(delayMs = SOON_MS): void {
  if (rounds.running) {
    rounds.again = true;
    return;
  }
  clearTimeout(timer);
  timer = setTimeout(() => void round(), delayMs);
}

const HEARS = {
  doing: (doing: SyncState['doing']) => useSync.setState({ doing }),
  tell: tellOf,
};

/** One round: send what waits, fetch what is new, bring copies to the device. */
async function round(): Promise<void> {
  const { store, needsSignIn, sessionLost } = useAccount.getState();
  if (!store || needsSignIn || rounds.running) return;
  if (!navigator.onLine) {
    useSync.setState({ online: false, settled: true });
    return;
  }
  rounds.running = true;
  rounds.again = false;
  let next = REGULAR_MS;
  try {
    await send(store, HEARS);
    if (await receive(store, HEARS)) rounds.again = true;
    useSync.setState({ online: true, problem: null, settled: true });
    await eraseLetGo(store, serverTime());
    useSync.setState({ doing: 'downloading' });
    await downloadAhead(store, () => !rounds.again);
    retryMs = FIRST_RETRY_MS;
  } catch (error) {
    next = retryMs;
    retryMs = Math.min(MAX_RETRY_MS, retryMs * 2);
    useSync.setState({ settled: true });
    if (error instanceof ServerProblem && error.status === 401) sessionLost();
    else if (error instanceof Unreachable)
      useSync.setState({ online: false, problem: error.status === null ? null : error.message });
    else if (error instanceof ServerProblem) useSync.setState({ online: true, problem: error.detail });
    else
      useSync.setState({ problem: `Syncing stopped: ${String(error)}. Nothing is lost; it is tried again.` });
  } finally {
    rounds.running = false;
    useSync.setState({ doing: 'nothing' });
    syncSoon(rounds.again ? SOON_MS : next);
  }
}

/** Has something told to the reader. */
export function tellOf(added: News[]): void {
  if (added.length > 0) useSync.setState(({ news }) => ({ news: [...news, ...added] }));
}

/** Starts the loop for as long as the app is open. @returns a function that ends it */
export function startSyncLoop(): () => void {
  let bell: EventSource | undefined;
  const listen = () => {
    bell?.close();
    if (!navigator.onLine || !useAccount.getState().store || useAccount.getState().needsSignIn) return;
    bell = new EventSource('/api/sync/events');
    bell.addEventListener('changed', () => syncSoon());
  };
  const online = () => {
    useSync.setState({ online: true });
    retryMs = FIRST_RETRY_MS;
    listen();
    syncSoon(0);
  };
  const offline = () => {
    useSync.setState({ online: false, settled: true });
    bell?.close();
  };
  const shown = () => {
    if (document.visibilityState === 'visible') syncSoon();
  };
  addEventListener('online', online);
  addEventListener('offline', offline);
  document.addEventListener('visibilitychange', shown);
  const forget = useAccount.subscribe((now, before) => {
    if (now.store !== before.store || now.needsSignIn !== before.needsSignIn) {
      listen();
      syncSoon(0);
    }
  });
  listen();
  syncSoon(0);
  return () => {
    bell?.close();
    clearTimeout(timer);
    forget();
    removeEventListener('online', online);
    removeEventListener('offline', offline);
    document.removeEventListener('visibilitychange', shown);
  };
}
