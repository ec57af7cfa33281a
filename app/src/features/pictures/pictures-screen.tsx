import type { Item } from '@dorvel/core/model';
import { kindInWords, kindOfItem, PICTURE_KIND_WORDS } from '@dorvel/core/picture';
import { byRaised } from '@dorvel/core/queue';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { useMemo } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useItemsSoFar } from '@/device/store/items';
import { useHighlights } from '@/device/store/library';
import { useAddSheet } from '@/features/add/add-store';
import { FindField } from '@/features/find/find-bar';
import { hasFilter, useFindQuery } from '@/features/find/find-store';
import { useLibraryFind } from '@/features/find/use-library-find';
import { Button } from '@/ui/button';
import { Chip } from '@/ui/chip';
import { ChipRow } from '@/ui/chip-row';
import { useKeptScroll } from '@/ui/kept-scroll';
import { ScreenHeader } from '@/ui/screen-header';
import { StillReading } from '@/ui/still-reading';
import { useWide } from '@/ui/wide';
import { type WallTile, WindowedWall } from '@/ui/windowed-wall';
import { DensityChoice, useDensity } from './density';
import { useWallSettings, type WallDensity } from './wall-store';

/** The width of a column is about this, in points. */
const COLUMN: Readonly<Record<WallDensity, number>> = { few: 340, more: 220, many: 130 };
const GAP = 12;
/** Below a picture: a line of its title, or with its source. */
const TITLE_HEIGHT = 30;
const TEXT_TILE_HEIGHT = 118;
/** Of a passage so much is shown below a title. */
const PASSAGE_HEIGHT = 104;

const COLOURS = ['red', 'orange', 'yellow', 'green', 'blue', 'purple', 'brown', 'grey'] as const;

/** What was saved to be looked at: pictures at their own proportions, in the order of the Library. */
export function PicturesScreen() {
  const items = useItemsSoFar();
  const find = useLibraryFind(true);
  const { withTexts, change } = useWallSettings();
  const { density, pinch } = useDensity();
  const shown = useMemo(() => {
    const all = find.asked ? find.found : [...(items ?? [])].filter(isHere).sort(byRaised);
    return all.filter((item) => hasPictures(item) || withTexts);
  }, [items, find.asked, find.found, withTexts]);
  const wide = useWide();
  const kept = useKeptScroll('pictures');
  const passages = usePassages(withTexts);
  const tiles = useMemo(
    () => shown.map((item) => tileOf(item, density, passages.get(item.id))),
    [shown, density, passages],
  );
  // With nothing to look at there is nothing to find, nor a size for it.
  const isEmpty = shown.length === 0 && !find.asked;
  const pictures = useMemo(() => shown.filter(hasPictures).length, [shown]);
  if (!items) return <StillReading />;
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[1240px] px-[20px] pb-[60px]"
      {...kept}
      {...pinch}
    >
      <ScreenHeader
        title="Pictures"
        aside={pictures === 0 ? '' : pictures === 1 ? '1 picture' : `${pictures} pictures`}
      >
        {!isEmpty && <FindField />}
        {!isEmpty && <Narrowing />}
        <View className={`gap-[12px] ${isEmpty ? 'pt-[10px]' : ''} ${wide ? 'flex-row items-center' : 'items-start'}`}>
          {!isEmpty && <DensityChoice />}
          <Chip label="Texts between them" on={withTexts} onPress={() => change({ withTexts: !withTexts })} />
        </View>
        {find.asked ? (
          <Text role="status" aria-live="polite" className="pt-[8px] font-ui text-small text-soft">
            {find.says.join(' ')}
          </Text>
        ) : null}
      </ScreenHeader>
      {isEmpty && <NoPictures />}
      <WindowedWall
        name="Pictures"
        tiles={tiles}
        column={COLUMN[density]}
        leastColumns={density === 'few' ? 1 : 2}
        gap={GAP}
      />
    </ScrollView>
  );
}

const isHere = ({ choices }: Item) => choices.stage.value !== 'let-go';
const hasPictures = ({ capture }: Item) => (capture.page?.pictures.length ?? 0) > 0;

