import type { Item } from '@dorvel/core/model';
import { useState } from 'react';

/** The same at the end of a row: small, fetched when it comes near, and of one size, so that no row moves for it. */
export function RowPicture({ hash }: { hash: string }) {
  const [missing, setMissing] = useState(false);
  return (
    <img
      className={missing ? 'row-picture missing' : 'row-picture'}
      src={`/api/pictures/${hash}.webp`}
      width={56}
      height={56}
      loading="lazy"
      decoding="async"
      alt=""
      onError={() => setMissing(true)}
    />
  );
}

/** The icon of the site that an item is from; it is said in words beside it. Where it cannot be had, nothing stands there. */
export function SiteIcon({ hash }: { hash: string }) {
  const [missing, setMissing] = useState(false);
  if (missing) return null;
  return (
    <img
      className="site-icon"
      src={`/api/pictures/${hash}.webp`}
      width={16}
      height={16}
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
