import { type CompiledDossier, type CompiledPart, itemsIn } from '@dorvel/core/dossier';
import type { Item } from '@dorvel/core/model';
import { factName, inMinutes, PURPOSE_WORDS, sourceOf, titleOf, valueInWords } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { type ReactNode, useLayoutEffect, useMemo, useRef } from 'react';
import { LeadPicture } from '@/features/items/lead-picture';
import { Markdown } from '@/features/notes/markdown';
import { layWall } from '@/ui/wall-layout';
import { useGrowing } from './use-growing';
import { useTextPictures } from './use-text-pictures';

/** So many facts stand under a picture. */
const FACTS = 3;

/** A dossier as pictures and words laid out to be looked at side by side. */
export function Wall({ compiled }: { compiled: CompiledDossier }) {
  const { parts } = compiled;
  const items = useMemo(() => itemsIn(compiled), [compiled]);
  const inTexts = useTextPictures(items);
  // Of each item the first of its text, which is sharper than what stands for it in lists.
  const first = useMemo(() => new Map([...inTexts].reverse().map(({ itemId, hash }) => [itemId, hash])), [inTexts]);
  const drawn = useGrowing(parts.length);
  const tiles = parts.slice(0, drawn).flatMap((part) => tilesOf(part, first));
  const wall = useLaidOut();
  return (
    <ul className="wall" aria-label="Wall" ref={wall}>
      {tiles}
    </ul>
  );
}

/** The width of a column is at least about this, in points. */
const COLUMN = 260;
const GAP = 16;

/** Lays the tiles of a list out in columns that keep their order by rows: each is as high as what stands in it turns out to be. */
function useLaidOut() {
  const list = useRef<HTMLUListElement>(null);
  useLayoutEffect(() => {
    const wall = list.current;
    if (!wall) return undefined;
    const tiles = [...wall.children].filter((each): each is HTMLElement => each instanceof HTMLElement);
    const lay = () => {
      const width = wall.clientWidth;
      const columns = Math.max(1, Math.floor((width + GAP) / (COLUMN + GAP)));
      wall.style.setProperty('--tile-width', `${(width - GAP * (columns - 1)) / columns}px`);
      const sizes = tiles.map((tile) => ({
        ...{ proportion: 0, below: tile.offsetHeight },
        spans: tile.classList.contains('wall-heading'),
      }));
      const { placed, height } = layWall(sizes, { width, columns, gap: GAP });
      wall.style.height = `${height}px`;
      for (const [n, { left, top }] of placed.entries())
        Object.assign(tiles[n]?.style ?? {}, { left: `${left}px`, top: `${top}px` });
    };
    lay();
    // Pictures come later, and windows change.
    const watch = new ResizeObserver(lay);
    for (const each of [wall, ...tiles]) watch.observe(each);
    return () => watch.disconnect();
  });
  return list;
}

function tilesOf(part: CompiledPart, pictures: ReadonlyMap<string, string>): ReactNode[] {
  const key = part.entryId;
  switch (part.kind) {
    case 'heading':
      return [
        <li key={key} className="wall-heading">
          {part.text}
        </li>,
      ];
    case 'item':
      return [<ItemTile key={key} item={part.item} picture={pictures.get(part.item.id)} />];
    case 'search':
      return part.items.map((item) => (
        <ItemTile key={`${key} ${item.id}`} item={item} picture={pictures.get(item.id)} />
      ));
    case 'passage':
      return [
        <li key={key} className="wall-tile">
          <p className="marked-words">
            <span className={`mark-sample mark-${part.mark}`}>{part.words}</span>
          </p>
          <span className="wall-small">{titleOf(part.of)}</span>
        </li>,
      ];
    case 'picture':
      return [
        <li key={key} className="wall-tile">
          <img src={`/api/pictures/${part.hash}.webp`} alt={part.caption} loading="lazy" />
          <span className="wall-small">{part.caption || titleOf(part.of)}</span>
        </li>,
      ];
    case 'note':
      return [
        <li key={key} className={`wall-tile purpose purpose-${part.purpose}`}>
          <span className="purpose-name">{PURPOSE_WORDS[part.purpose]}</span>
          <Markdown written={part.markdown} />
        </li>,
      ];
    case 'gone':
      return [];
  }
}

function ItemTile({ item, picture }: { item: Item; picture: string | undefined }) {
  const { page } = item.capture;
  const facts = page?.facts.slice(0, FACTS) ?? [];
  return (
    <li className="wall-tile">
      {picture === undefined ? (
        <LeadPicture item={item} />
      ) : (
        <img src={`/api/pictures/${picture}.webp`} alt="" loading="lazy" />
      )}
      <Link href={`/library/${item.id}`} className="wall-title">
        {titleOf(item)}
      </Link>
      <span className="wall-small">
        {sourceOf(item)}
        {page ? ` · ${inMinutes(page.minutes)}` : ''}
      </span>
      {facts.map(({ key, value, of }) => (
        <span key={`${of ?? ''} ${key}`} className="wall-fact">
          {factName(key)}: {valueInWords(value)}
        </span>
      ))}
    </li>
  );
}
