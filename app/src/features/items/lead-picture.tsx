import type { Item } from '@dorvel/core/model';
import { useState } from 'react';

const PICTURES = {
  lead: { name: 'row-picture', side: 56 },
  icon: { name: 'site-icon', side: 16 },
} as const;

/**
 * A picture in a row: what a page puts first, at the row's end, or the icon of its site, whose name stands beside it. Small, fetched
 * when it comes near, and of one size, so that no row moves for it.
 */
export function RowPicture({ hash, of }: { hash: string; of: keyof typeof PICTURES }) {
  const [missing, setMissing] = useState(false);
  const { name, side } = PICTURES[of];
  return (
    <img
      className={missing ? `${name} missing` : name}
      src={`/api/pictures/${hash}.webp`}
      width={side}
      height={side}
      loading="lazy"
      decoding="async"
      alt=""
      onError={() => setMissing(true)}
    />
  );
}

/** The picture that a page puts first, where it is on this device or can be had; nothing where not. */
export function LeadPicture({ item }: { item: Item }) {
  const hash = item.capture.page?.thumbnail ?? null;
  const [missing, setMissing] = useState<string | null>(null);
  if (hash === null || missing === hash) return null;
  // It shows nothing that the text does not say: it has no name.
  return <img className="lead-picture" src={`/api/pictures/${hash}.webp`} alt="" onError={() => setMissing(hash)} />;
}
