import type { Echo } from '@dorvel/core/echo';
import type { Item } from '@dorvel/core/model';
import { type RefObject, useEffect, useMemo } from 'react';
import { Text } from 'react-native';
import type { ReadingPlace } from '@/article/reading-place';
import { offsetAtPoint } from '@/article/text-geometry';
import type { Tab } from '@/navigation/tabs';
import { useKeys } from '@/ui/keys';
import { Sheet } from '@/ui/sheet';
import { EchoSheet } from './echo-sheet';

interface ReaderEchoesProps {
  article: RefObject<HTMLElement | null>;
  item: Item;
  tab: Tab;
  echoes: readonly Echo[];
  place: ReadingPlace;
  /** Whether a press at an offset is meant for something else, a highlight for instance. */
  isTaken(offset: number): boolean;
  /** The one that is open. */
  pressed: number | null;
  onPress(at: number | null): void;
  /** The list of them was asked for. */
  asked: boolean;
  onDone(): void;
}

/** They were asked for, and there are none. */
const NONE = -1;

/** Echoes in an open text: a press on one shows where else it stands; a key goes to the next one from where the eyes are. */
export function ReaderEchoes({
  article,
  item,
  tab,
  echoes,
  place,
  isTaken,
  pressed,
  onPress,
  asked,
  onDone,
}: ReaderEchoesProps) {
  const at = pressed ?? (asked && echoes.length > 0 ? nextFrom(echoes, place.offset()) : null);
  useEffect(() => {
    const element = article.current;
    if (!element || echoes.length === 0) return undefined;
    const press = (event: MouseEvent) => {
      const target = event.target instanceof Element ? event.target : null;
      if (target?.closest('a') || getSelection()?.isCollapsed === false) return;
      const offset = offsetAtPoint(element, event.clientX, event.clientY);
      if (offset === null || isTaken(offset)) return;
      const found = echoes.findIndex(({ start, end }) => start <= offset && offset < end);
      if (found !== -1) onPress(found);
    };
    element.addEventListener('click', press);
    return () => element.removeEventListener('click', press);
  }, [article, echoes, isTaken, onPress]);
  const go = (to: number) => {
    const echo = echoes[to];
    if (!echo) return;
    place.showFound(echo.start);
    onPress(to);
  };
  const onward = () => (echoes.length === 0 ? onPress(NONE) : go(nextFrom(echoes, place.offset())));
  useKeys(useMemo(() => ({ o: onward }), [echoes, place])); // eslint-disable-line react-hooks/exhaustive-deps -- what it does depends on these two
  const close = () => {
    onPress(null);
    place.foundIsDone();
    onDone();
  };
  if ((asked || pressed === NONE) && echoes.length === 0)
    return (
      <Sheet title="Echoes" onClose={close}>
        <Text className="font-ui text-base text-ink">
          Nothing that this text makes much of stands in another of your items, as far as their texts are on this
          device.
        </Text>
      </Sheet>
    );
  if (at === null || at === NONE) return null;
  return <EchoSheet key={item.id} echoes={echoes} at={at} item={item} tab={tab} onStep={go} onClose={close} />;
}

/** The first echo at or behind an offset, or the first of all. */
function nextFrom(echoes: readonly Echo[], offset: number): number {
  return Math.max(
    0,
    echoes.findIndex(({ end }) => end > offset),
  );
}
