import type { Item } from '@dorvel/core/model';
import { useState } from 'react';

/** The picture that a page puts first, where it is on this device or can be had; nothing where not. */
export function LeadPicture({ item }: { item: Item }) {
  const hash = item.capture.page?.thumbnail ?? null;
  const [missing, setMissing] = useState<string | null>(null);
  if (hash === null || missing === hash) return null;
  // It shows nothing that the text does not say: it has no name.
  return <img className="lead-picture" src={`/api/pictures/${hash}.webp`} alt="" onError={() => setMissing(hash)} />;
}
