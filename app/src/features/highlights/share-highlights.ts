import type { Item } from '@dorvel/core/model';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { useNotices } from '@/ui/notices';

/** A passage in quotation marks, with where it is from: as it is handed on to others. */
export function quotationOf(passage: string, item: Item): string {
  const source = [titleOf(item), sourceOf(item)].filter((part, at, all) => all.indexOf(part) === at).join(', ');
  return `“${passage.trim()}”\n\n${source}\n${item.address}`;
}

/** Puts a passage on the clipboard as it stands. */
export async function copyPassage(passage: string): Promise<void> {
  await navigator.clipboard.writeText(passage);
  useNotices.getState().show({ text: 'The passage is copied.' });
}

/** Hands a passage on with its source: by what the device has for that, else on the clipboard. */
export async function sharePassage(passage: string, item: Item): Promise<void> {
  const text = quotationOf(passage, item);
  const data = { text };
  if (!('share' in navigator) || !navigator.canShare(data)) {
    await navigator.clipboard.writeText(text);
    useNotices.getState().show({ text: 'The passage is copied, with its source.' });
    return;
  }
  try {
    await navigator.share(data);
  } catch (error) {
    // The reader thought better of it.
    if (error instanceof DOMException && error.name === 'AbortError') return;
    throw error;
  }
}
