import { useEffect } from 'react';

/** Keys by name, as KeyboardEvent.key has them. */
export type KeyMap = Readonly<Record<string, () => void>>;

/**
 * Listens to keys while the component is on screen; not while the reader writes or a sheet is open.
 *
 * @param before keys that mean something else elsewhere are taken by this component first
 */
export function useKeys(keys: KeyMap, before = false): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      const target = event.target instanceof Element ? event.target : null;
      if (target?.closest('input, textarea, select, [contenteditable], dialog')) return;
      const action = keys[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    addEventListener('keydown', pressed, before);
    return () => removeEventListener('keydown', pressed, before);
  }, [keys, before]);
}
