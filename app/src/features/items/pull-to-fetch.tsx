import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Text } from 'react-native';
import { syncSoon, useSync } from '@/device/sync/sync-loop';
import { drawnBy, ENOUGH_DRAWN } from '@/ui/drawn';
import { tick } from '@/ui/haptics';
import { useWide } from '@/ui/wide';

/** What is said at the end stays so long, in milliseconds. */
const SAID_MS = 1600;
/** Where a round of the loop has not begun by then, there was none to be had. */
const PATIENCE_MS = 10_000;

/** A list that is drawn down beyond its beginning by a finger asks the server what is new. */
export function PullToFetch({ children }: { children: ReactNode }) {
  const wide = useWide();
  const holder = useRef<HTMLDivElement>(null);
  const [drawn, setDrawn] = useState(0);
  const [says, setSays] = useState<string | null>(null);
  useEffect(() => {
    const element = holder.current;
    if (!element || wide) return undefined;
    let from: { x: number; y: number } | null = null;
    let by = 0;
    const begin = ({ touches, target }: TouchEvent) => {
      const [touch] = touches;
      from = touches.length === 1 && touch && isAtTop(target, element) ? { x: touch.clientX, y: touch.clientY } : null;
    };
    const move = (event: TouchEvent) => {
      const [touch] = event.touches;
      if (!from || !touch) return;
      const [dx, dy] = [touch.clientX - from.x, touch.clientY - from.y];
      // Sideways it is a stroke along a row, and upwards a scroll.
      if (by === 0 && (dy < 0 || Math.abs(dx) > Math.max(10, dy))) from = null;
      if (!from || (by === 0 && dy < 12)) return;
      event.preventDefault();
      const before = by;
      by = drawnBy(dy);
      if (before < ENOUGH_DRAWN && by >= ENOUGH_DRAWN) tick();
      setDrawn(by);
    };
    const end = () => {
      const meant = by >= ENOUGH_DRAWN;
      from = null;
      by = 0;
      setDrawn(0);
      if (meant) void fetchNow(setSays);
    };
    element.addEventListener('touchstart', begin, { passive: true });
    element.addEventListener('touchmove', move, { passive: false });
    element.addEventListener('touchend', end);
    element.addEventListener('touchcancel', end);
    return () => {
      element.removeEventListener('touchstart', begin);
      element.removeEventListener('touchmove', move);
      element.removeEventListener('touchend', end);
      element.removeEventListener('touchcancel', end);
    };
  }, [wide]);
  const words = drawn > 0 ? (drawn >= ENOUGH_DRAWN ? 'Let go to fetch' : 'Pull to fetch') : says;
  return (
    <div ref={holder} className="pulled">
      <div role="status" className="pulled-words" style={{ height: drawn > 0 ? drawn : says === null ? 0 : 40 }}>
        {words !== null && <Text className="font-ui text-small text-soft">{words}</Text>}
      </div>
      {children}
    </div>
  );
}

/** Whether nothing that scrolls between a place and what holds it stands away from its beginning. */
function isAtTop(target: EventTarget | null, holder: HTMLElement): boolean {
  for (let at = target instanceof Element ? target : null; at && at !== holder; at = at.parentElement)
    if (at.scrollTop > 0) return false;
  return true;
}

/** A round of the loop, in words. @param say told how it stands; null when there is nothing more to say */
async function fetchNow(say: (words: string | null) => void): Promise<void> {
  if (!useSync.getState().online) say('Offline: what is new comes with a connection.');
  else {
    say('Fetching…');
    const round = roundDone();
    syncSoon(0);
    await round;
    const { problem } = useSync.getState();
    say(problem === null ? 'All that is new is here.' : 'The server could not be asked. It is tried again.');
  }
  await new Promise((resolve) => setTimeout(resolve, SAID_MS));
  say(null);
}

/** The end of the next round of the loop, or of patience. */
function roundDone(): Promise<void> {
  return new Promise((resolve) => {
    const finish = () => {
      clearTimeout(timer);
      forget();
      resolve();
    };
    const timer = setTimeout(finish, PATIENCE_MS);
    const forget = useSync.subscribe((now, before) => {
      if (before.doing !== 'nothing' && now.doing === 'nothing') finish();
    });
  });
}
