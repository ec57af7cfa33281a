import type { Item } from '@dorvel/core/model';

/**
 * The copies that stand for items now, by item: not those of items that were let go or that another item stands for,
 * nor copies that a newer one has replaced.
 *
 * @param here ids of the copies on this device
 */
export function currentCopies(items: readonly Item[], here: readonly string[]): Map<string, string> {
  const kept = new Set(here);
  const current = new Map<string, string>();
  for (const item of items) {
    const copyId = item.capture.page?.copyId;
    if (!copyId || !kept.has(copyId)) continue;
    if (item.choices.stage.value === 'let-go' || item.capture.duplicateOf !== null) continue;
    current.set(item.id, copyId);
  }
  return current;
}
