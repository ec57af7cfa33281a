import type { Item, Passage, SearchResult } from '@dorvel/core/model';
import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { useItemsById } from '@/device/store/items';
import { useFind, useFindReady } from '@/device/workers/find/use-find';
import { useLate } from '@/ui/late';
import { useFindQuery } from './find-store';

interface LibraryFind {
  /** What is looked for; empty for nothing. */
  asked: string;
  found: readonly Item[];
  /** What has only some of what is looked for, to be shown behind what was found. */
  also: readonly Item[];
  passages: Readonly<Record<string, Passage | null>>;
  tags: SearchResult['tags'];
  /** What came of it, in words. */
  says: string[];
  /** More of what was found comes into sight. */
  further(): void;
}

const AT_FIRST = 12;
const NO_TAGS: LibraryFind['tags'] = [];
const NOTHING_FOUND: { found: readonly Item[]; also: readonly Item[] } = { found: [], also: [] };
const NO_PASSAGES: LibraryFind['passages'] = {};

/**
 * What the Library is narrowed to by the reader's query.
 *
 * @param here whether the Library is on screen
 */
export function useLibraryFind(here: boolean): LibraryFind {
  const byId = useItemsById();
  const { written, typing, scope } = useFindQuery();
  const question = here ? written : '';
  const [wanted, setWanted] = useState(AT_FIRST);
  useFindReady(here);
  // It is looked for at the letter itself, and mostly found before another list could have been drawn.
  const { shown, failed } = useFind(question, scope, typing, wanted);
  const looks = question.trim() !== '';
  const late = useLate(looks && shown === null);
  // Letters appear at once; what is found for them comes when there is time.
  const asked = useDeferredValue(looks && (shown !== null || failed || late) ? question.trim() : '');
  const { found, also } = useMemo(() => {
    const itemsOf = (ids: readonly string[]) => ids.flatMap((id) => byId.get(id) ?? []);
    return shown ? { found: itemsOf(shown.answer.ids), also: itemsOf(shown.answer.also) } : NOTHING_FOUND;
  }, [byId, shown]);
  return {
    // Not what is written: with a whole list to exchange the letter would wait for it.
    asked,
    found,
    also,
    passages: shown?.passages ?? NO_PASSAGES,
    tags: shown?.answer.tags ?? NO_TAGS,
    says: failed
      ? ['Something went wrong on this device while looking. Reload the page; nothing is lost.']
      : shown
        ? whatCameOfIt(shown.answer, shown.question.written)
        : ['Looking…'],
    further: useCallback(() => setWanted((before) => before + AT_FIRST), []),
  };
}

/** Conditions alone: `near:58.9,-2.9 kind:drawing`. */
const isOnlyConditions = (written: string): boolean =>
  written
    .trim()
    .split(/\s+/)
    .every((word) => /^-?\p{L}+:/u.test(word));

function whatCameOfIt({ by, ids, count, faults, withoutText }: SearchResult, written: string): string[] {
  const says = [...faults];
  if (ids.length === 0)
    says.push(
      isOnlyConditions(written)
        ? 'No item of yours is so. Take a condition away, or ask for less of it.'
        : 'No item of yours has that. Try fewer words, or another form of them.',
    );
  else if (by === 'near') says.push('Nothing has it as written. These have words spelled nearly so.');
  else if (by === 'some') says.push('Nothing has all of it. These have some, most first.');
  if (count !== null) says.push(`${count} items have it. These are the ${ids.length} nearest to it.`);
  if (withoutText > 0)
    says.push(
      `${withoutText} ${withoutText === 1 ? 'text is' : 'texts are'} not on this device: of those only titles, tags and notes were looked at.`,
    );
  return says;
}
