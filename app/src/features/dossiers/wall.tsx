import type { CompiledDossier, CompiledPart } from '@dorvel/core/dossier';
import type { Fact, Item } from '@dorvel/core/model';
import { factName, inMinutes, PURPOSE_WORDS, sourceOf, titleOf, valueInWords } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { LeadPicture } from '@/features/items/lead-picture';
import { Markdown } from '@/features/notes/markdown';
import { DensityChoice, useDensity } from '@/features/pictures/density';
import type { WallDensity } from '@/features/pictures/wall-store';
import { type WallTile, WindowedWall } from '@/ui/windowed-wall';
import { useTextPictures } from './use-text-pictures';

/** So many facts stand under a picture. */
const FACTS = 3;

/** About the width of a column, in points. */
const COLUMN: Readonly<Record<WallDensity, number>> = { few: 440, more: 260, many: 170 };

/** A dossier as pictures and words laid out to be looked at side by side. */
export function Wall({ compiled: { parts } }: { compiled: CompiledDossier }) {
  const { density, pinch } = useDensity();
  const tiles = useMemo(() => parts.flatMap((part) => tilesOf(part, density === 'many')), [parts, density]);
  return (
    <View className="gap-[14px]" {...pinch}>
      {tiles.length > 1 && <DensityChoice />}
      <WindowedWall name="Wall" tiles={tiles} column={COLUMN[density]} />
    </View>
  );
}

/** A line of small type, in points. */
const LINE = 21;
const PADDING = 24;
/** How many signs stand in a line of so many points. */
const linesOf = (signs: number, width: number) => Math.ceil(signs / Math.max(8, (width - PADDING) / 8.5));

function tilesOf(part: CompiledPart, isSmall: boolean): WallTile[] {
  const key = part.entryId;
  const written = (signs: number) => (width: number) => PADDING + LINE * (1 + linesOf(signs, width));
  switch (part.kind) {
    case 'heading':
      return [{ key, className: 'wall-heading', spans: true, height: () => 48, draw: () => part.text }];
    case 'item':
      return [itemTile(key, part.item, isSmall)];
    case 'search':
      return part.items.map((item) => itemTile(`${key} ${item.id}`, item, isSmall));
    case 'passage':
      return [
        {
          key,
          className: 'wall-tile',
          height: written(1.3 * part.words.length),
          draw: () => (
            <>
              <p className="marked-words">
                <span className={`mark-sample mark-${part.mark}`}>{part.words}</span>
              </p>
              <span className="wall-small">{titleOf(part.of)}</span>
            </>
          ),
        },
      ];
    case 'picture':
      return [
        {
          key,
          className: 'wall-tile',
          height: (width) => PADDING + LINE + 0.7 * width,
          draw: () => (
            <>
              <img src={`/api/pictures/${part.hash}.webp`} alt={part.caption} loading="lazy" />
              <span className="wall-small">{part.caption || titleOf(part.of)}</span>
            </>
          ),
        },
      ];
    case 'note':
      return [
        {
          key,
          className: `wall-tile purpose purpose-${part.purpose}`,
          height: written(part.markdown.length),
          draw: () => (
            <>
              <span className="purpose-name">{PURPOSE_WORDS[part.purpose]}</span>
              <Markdown written={part.markdown} />
            </>
          ),
        },
      ];
    case 'gone':
      return [];
  }
}

function itemTile(key: string, item: Item, isSmall: boolean): WallTile {
  const { page } = item.capture;
  const [own] = page?.pictures ?? [];
  const proportion = own ? own.height / own.width : page?.thumbnail ? 0.66 : 0;
  const facts = isSmall ? [] : (page?.facts.slice(0, FACTS) ?? []);
  return {
    key,
    className: isSmall ? 'wall-tile small' : 'wall-tile',
    height: (width) => (width - PADDING) * proportion + PADDING + LINE * (3 + facts.length),
    draw: () => <ItemTile item={item} facts={facts} />,
  };
}

function ItemTile({ item, facts }: { item: Item; facts: readonly Fact[] }) {
  const { page } = item.capture;
  // The first of its text, which is sharper than what stands for it in lists.
  const [first] = useTextPictures(useMemo(() => [item], [item]));
  return (
    <>
      {first === undefined ? (
        <LeadPicture item={item} />
      ) : (
        <img src={`/api/pictures/${first.hash}.webp`} alt="" loading="lazy" />
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
    </>
  );
}
