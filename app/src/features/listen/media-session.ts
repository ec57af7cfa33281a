/** Shows on the lock screen what is being read, with its controls (W3C Media Session), where the browser has it. */
export function showOnLockScreen(hearing: { title: string; source: string } | null, playing: boolean): void {
  if (!('mediaSession' in navigator)) return;
  const { mediaSession } = navigator;
  if (!hearing) {
    mediaSession.metadata = null;
    mediaSession.playbackState = 'none';
    return;
  }
  if (mediaSession.metadata?.title !== hearing.title)
    mediaSession.metadata = new MediaMetadata({
      title: hearing.title,
      artist: hearing.source,
      album: 'Dorvel',
      artwork: [{ src: '/icon-512.png', sizes: '512x512', type: 'image/png' }],
    });
  mediaSession.playbackState = playing ? 'playing' : 'paused';
}

interface MediaControls {
  pause(): void;
  goOn(): void;
  step(by: number): void;
  close(): void;
}

/** Lets the lock screen, a headset or the keyboard's media keys steer the player. */
export function takeMediaKeys({ pause, goOn, step, close }: MediaControls): void {
  if (!('mediaSession' in navigator)) return;
  const handlers: [MediaSessionAction, () => void][] = [
    ['play', goOn],
    ['pause', pause],
    ['stop', close],
    ['previoustrack', () => step(-1)],
    ['nexttrack', () => step(1)],
    ['seekbackward', () => step(-1)],
    ['seekforward', () => step(1)],
  ];
  for (const [action, handler] of handlers) navigator.mediaSession.setActionHandler(action, handler);
}
