import ChevronDown from 'lucide-react/dist/esm/icons/chevron-down.mjs';
import ChevronUp from 'lucide-react/dist/esm/icons/chevron-up.mjs';
import X from 'lucide-react/dist/esm/icons/x.mjs';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { Text, View } from 'react-native';
import type { ReadingPlace } from '@/article/reading-place';
import { rangeOfText } from '@/article/text-geometry';
import { IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { findInText, foldText } from './find-in-text';

interface FindInArticleProps {
  place: ReadingPlace;
  article: RefObject<HTMLElement | null>;
  text: string;
  onClose(): void;
}

/** Finds words in the open article: how often they stand in it, and from one to the next. */
export function FindInArticle({ place, article, text, onClose }: FindInArticleProps) {
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const folded = useMemo(() => foldText(text), [text]);
  const found = useMemo(() => findInText(folded, words), [folded, words]);
  const current = found[at];
  useEffect(() => input.current?.focus(), []);
  useEffect(() => {
    const element = article.current;
    if (!element || !('highlights' in CSS)) return undefined;
    const ranges = found.flatMap(({ start, end }) => rangeOfText(element, start, end) ?? []);
    CSS.highlights.set('found-here', new Highlight(...ranges));
    return () => void CSS.highlights.delete('found-here');
  }, [article, found]);
  useEffect(() => {
    const element = article.current;
    if (!element || !current) return undefined;
    place.showFound(current.start);
    const range = rangeOfText(element, current.start, current.end);
    if (range && 'highlights' in CSS) {
      const shown = new Highlight(range);
      shown.priority = 1;
      CSS.highlights.set('found-now', shown);
    }
    return () => void CSS.highlights.delete('found-now');
  }, [place, article, current]);
  const step = (by: 1 | -1) => setAt((found.length + at + by) % Math.max(1, found.length));
  return (
    <View
      role="region"
      aria-label="Find in this article"
      className="z-10 flex-row items-center gap-[2px] border-b border-line bg-raised px-[12px] py-[4px]"
    >
      <input
        ref={input}
        className="find-here"
        type="search"
        aria-label="Words to find in this article"
        value={words}
        onChange={(event) => {
          setWords(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') step(event.shiftKey ? -1 : 1);
          if (event.key === 'Escape') {
            event.stopPropagation();
            onClose();
          }
        }}
      />
      <Text role="status" className="min-w-[64px] px-[6px] text-right font-ui text-small text-soft">
        {words.trim().length < 2 ? '' : found.length === 0 ? 'not here' : `${at + 1} of ${found.length}`}
      </Text>
      <IconButton name="The one before" onPress={() => step(-1)}>
        <Icon of={ChevronUp} tone="ink" size={20} />
      </IconButton>
      <IconButton name="The next one" onPress={() => step(1)}>
        <Icon of={ChevronDown} tone="ink" size={20} />
      </IconButton>
      <IconButton name="End finding" onPress={onClose}>
        <Icon of={X} tone="ink" size={20} />
      </IconButton>
    </View>
  );
}
