import type { ArticleTree } from '@dorvel/core/model';
import { useEffect, useMemo, useState } from 'react';

type Node = ArticleTree['children'][number];

/** Behind the reader's place this many characters are set at once: more than a screen of a phone. */
const AHEAD = 1500;
/** What comes later is set in parts of this many characters, each short enough for a frame or two on a slow phone. */
const PART = 9000;

export interface InParts {
  /** The text in the parts that are set by now. */
  parts: readonly (readonly Node[])[];
  /** How much of the text that is, from 0 to 1. */
  shown: number;
  /** True once all of it is set, and what stands below it may be. */
  whole: boolean;
}

/**
 * A long text is set in parts: first all down to a few screens behind the place at which it is opened, the rest in the frames
 * that follow.
 *
 * @param place an offset in the text
 * @param atOnce true when all of it is needed at once, as for a jump to anywhere
 */
export function useInParts(tree: ArticleTree, place: number, atOnce: boolean): InParts {
  const { parts, ends } = useMemo(() => partsFor(tree, place), [tree, place]);
  // One more than there are parts stands for what is below the text. A short text that was begun is set at once with it, so
  // that the place does not move when it comes.
  const all = parts.length + 1;
  const [count, setCount] = useState(parts.length === 1 && place > 0 ? all : 1);
  const now = atOnce ? all : count;
  useEffect(() => {
    if (now >= all) {
      // What was once set as a whole stays so.
      setCount(all);
      return undefined;
    }
    // Behind the next frame, so that what is set by now is seen and can be moved before more comes.
    let timer: ReturnType<typeof setTimeout>;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => setCount((before) => before + 1));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [now, all]);
  const length = ends.at(-1) ?? 0;
  return {
    parts: now >= parts.length ? parts : parts.slice(0, now),
    shown: length === 0 ? 1 : (ends[Math.min(now, ends.length) - 1] ?? length) / length,
    whole: now >= all,
  };
}

/** The blocks of a text in parts, and where each part ends, in characters of text. */
export function partsFor(tree: ArticleTree, place: number): { parts: Node[][]; ends: number[] } {
  const parts: Node[][] = [];
  const ends: number[] = [];
  let part: Node[] = [];
  let at = 0;
  const end = () => {
    parts.push(part);
    ends.push(at);
    part = [];
  };
  let until = place + AHEAD;
  for (const child of tree.children) {
    part.push(child);
    at += lengthOf(child);
    if (at < until) continue;
    end();
    until = at + PART;
  }
  if (part.length > 0 || parts.length === 0) end();
  return { parts, ends };
}

function lengthOf(node: Node): number {
  if (node.type === 'text') return node.value.length;
  return node.type === 'element' ? node.children.reduce((sum, child) => sum + lengthOf(child), 0) : 0;
}
