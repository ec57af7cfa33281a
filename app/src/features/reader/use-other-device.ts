import { findAnchor } from '@dorvel/core/highlight';
import type { Item } from '@dorvel/core/model';
import { useCallback, useEffect, useRef, useState } from 'react';
import { textOf } from '@/device/cache/snapshot-cache';
import { deviceName } from '@/device/store/device-name';
import type { KeptCopy } from '@/device/store/store';

interface OtherDevice {
  /** Where the reader has read on to on another device, while they had moved here too; null when they have not. */
  readOnTo: number | null;
  goThere(): void;
}

/**
 * Follows a text that is read on elsewhere while it is open here. Where nothing has been moved since it was opened, the text
 * goes along; where the reader is at it themselves, the other place is offered.
 *
 * @param position of the text that is open here: `stays` tells whether the reader has a place here that must not be left
 */
export function useOtherDevice(
  item: Item,
  copy: KeptCopy,
  position: { rest(offset: number): void; stays(): boolean },
): OtherDevice {
  const { position: recorded } = item.progress;
  const seen = useRef(recorded?.at ?? '');
  const [readOnTo, offer] = useState<number | null>(null);
  const { rest, stays } = position;
  useEffect(() => {
    if (!recorded || recorded.at <= seen.current) return;
    seen.current = recorded.at;
    if (recorded.at.endsWith(`-${deviceName}`)) {
      // The reader moves on here: what is elsewhere is passed.
      offer(null);
      return;
    }
    const { plain, starts } = textOf(copy);
    const to = findAnchor(plain, starts, recorded.value);
    if (stays()) offer(to);
    else rest(to);
  }, [recorded, copy, rest, stays]);
  const goThere = useCallback(() => {
    if (readOnTo !== null) rest(readOnTo);
    offer(null);
  }, [readOnTo, rest]);
  return { readOnTo, goThere };
}
