import type { Item } from '@dorvel/core/model';
import { sourceInLine, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { boxOfRange, offsetAtPoint } from '@/article/text-geometry';
import { useItemsById } from '@/device/store/items';
import type { Tab } from '@/navigation/tabs';
import { useWayBack } from '@/navigation/way-back';
import { Button } from '@/ui/button';
import { Sheet } from '@/ui/sheet';
import { wish } from './new-to-you';
import { type KnownRun, runsOf } from './runs';
import type { KnownInText } from './use-known-in-text';

interface KnownMarksProps {
  article: RefObject<HTMLElement | null>;
  item: Item;
  tab: Tab;
  text: string;
  known: KnownInText;
  /** How much of the text is set. */
  shown: number;
  /** Whether a press at an offset is meant for something else. */
  isTaken(offset: number): boolean;
}

/** Beside what is passed over a line that tells, pressed, where it was met. Stands in the element that the article fills. */
export function KnownMarks({ article, item, tab, text, known, shown, isTaken }: KnownMarksProps) {
  const { sentences, passedOver } = known;
  const runs = useMemo(() => (passedOver ? runsOf(text, sentences) : []), [passedOver, text, sentences]);
  const places = usePlaces(article, runs, shown);
  const [pressed, setPressed] = useState<KnownRun | null>(null);
  useEffect(() => {
    const element = article.current;
    if (!element || runs.length === 0) return undefined;
    const press = (event: MouseEvent) => {
      const target = event.target instanceof Element ? event.target : null;
      if (event.defaultPrevented || target?.closest('a') || getSelection()?.isCollapsed === false) return;
      const offset = offsetAtPoint(element, event.clientX, event.clientY);
      if (offset === null || isTaken(offset)) return;
      const run = runs.find(({ start, end }) => start <= offset && offset < end);
      if (run) setPressed(run);
    };
    element.addEventListener('click', press);
    return () => element.removeEventListener('click', press);
  }, [article, runs, isTaken]);
  const byId = useItemsById();
  return (
    <>
      {runs.map((run, at) => {
        const place = places[at];
        const other = byId.get(run.itemId);
        return place && other ? (
          <button
            key={run.start}
            type="button"
            className="known-mark"
            style={place}
            aria-label={`Met before, in “${titleOf(other)}”`}
            onClick={() => setPressed(run)}
          />
        ) : null;
      })}
      {pressed && <MetSheet run={pressed} item={item} tab={tab} onClose={() => setPressed(null)} />}
    </>
  );
}

interface Place {
  left: number;
  top: number;
  height: number;
}

/** Where the runs stand, from the article's top edge; looked up again when the text is set anew. */
function usePlaces(article: RefObject<HTMLElement | null>, runs: readonly KnownRun[], shown: number) {
  const [places, setPlaces] = useState<readonly (Place | null)[]>([]);
  useEffect(() => {
    const element = article.current;
    if (!element || runs.length === 0) return undefined;
    const look = () => {
      const around = element.getBoundingClientRect();
      // Before the line, on whichever side lines begin.
      const isRightToLeft = getComputedStyle(element).direction === 'rtl';
      const left = isRightToLeft ? element.offsetLeft + element.offsetWidth - 22 : element.offsetLeft - 22;
      setPlaces(
        runs.map(({ start, end }) => {
          const box = boxOfRange(element, start, end);
          return box && { left, top: box.top - around.top, height: box.height };
        }),
      );
    };
    look();
    const resized = new ResizeObserver(look);
    resized.observe(element);
    return () => resized.disconnect();
  }, [article, runs, shown]);
  return places;
}

function MetSheet({ run, item, tab, onClose }: { run: KnownRun; item: Item; tab: Tab; onClose(): void }) {
  const other = useItemsById().get(run.itemId);
  if (!other) return null;
  return (
    <Sheet title="Met before" onClose={onClose}>
      <Text className="font-ui text-small text-soft">
        In “{titleOf(other)}”, {sourceInLine(other)}. Press a passage to see it there.
      </Text>
      <View role="list">
        {run.sentences.map((sentence) => (
          <View key={sentence.start} role="listitem" className="border-b border-line">
            <Link href={`/${tab}/${other.id}?at=${sentence.met.start}-${sentence.met.end}`} asChild>
              <Pressable
                className="min-h-[44px] gap-[4px] py-[11px]"
                onPress={() => {
                  onClose();
                  const from = {
                    href: `/${tab}/${item.id}?at=${sentence.start}-${sentence.end}`,
                    title: titleOf(item),
                  };
                  useWayBack.getState().take({ from, toItemId: other.id });
                }}
              >
                <Text className="font-ui text-small text-soft">Here: {sentence.form}</Text>
                <Text className="border-l-[2px] border-line pl-[10px] font-read text-base text-ink">
                  {sentence.metAs}
                </Text>
              </Pressable>
            </Link>
          </View>
        ))}
      </View>
      <View className="pt-[12px]">
        <Button
          label="No, this text is new to me"
          onPress={() => {
            onClose();
            wish(item, 'disputed', 'Taken back: nothing of this text is called known.');
          }}
        />
      </View>
    </Sheet>
  );
}
