import type { Item } from '@dorvel/core/model';
import { type PlacedWord, placedWords } from '@dorvel/core/picture';
import { useMemo } from 'react';
import type { Piece } from '@/article/article-body';
import { BEFORE_ALL } from '@/article/reading-place';
import { readPlaces } from '@/article/use-found-place';
import type { KeptCopy } from '@/device/store/store';

const NO_WORDS: readonly PlacedWord[] = [];

/** The words of an item's pictures with where they stand in its text. */
export function usePlacedWords(item: Item, { recognised }: KeptCopy, text: string): readonly PlacedWord[] {
  const { putRight } = item;
  return useMemo(() => (recognised ? placedWords(text, recognised, putRight) : NO_WORDS), [text, recognised, putRight]);
}

/** What was found, as pieces of the pictures that it stands in. */
export function useFoundPieces(
  words: readonly PlacedWord[],
  at: string | undefined,
): ReadonlyMap<string, readonly Piece[]> {
  return useMemo(() => {
    const pieces = new Map<string, Piece[]>();
    const places = words.length === 0 ? [] : readPlaces(at);
    for (const { hash, word, start, end } of words) {
      if (!places.some((place) => place.start < end && start < place.end)) continue;
      const address = `/api/pictures/${hash}.webp`;
      pieces.set(address, [...(pieces.get(address) ?? []), word.box]);
    }
    return pieces;
  }, [words, at]);
}

/** Where the text that stands before a picture ends, for what stands in the picture: the picture follows there. */
export function beforePicture(words: readonly PlacedWord[], offset: number): number | null {
  const hash = words.find(({ end }) => end > offset)?.hash;
  if (hash === undefined) return null;
  const first = words.findIndex((each) => each.hash === hash);
  return words[first - 1]?.end ?? BEFORE_ALL;
}
