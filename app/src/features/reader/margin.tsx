import type { Echo } from '@dorvel/core/echo';
import type { Note } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { HIGHLIGHT_KIND_WORDS, titleOf } from '@dorvel/core/wording';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import type { PlacedHighlight } from '@/article/at-highlight';
import { topOfOffset } from '@/article/text-geometry';
import { useItemsById } from '@/device/store/items';
import { besideEachOther } from './beside-each-other';

interface MarginProps {
  article: RefObject<HTMLElement | null>;
  /** How wide it is, in CSS pixels. */
  width: number;
  echoes: readonly Echo[];
  marks: readonly PlacedHighlight[];
  /** Of the item, by id. */
  notes: ReadonlyMap<string, Note>;
  /** How much of the text is set. */
  shown: number;
  onEcho(at: number): void;
  onHighlight(id: string): void;
}

/** What stands beside a line of the text. */
interface Entry {
  id: string;
  /** Of the text. */
  offset: number;
  heading: string;
  words: string;
  isOwn: boolean;
  press(): void;
}

/** Where the library answers: beside its line each echo, and what the reader marked and wrote. In what a wide screen leaves free. */
export function Margin(props: MarginProps) {
  const { article, width, shown } = props;
  const entries = useEntries(props);
  const holder = useRef<HTMLElement>(null);
  const tops = useTops(article, holder, entries, shown, width);
  if (entries.length === 0) return null;
  return (
    <aside ref={holder} aria-label="Margin" className="margin" style={{ width }}>
      {entries.map(({ id, heading, words, isOwn, press }, at) => (
        <button
          key={id}
          type="button"
          className={isOwn ? 'margin-entry own' : 'margin-entry'}
          style={{ top: tops[at] ?? 0, visibility: tops[at] === undefined ? 'hidden' : 'visible' }}
          onClick={press}
        >
          <span className="margin-heading">{heading}</span>
          <span className="margin-words">{words}</span>
        </button>
      ))}
    </aside>
  );
}

function useEntries({ echoes, marks, notes, onEcho, onHighlight }: MarginProps): Entry[] {
  const byId = useItemsById();
  return useMemo(() => {
    const ofEchoes = echoes.map(({ key, start, form, items }, at): Entry => {
      const [first] = items.flatMap((id) => byId.get(id) ?? []);
      const more = items.length > 1 ? `, and ${items.length - 1} more` : '';
      return {
        id: `echo ${key}`,
        offset: start,
        heading: `“${form}” elsewhere`,
        words: first ? `${titleOf(first)}${more}` : '',
        isOwn: false,
        press: () => onEcho(at),
      };
    });
    const ofMarks = marks.flatMap(({ mark, placed }): Entry[] => {
      if (!placed) return [];
      const own = [...notes.values()].filter(({ on }) => on.kind === 'highlight' && on.id === mark.id);
      return [
        {
          id: `highlight ${mark.id}`,
          offset: placed.start,
          heading: HIGHLIGHT_KIND_WORDS[mark.choices.kind.value],
          words: own.map(noteText).join(' '),
          isOwn: true,
          press: () => onHighlight(mark.id),
        },
      ];
    });
    return [...ofEchoes, ...ofMarks].sort((a, b) => a.offset - b.offset);
  }, [echoes, marks, notes, byId, onEcho, onHighlight]);
}

/** Where the entries stand, from the article's top edge: beside their line, or below the one before. */
function useTops(
  article: RefObject<HTMLElement | null>,
  holder: RefObject<HTMLElement | null>,
  entries: readonly Entry[],
  shown: number,
  width: number,
): readonly number[] {
  const [tops, setTops] = useState<readonly number[]>([]);
  useEffect(() => {
    const element = article.current;
    if (!element || entries.length === 0) return undefined;
    const look = () => {
      const heights = [...(holder.current?.children ?? [])].map((child) => child.clientHeight);
      const wanted = entries.map(({ offset }) => topOfOffset(element, offset, element));
      setTops(besideEachOther(wanted, heights));
    };
    look();
    const resized = new ResizeObserver(look);
    resized.observe(element);
    return () => resized.disconnect();
  }, [article, holder, entries, shown, width]);
  return tops;
}
