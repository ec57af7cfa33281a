import { create } from 'zustand';
import { downloadAhead } from '@/device/cache/downloads';
import { eraseLetGo } from '@/device/cache/erase';
import { useAccount } from '@/device/store/account';
import { serverTime } from '@/device/store/clock';
import { replayUnsent, sendAll } from '@/device/store/replay';
import { useRoom } from '@/device/store/room';
import type { DeviceStore } from '@/device/store/store';
import { type News, receive, send } from './exchange';
import { syncRounds, type SyncStatus } from './rounds';

interface SyncState extends SyncStatus {
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

/** Has something told to the reader. */
export function tellOf(added: News[]): void {
  if (added.length > 0) useSync.setState(({ news }) => ({ news: [...news, ...added] }));
}

const HEARS = {
  doing: (doing: SyncState['doing']) => useSync.setState({ doing }),
  tell: tellOf,
};

const accountIdOf = () => useAccount.getState().account?.id ?? '';

const rounds = syncRounds<DeviceStore>({
  library() {
    const { store, needsSignIn } = useAccount.getState();
    return needsSignIn ? null : store;
  },
  isOnline: () => navigator.onLine,
  send: (store) => sendAll(store, accountIdOf(), () => send(store, HEARS)),
  async receive(store) {
    const isMore = await receive(store, HEARS);
    const refused = (says: string) => tellOf([{ kind: 'refused', says }]);
    return (await replayUnsent(store, accountIdOf(), refused)) || isMore;
  },
  async download(store, mayGoOn) {
    await eraseLetGo(store, serverTime());
    const { megabytes } = useRoom.getState();
    useRoom.setState(await downloadAhead(store, mayGoOn, megabytes === null ? Infinity : megabytes * 1_000_000));
  },
  sessionLost: () => useAccount.getState().sessionLost(),
  tell: (status) => useSync.setState(status),
  after(ms, call) {
    const timer = setTimeout(call, ms);
    return () => clearTimeout(timer);
  },
});

/** Asks for a round of the loop: after a change, when the network is back, when the server rang. */
export const syncSoon = (delayMs?: number) => rounds.soon(delayMs);

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
    rounds.forgetFailures();
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
  rounds.start();
  return () => {
    bell?.close();
    rounds.stop();
    forget();
    removeEventListener('online', online);
    removeEventListener('offline', offline);
    document.removeEventListener('visibilitychange', shown);
  };
}
