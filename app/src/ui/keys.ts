import { useEffect, useLayoutEffect } from 'react';
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
  useBound(keys, before, isElsewhere);
}

/** The same inside a sheet, while it is open. */
export function useSheetKeys(keys: KeyMap): void {
  useBound(keys, false, isOutsideSheet);
}

let lettersOn = true;

/** Whether keys of one letter, figure or sign do anything: who speaks to their computer may not want it (WCAG 2.2, 2.1.4). */
export function setLettersOn(on: boolean): void {
  lettersOn = on;
}

function useBound(keys: KeyMap, before: boolean, isNotFor: (event: KeyboardEvent) => boolean): void {
  // Before what it belongs to is drawn: who sees a text may press.
  useLayoutEffect(() => {
    const bound = Object.entries(keys);
    const pressed = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isNotFor(event) || isPress(event)) return;
      if (!lettersOn && event.key.length === 1 && event.key !== ' ') return;
      const isOfLayout = event.getModifierState('AltGraph');
      const optional = isOfLayout ? ['Shift', 'Alt', 'Control'] : ['Shift'];
      const found = bound.find(([key]) => matchKeybindingPress(event, [[], optional, key]));
      if (!found) return;
      event.preventDefault();
      found[1]();
    };
    addEventListener('keydown', pressed, before);
    return () => removeEventListener('keydown', pressed, before);
  }, [keys, before, isNotFor]);
}

/** What has the focus is pressed by these keys: they are its own there. */
const isPress = (event: KeyboardEvent): boolean =>
  (event.key === 'Enter' || event.key === ' ') &&
  isInside(event, 'a[href], button, summary, [role=button], [role=link], [role=checkbox], [role=radio], [role=switch]');

const WRITTEN_IN = 'input, textarea, select, [contenteditable]';
const isElsewhere = (event: KeyboardEvent): boolean => isInside(event, `${WRITTEN_IN}, dialog`);
const isOutsideSheet = (event: KeyboardEvent): boolean => !isInside(event, 'dialog') || isInside(event, WRITTEN_IN);

function isInside(event: KeyboardEvent, what: string): boolean {
  // What is written in may stand in a tree of its own, from which events come as from its host.
  const inner = event.composedPath()[0];
  return [inner, event.target].some((each) => each instanceof Element && each.closest(what) !== null);
}

/**
 * Space turns switches, boxes and radio buttons (WAI-ARIA Authoring Practices); the components that they are made of know it for
 * buttons only.
 */
export function useSpaceTurns(): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.key !== ' ' || !(event.target instanceof HTMLElement)) return;
      if (!event.target.matches('[role=switch], [role=checkbox], [role=radio]')) return;
      event.preventDefault();
      event.target.click();
    };
    addEventListener('keydown', pressed);
    return () => removeEventListener('keydown', pressed);
  }, []);
}
