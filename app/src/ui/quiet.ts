/**
 * Does what can wait, once nothing else is to be done and so much time has gone by: while a list is read from the store the browser is
 * idle, too, and what is begun then is in the list's way.
 *
 * @returns ends the waiting
 */
export function whenQuiet(afterMs: number, act: () => void): () => void {
  let idle: number | undefined;
  const timer = setTimeout(() => {
    if ('requestIdleCallback' in globalThis) idle = requestIdleCallback(act);
    else act();
  }, afterMs);
  return () => {
    clearTimeout(timer);
    if (idle !== undefined) cancelIdleCallback(idle);
  };
}
