import type { Item } from '@dorvel/core/model';
import { type MouseEvent, useEffect } from 'react';
import type { GestureResponderEvent } from 'react-native';
import { create } from 'zustand';
import { cacheSnapshotOf, plainTextOf } from '@/device/cache/snapshot-cache';
import type { Tab } from '@/navigation/tabs';
import { readyTree } from './ready-tree';

interface Ahead {
  /**
   * The address in the app of what is set out of sight by its first screens, since it is likely to be opened next; null when
   * there is nothing.
   */
  href: string | null;
  /** True from the press on it until the app's address has followed. */
  shown: boolean;
}

export const useAhead = create<Ahead>(() => ({ href: null, shown: false }));

/** Makes an item ready to be opened: read from the device's store, worked out as far as it can be before it is seen, and set. */
export async function makeReady(item: Item, href: string): Promise<void> {
  const copyId = item.capture.page?.copyId;
  const copy = copyId ? await cacheSnapshotOf(copyId) : null;
  if (!copy) return;
  plainTextOf(copy);
  readyTree(copy.tree);
  // A text that is opened at what was found in it has to be set as a whole; that is not done for a mere touch.
  if (!href.includes('?')) setAhead(href);
}

/** Has something set out of sight by its first screen; not while what was set before is being opened. */
export function setAhead(href: string): void {
  const ahead = useAhead.getState();
  if (!ahead.shown && ahead.href !== href) useAhead.setState({ href });
}

/**
 * Makes ready what stands on top of a list, when there is nothing else to do.
 *
 * @param kept the copies that are on this device
 */
export function useReadyAhead(tab: Tab, first: Item | undefined, kept?: ReadonlySet<string>): void {
  const copyId = first?.capture.page?.copyId;
  const here = copyId && kept?.has(copyId) ? copyId : null;
  useEffect(() => {
    if (!first || !here || !('requestIdleCallback' in globalThis)) return undefined;
    const idle = requestIdleCallback(() => void makeReady(first, `/${tab}/${first.id}`));
    return () => cancelIdleCallback(idle);
  }, [tab, here]); // eslint-disable-line react-hooks/exhaustive-deps -- an item that has changed otherwise has the same text
}

/**
 * Shows what is set ahead, in the very frame that answers the press; after that frame it is opened.
 *
 * @param open takes the app to its address
 * @returns false when something else is set ahead, and nothing has been done
 */
export function showAhead(href: string, open: () => void): boolean {
  if (useAhead.getState().href !== href) return false;
  useAhead.setState({ shown: true });
  requestAnimationFrame(() => setTimeout(open));
  return true;
}

/** True for a press that opens a link where it stands: one that asks for a window of its own is left to the browser. */
export function isPlainPress(event: MouseEvent | GestureResponderEvent): boolean {
  return 'button' in event && event.button === 0 && !(event.metaKey || event.ctrlKey || event.shiftKey || event.altKey);
}

/** At a press on a link: shows what it leads to if that is set ahead. */
export function followAhead(event: MouseEvent | GestureResponderEvent, href: string, open: () => void): void {
  if (isPlainPress(event) && showAhead(href, open)) event.preventDefault();
}
