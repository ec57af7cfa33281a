import { useEffect } from 'react';
import { matchKeybindingPress } from 'tinykeys';

/** Keys by name, as KeyboardEvent.key has them. */
export type KeyMap = Readonly<Record<string, () => void>>;

/**
 * Listens to keys while the component is on screen; not while the reader writes or a sheet is open. A key with Control, Alt or
 * Meta is the browser's, but where a keyboard's layout needs one of them for the letter itself.
 *
 * @param before keys that mean something else elsewhere are taken by this component first
 */
export function useKeys(keys: KeyMap, before = false): void {
  useEffect(() => {
    const bound = Object.entries(keys);
    const pressed = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isElsewhere(event)) return;
      const isOfLayout = event.getModifierState('AltGraph');
      const optional = isOfLayout ? ['Shift', 'Alt', 'Control'] : ['Shift'];
      const found = bound.find(([key]) => matchKeybindingPress(event, [[], optional, key]));
      if (!found) return;
      event.preventDefault();
      found[1]();
    };
    addEventListener('keydown', pressed, before);
    return () => removeEventListener('keydown', pressed, before);
  }, [keys, before]);
}

function isElsewhere(event: KeyboardEvent): boolean {
  // What is written in may stand in a tree of its own, from which events come as from its host.
  const inner = event.composedPath()[0];
  return [inner, event.target].some(
    (each) => each instanceof Element && each.closest('input, textarea, select, [contenteditable], dialog') !== null,
  );
}
