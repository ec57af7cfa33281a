import { create } from 'zustand';

/** What browsers of the Chromium family say when a page can be installed; not in the DOM's types. */
interface InstallEvent extends Event {
  prompt(): Promise<unknown>;
}

interface InstallState {
  /** It runs as an app of this device, from its home screen or its list of apps. */
  installed: boolean;
  /** Asks the reader to install it; null where the browser does not offer that to pages. */
  ask: (() => Promise<void>) | null;
}

/** Whether Dorvel is an app of this device, and how it can become one. */
export const useInstall = create<InstallState>()(() => ({ installed: false, ask: null }));

/** Follows what the browser says of it. @returns ends it */
export function followInstall(): () => void {
  const standalone = matchMedia('(display-mode: standalone)');
  const look = () => useInstall.setState({ installed: standalone.matches });
  const offered = (event: Event) => {
    // Asked at a press of the reader's, not over what they read.
    event.preventDefault();
    useInstall.setState({
      ask: async () => {
        useInstall.setState({ ask: null });
        await (event as InstallEvent).prompt();
      },
    });
  };
  const done = () => useInstall.setState({ installed: true, ask: null });
  look();
  standalone.addEventListener('change', look);
  addEventListener('beforeinstallprompt', offered);
  addEventListener('appinstalled', done);
  return () => {
    standalone.removeEventListener('change', look);
    removeEventListener('beforeinstallprompt', offered);
    removeEventListener('appinstalled', done);
  };
}

/** Which way a browser has of installing a page. */
export type InstallWay = 'share-sheet' | 'menu' | 'address-bar';

/**
 * The way of the browser in hand, by what it says of itself. @param agent `navigator.userAgent`
 * @param touch touch points, by which a tablet that calls itself a desktop is known
 */
export function installWay(agent: string, touch: number): InstallWay {
  if (/iPhone|iPad|iPod/.test(agent) || (agent.includes('Macintosh') && touch > 1)) return 'share-sheet';
  return /Android|Mobile/.test(agent) ? 'menu' : 'address-bar';
}
