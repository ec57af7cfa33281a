import type { Echo } from '@dorvel/core/echo';
import type { Item } from '@dorvel/core/model';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import { placedIn } from '@/article/placed-in';
import { rangeOfText } from '@/article/text-geometry';
import { useSilences } from '@/device/store/library';
import { useSettledTexts } from '@/device/store/settled-texts';
import { useEchoes } from '@/device/workers/relate/use-related';
import { useReadingSettings } from '@/features/settings/reading-settings-store';

/**
 * Marks what of a text stands elsewhere in the library too (CSS Custom Highlight API).
 *
 * @param text as it is shown, which may be without what the reader took out
 * @param shown how much of the text is set, since what comes later is to show it too
 * @returns in the order of the text
 */
export function useEchoesInText(
  article: RefObject<HTMLElement | null>,
  item: Item,
  copyId: string,
  text: string,
  shown: number,
): readonly Echo[] {
  const density = useReadingSettings((state) => state.echoes);
  const silences = useSilences();
  const question = useMemo(() => {
    if (!silences) return null;
    const of = silences.map(({ what }) => what);
    return {
      itemId: item.id,
      copyId,
      density,
      silenced: {
        terms: of.flatMap((what) => (what.kind === 'term' ? what.key : [])),
        hosts: of.flatMap((what) => (what.kind === 'site' ? what.host : [])),
      },
    };
  }, [silences, item.id, copyId, density]);
  const found = useEchoes(question, useSettledTexts());
  // Until new ones are found, those of before stay.
  const [known, setKnown] = useState<readonly Echo[]>([]);
  if (found !== undefined && found !== known) setKnown(found);
  const placed = useMemo(() => placedIn(text, known), [text, known]);
  useEffect(() => {
    const element = article.current;
    if (!element || !('highlights' in CSS) || placed.length === 0) return undefined;
    const ranges = placed.flatMap(({ start, end }) => rangeOfText(element, start, end) ?? []);
    const marks = new Highlight(...ranges);
    // What the reader marked, and what is spoken, are shown over it.
    marks.priority = -1;
    CSS.highlights.set('echo', marks);
    return () => void CSS.highlights.delete('echo');
  }, [article, placed, shown]);
  return placed;
}