const NO_PASSAGES: ReadonlyMap<string, string> = new Map();

/** Of each text that has been marked, the passage that was marked last. */
function usePassages(areWanted: boolean): ReadonlyMap<string, string> {
  const highlights = useHighlights();
  return useMemo(() => {
    if (!areWanted) return NO_PASSAGES;
    return new Map(
      (highlights ?? [])
        .toSorted((a, b) => a.madeAt - b.madeAt)
        .map(({ itemId, choices }) => [itemId, choices.passage.value.exact]),
    );
  }, [highlights, areWanted]);
}

function tileOf(item: Item, density: WallDensity, passage: string | undefined): WallTile {
  const [first] = item.capture.page?.pictures ?? [];
  const title = density === 'many' ? 0 : TITLE_HEIGHT;
  const text = TEXT_TILE_HEIGHT + (passage === undefined ? 0 : PASSAGE_HEIGHT);
  // What is very long is cut, so that it does not take a whole column.
  const proportion = first ? Math.min(2.2, first.height / first.width) : 0;
  return {
    key: item.id,
    height: (width) => (first ? proportion * width + title : text),
    isExact: true,
    draw: () => <Tile item={item} density={density} passage={passage} />,
  };
}

function Tile({ item, density, passage }: { item: Item; density: WallDensity; passage: string | undefined }) {
  const pictures = item.capture.page?.pictures ?? [];
  const [first] = pictures;
  const title = titleOf(item);
  if (!first)
    return (
      <Link href={`/library/${item.id}`} className="wall-text">
        <Text
          className={`font-read font-semibold text-ink ${density === 'many' ? 'text-small' : 'text-row'}`}
          numberOfLines={3}
        >
          {title}
        </Text>
        {passage !== undefined && (
          <Text
            className={`font-read text-ink ${density === 'many' ? 'text-small' : 'text-base'}`}
            numberOfLines={density === 'many' ? 5 : 4}
          >
            {passage}
          </Text>
        )}
        <Text className="font-ui text-small text-soft" numberOfLines={1}>
          {sourceOf(item)}
        </Text>
      </Link>
    );
  const kind = kindOfItem(item.choices, pictures);
  const said = [
    title,
    kind && first.seen ? kindInWords(kind, first.seen) : '',
    pictures.length > 1 ? `${pictures.length} pictures` : '',
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <Link href={`/library/${item.id}`} aria-label={said} className="wall-picture">
      <span className="wall-frame">
        <img
          src={`/api/pictures/${density === 'few' ? first.hash : first.small}.webp`}
          alt=""
          loading="lazy"
          decoding="async"
          onError={(event) => event.currentTarget.classList.add('missing')}
        />
        {pictures.length > 1 && <span className="wall-count">{pictures.length}</span>}
      </span>
      {density !== 'many' && <span className="wall-name">{title}</span>}
    </Link>
  );
}

/** Kinds and colours, as filters of what is looked for. */
function Narrowing() {
  const written = useFindQuery((state) => state.written);
  const { toggle } = useFindQuery.getState();
  const chip = (filter: string, label: string) => (
    <Chip key={filter} label={label} on={hasFilter(written, filter)} onPress={() => toggle(filter)} />
  );
  return (
    <ChipRow name="Narrow by">
      {Object.entries(PICTURE_KIND_WORDS).map(([kind, label]) => chip(`kind:${kind}`, label))}
      {chip('kind:black-and-white', 'Black and white')}
      {COLOURS.map((colour) => chip(`colour:${colour}`, colour))}
    </ChipRow>
  );
}

function NoPictures() {
  const open = useAddSheet((state) => state.open);
  return (
    <View className="items-start gap-[14px] py-[28px]">
      <Text className="font-ui text-base text-soft">
        No pictures yet. Photograph a page, choose or paste a picture, or save one from a page with the browser’s
        button: the words in it are read, and its colours and kind are told, so that it is found by them.
      </Text>
      <Button label="Save a picture" onPress={open} />
    </View>
  );
}
