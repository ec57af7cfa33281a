import { dueForWords, toWorkOver, type Unworked } from '@dorvel/core/working-over';
import { useMemo } from 'react';
import { dayOf, useToday } from '@/device/store/day';
import { useHighlights, useNotes } from '@/device/store/library';

/** What was marked and waits for the reader's own words: what is due today, and when the next comes. */
export function useWorkOver(): { due: Unworked[]; nextOn: string | null } | undefined {
  const highlights = useHighlights();
  const notes = useNotes();
  const today = useToday();
  return useMemo(() => {
    if (!highlights || !notes) return undefined;
    const all = toWorkOver(highlights, notes, dayOf);
    const due = dueForWords(all, today);
    return { due, nextOn: all[due.length]?.dueOn ?? null };
  }, [highlights, notes, today]);
}
