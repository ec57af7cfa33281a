import type { HighlightKind } from '@dorvel/core/model';
import { type DayBookPage, dayBookPages, drawFrom } from '../small-web/day-books';

/** What became of a page in two years: the same at every start, and no two alike. */
export interface Fate {
  page: DayBookPage;
  /** Days between its appearing and being saved, and between saving and finishing it. */
  savedAfter: number;
  finishedAfter: number;
  end: 'finished' | 'kept' | 'let-go' | 'inbox' | 'queue';
  byEar: boolean;
  tag: string;
  mark: HighlightKind | null;
  note: string | null;
  isBest: boolean;
  isCard: boolean;
}

const TAGS: Readonly<Record<DayBookPage['host'], string>> = {
  daylog: 'ferry/days',
  hide: 'birds',
  toolbench: 'boats/tools',
  nightwatch: 'night skies',
};
const KINDS: readonly HighlightKind[] = ['key', 'key', 'quote', 'question', 'to-do', 'doubt'];
const NOTES = [
  'For the December sheet.',
  'Ask at the net loft whether that is so.',
  'The same as last year, but said better.',
  'Read this to the children on the noon boat.',
  'I would have said the opposite. I did, in March.',
];

/** @returns one for each page of the day books */
export function fates(): Fate[] {
  return dayBookPages().map((page) => {
    const draw = drawFrom(Number(page.slug) * 104_729);
    const end = draw();
    const savedAfter = page.daysAgo > 3 ? Math.floor(draw() * 3) : 0;
    const finishedAfter = 1 + Math.floor(draw() * draw() * 40);
    // What she would read in days to come is not read yet.
    const isWaiting = page.daysAgo - savedAfter - finishedAfter < 1;
    const isRead = end < 0.74 && !isWaiting;
    return {
      page,
      savedAfter,
      finishedAfter,
      end: isWaiting
        ? end < 0.5
          ? 'queue'
          : 'inbox'
        : end < 0.62
          ? 'finished'
          : end < 0.8
            ? 'kept'
            : end < 0.92
              ? 'let-go'
              : end < 0.97
                ? 'queue'
                : 'inbox',
      byEar: draw() < 0.3,
      tag: TAGS[page.host],
      mark: isRead && draw() < 0.4 ? (KINDS[Math.floor(draw() * KINDS.length)] ?? null) : null,
      note: isRead && draw() < 0.12 ? (NOTES[Math.floor(draw() * NOTES.length)] ?? null) : null,
      isBest: isRead && draw() < 0.04,
      isCard: isRead && draw() < 0.1,
    };
  });
}

/** Whether she read it to its end. */
export const isReadIn = ({ end, page }: Fate) => end === 'finished' || (end === 'kept' && Number(page.slug) % 2 === 0);
