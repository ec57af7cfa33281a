import type { Echo } from '@dorvel/core/echo';
import type { ArticleTree, Note } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { HIGHLIGHT_KIND_WORDS, titleOf } from '@dorvel/core/wording';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import type { PlacedHighlight } from '@/article/at-highlight';
import { textOfRange, topOfOffset } from '@/article/text-geometry';
import { useItemsById } from '@/device/store/items';
import { besideEachOther } from './beside-each-other';
import { noteWords } from './footnote';

interface MarginProps {
  article: RefObject<HTMLElement | null>;
  /** How wide it is, in CSS pixels. */
  width: number;
  /** How much stays free between the edge of what holds the text and the text. */
  free: number;
  echoes: readonly Echo[];
  marks: readonly PlacedHighlight[];
  /** Of the item, by id. */
  notes: ReadonlyMap<string, Note>;
  /** In which the footnotes are. */
  tree: ArticleTree;
  /** How much of the text is set. */
  shown: number;
  onFootnote(id: string): void;
  onEcho(at: number): void;
  onHighlight(id: string): void;
}

/** Between the text and what stands beside it. */
const GAP = 20;

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

/**
 * Where the library answers: beside its line each echo, and what the reader marked and wrote; and what the text itself put at
 * its foot. In what a wide screen leaves free.
 */
export function Margin(props: MarginProps) {
  const { article, width, free, shown } = props;
  const footnotes = useFootnotes(props);
  const entries = useEntries(props, footnotes);
  const holder = useRef<HTMLElement>(null);
  const tops = useTops(article, holder, entries, shown, width);
  if (entries.length === 0) return null;
  return (
    <aside ref={holder} aria-label="Margin" className="margin" style={{ width, left: `calc(100% - ${free - GAP}px)` }}>
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

function useEntries({ echoes, marks, notes, onEcho, onHighlight }: MarginProps, footnotes: readonly Entry[]): Entry[] {
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
    return [...ofEchoes, ...ofMarks, ...footnotes].sort((a, b) => a.offset - b.offset);
  }, [echoes, marks, notes, footnotes, byId, onEcho, onHighlight]);
}

/** The notes of the text itself, each where its mark stands in what is set of it. */
function useFootnotes({ article, tree, shown, onFootnote }: MarginProps): readonly Entry[] {
  const [found, setFound] = useState<readonly Entry[]>([]);
  useEffect(() => {
    const marks = [...(article.current?.querySelectorAll<HTMLAnchorElement>('sup a[href^="#"]') ?? [])];
    setFound(
      marks.flatMap((mark): Entry[] => {
        const id = mark.hash.slice(1);
        const words = noteWords(tree, id);
        const offset = article.current && offsetOfMark(article.current, mark);
        if (words === null || offset === null) return [];
        return [
          {
            id: `footnote ${id} ${offset}`,
            offset,
            heading: `Note ${mark.textContent.replace(/[^\p{L}\p{N}*†‡]/gu, '')}`,
            words,
            isOwn: false,
            press: () => onFootnote(id),
          },
        ];
      }),
    );
  }, [article, tree, shown, onFootnote]);
  return found;
}

/** The place of a footnote's mark, which is itself no part of what is said: behind the words before it in its block. */
function offsetOfMark(article: HTMLElement, mark: HTMLElement): number | null {
  const block = mark.closest<HTMLElement>('[data-start]');
  if (!block) return null;
  const before = document.createRange();
  before.setStart(block, 0);
  before.setEndBefore(mark);
  return (textOfRange(article, before)?.end ?? Number(block.dataset.start) + 1) - 1;
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
