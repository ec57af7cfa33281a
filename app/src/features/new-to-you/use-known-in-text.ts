import type { Item } from '@dorvel/core/model';
import { fractionIn } from '@dorvel/core/text';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import { placedIn } from '@/article/placed-in';
import { rangeOfText } from '@/article/text-geometry';
import { plainTextOf } from '@/device/cache/snapshot-cache';
import { useSettledTexts } from '@/device/store/settled-texts';
import type { KeptCopy } from '@/device/store/store';
import type { KnownSentence } from '@/device/workers/relate/relating';
import { useKnown } from '@/device/workers/relate/use-related';
import { useKnownStore } from './known-store';

/** Less than this is not worth a word: some sentence is always said twice. */
const WORTH_TELLING = { fraction: 0.08, sentences: 3 } as const;

export interface KnownInText {
  /** In the order of the text; none where it is too little to speak of, or the reader says otherwise. */
  sentences: readonly KnownSentence[];
  /** How much of the text they are, by its words, 0 to 1. */
  fraction: number;
  /** Whether they are drawn softly, and passed over. */
  passedOver: boolean;
}

const NONE: readonly KnownSentence[] = [];

/**
 * What of an open text the reader has met elsewhere, drawn softly where they want to pass it over (CSS Custom Highlight
 * API).
 *
 * @param shown how much of the text is set, since what comes later is to be drawn so too
 */
export function useKnownInText(
  article: RefObject<HTMLElement | null>,
  item: Item,
  copy: KeptCopy,
  shown: number,
): KnownInText {
  const wish = item.choices.known.value;
  const found = useKnown(item.id, wish === 'disputed' ? null : copy.id, useSettledTexts());
  // Until more is known, what was found stays.
  const [last, setLast] = useState<readonly KnownSentence[]>(NONE);
  if (found !== undefined && found !== last) setLast(found);
  const { plain, starts } = plainTextOf(copy);
  const known = useMemo(() => {
    const sentences = placedIn(plain.text, last);
    const fraction = fractionIn(sentences, starts);
    const isWorthIt = fraction >= WORTH_TELLING.fraction && sentences.length >= WORTH_TELLING.sentences;
    return isWorthIt ? { sentences, fraction } : { sentences: NONE, fraction: 0 };
  }, [plain, starts, last]);
  const keep = useKnownStore((state) => state.keep);
  useEffect(() => keep(copy.id, known.sentences), [keep, copy.id, known]);
  const passedOver = wish === 'passed-over';
  useEffect(() => {
    const element = article.current;
    if (!element || !passedOver || !('highlights' in CSS) || known.sentences.length === 0) return undefined;
    const ranges = known.sentences.flatMap(({ start, end }) => rangeOfText(element, start, end) ?? []);
    const marks = new Highlight(...ranges);
    // Echoes, and what the reader marked, are shown over it.
    marks.priority = -2;
    CSS.highlights.set('known', marks);
    return () => void CSS.highlights.delete('known');
  }, [article, known, passedOver, shown]);
  return useMemo(() => ({ ...known, passedOver }), [known, passedOver]);
}
