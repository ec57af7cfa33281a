/** What the lock screen is told of what is being heard. */
export interface OnLockScreen {
  title: string;
  source: string;
  /** Of the whole at a rate of 1, and how much of it is past. */
  seconds: number;
  passed: number;
  rate: number;
  /** Its headings, with when they come; in seconds of the whole. */
  chapters: readonly { title: string; startTime: number }[];
}

/** Shows on the lock screen what is being read, with its controls (W3C Media Session), where the browser has it. */
export function showOnLockScreen(shown: OnLockScreen | null, playing: boolean): void {
  if (!('mediaSession' in navigator)) return;
  const { mediaSession } = navigator;
  if (!shown) {
    mediaSession.metadata = null;
    mediaSession.playbackState = 'none';
    return;
  }
  if (mediaSession.metadata?.title !== shown.title) {
    const artwork = [{ src: '/icon-512.png', sizes: '512x512', type: 'image/png' }];
    const told: MediaMetadataInit & { chapterInfo: object[] } = {
      title: shown.title,
      artist: shown.source,
      album: 'Dorvel',
      artwork,
      // Newer than most browsers: those that do not know it pass it over.
      chapterInfo: shown.chapters.map((chapter) => ({ ...chapter, artwork })),
    };
    mediaSession.metadata = new MediaMetadata(told);
  }
  mediaSession.playbackState = playing ? 'playing' : 'paused';
  const { seconds, passed, rate } = shown;
  if (seconds > 0)
    mediaSession.setPositionState({
      duration: seconds,
      position: Math.min(seconds, passed),
      playbackRate: rate,
    });
}

interface MediaControls {
  pause(): void;
  goOn(): void;
  skip(seconds: number): void;
  previous(): void;
  next(): void;
  /** To a time of the whole, at a rate of 1. */
  seekTo(seconds: number): void;
  close(): void;
}

/** So far the lock screen's and the headset's buttons jump, where they do not say. */
export const SKIP_SECONDS = 15;

/** Lets the lock screen, a headset or the keyboard's media keys steer the player. */
export function takeMediaKeys(controls: MediaControls): void {
  if (!('mediaSession' in navigator)) return;
  const handlers: [MediaSessionAction, MediaSessionActionHandler][] = [
    ['play', controls.goOn],
    ['pause', controls.pause],
    ['stop', controls.close],
    ['previoustrack', controls.previous],
    ['nexttrack', controls.next],
    ['seekbackward', ({ seekOffset }) => controls.skip(-(seekOffset ?? SKIP_SECONDS))],
    ['seekforward', ({ seekOffset }) => controls.skip(seekOffset ?? SKIP_SECONDS)],
    [
      'seekto',
      ({ seekTime }) => {
        if (typeof seekTime === 'number') controls.seekTo(seekTime);
      },
    ],
  ];
  for (const [action, handler] of handlers)
    try {
      navigator.mediaSession.setActionHandler(action, handler);
    } catch (error) {
      // A browser that does not know one of the actions says so by throwing; the others are still of use.
      if (!(error instanceof TypeError)) throw error;
    }
}
