import { passageAt } from '@dorvel/core/highlight';
import type { Highlight, HighlightKind, Item } from '@dorvel/core/model';
import { sentences } from '@dorvel/core/text';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import { View } from 'react-native';
import type { PlacedHighlight } from '@/article/at-highlight';
import { offsetAtPoint } from '@/article/text-geometry';
import type { KeptCopy } from '@/device/store/store';
import { CardSheet } from '@/features/cards/card-sheet';
import { usePlayer } from '@/features/listen/player-store';
import { useKeys } from '@/ui/keys';
import { useNotices } from '@/ui/notices';
import { HighlightBar } from './highlight-bar';
import { HighlightSheet } from './highlight-sheet';
import { highlightPart } from './marking';
import { copyPassage, sharePassage } from './share-highlights';
import { type SelectedText, useSelectedText, withoutEdges } from './use-selected-text';

interface ReaderMarksProps {
  article: RefObject<HTMLElement | null>;
  item: Item;
  copy: KeptCopy;
  /** The plain text of the copy. */
  text: string;
  marks: readonly PlacedHighlight[];
  /** Where the eyes are. */
  place: () => number;
  /** The highlight that is open. */
  openId: string | null;
  onOpen(id: string | null): void;
}

/** Marking in an open text: a bar over what is selected, a sheet for what is pressed, a key for the sentence at hand. */
export function ReaderHighlights({ article, item, copy, text, marks, place, openId, onOpen }: ReaderMarksProps) {
  const selected = useSelectedText(article, text);
  const [carded, setCarded] = useState<SelectedText | null>(null);
  const opened = marks.find(({ mark }) => mark.id === openId)?.mark;
  usePressedMark(article, marks, onOpen);
  const isSelected = selected !== null;
  useEffect(() => {
    // The bar stands where notices stand.
    if (isSelected) useNotices.getState().clear();
  }, [isSelected]);
  const markNow = (part: SelectedText, kind: HighlightKind) => {
    getSelection()?.removeAllRanges();
    return highlightPart(item.id, copy.id, text, kind, part);
  };
  useKeys(
    useMemo(
      () => ({
        m: () => {
          const part = selected ?? sentenceAtHand(item.id, text, copy.language, place());
          if (!part) return;
          getSelection()?.removeAllRanges();
          void highlightPart(item.id, copy.id, text, 'key', part);
        },
      }),
      [selected, item.id, copy.id, copy.language, text, place],
    ),
  );
  return (
    <>
      {selected && (
        <View className="pointer-events-none absolute bottom-[10px] left-0 right-0 items-center px-[10px]">
          <HighlightBar
            onMark={(kind) => void markNow(selected, kind)}
            onNote={() => void markNow(selected, 'key').then(onOpen)}
            onCopy={() => void copyPassage(text.slice(selected.start, selected.end))}
            onCard={() => setCarded(selected)}
            onShare={() => void sharePassage(text.slice(selected.start, selected.end), item)}
          />
        </View>
      )}
      {carded && (
        <CardSheet
          source={{
            itemId: item.id,
            highlightId: null,
            passage: passageAt(text, carded.start, carded.end, copy.id),
          }}
          passage={text.slice(carded.start, carded.end)}
          language={copy.language}
          onClose={() => setCarded(null)}
        />
      )}
      {opened && <HighlightSheet key={opened.id} highlight={opened} onClose={() => onOpen(null)} />}
    </>
  );
}

/** The sentence that the voice is at, else the one that the eyes are at. */
function sentenceAtHand(itemId: string, text: string, language: string | null, place: number): SelectedText | null {
  const { hearing, index, playing } = usePlayer.getState();
  const spoken = hearing?.itemId === itemId && playing ? hearing.spoken[index] : undefined;
  const at = spoken?.start ?? place;
  const sentence = spoken ?? sentences(text, language).find(({ end }) => end > at);
  return sentence ? withoutEdges(text, sentence) : null;
}

/** A press on marked words opens the highlight; one on a link inside them follows the link. */
function usePressedMark(
  article: RefObject<HTMLElement | null>,
  marks: readonly PlacedHighlight[],
  open: (id: string) => void,
): void {
  useEffect(() => {
    const element = article.current;
    if (!element) return undefined;
    const pressed = (event: MouseEvent) => {
      const target = event.target instanceof Element ? event.target : null;
      if (target?.closest('a') || getSelection()?.isCollapsed === false) return;
      const at = offsetAtPoint(element, event.clientX, event.clientY);
      const mark = at === null ? undefined : markAt(marks, at);
      if (mark) open(mark.id);
    };
    element.addEventListener('click', pressed);
    return () => element.removeEventListener('click', pressed);
  }, [article, marks, open]);
}

/** Of several highlights at a place the shortest: the others can be reached beside it. */
function markAt(marks: readonly PlacedHighlight[], at: number): Highlight | undefined {
  const length = ({ placed }: PlacedHighlight) => (placed ? placed.end - placed.start : Infinity);
  return marks
    .filter(({ placed }) => placed && placed.start <= at && at < placed.end)
    .sort((a, b) => length(a) - length(b))[0]?.mark;
}
