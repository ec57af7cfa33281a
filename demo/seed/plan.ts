import type { Stage } from '@dorvel/core/model';

/** What Ines has done with a page: how many days ago she saved it, where it is, how far she read. */
export interface SeedEntry {
  /** A slug of the small web's articles, or a path on one of its hosts (`rough:/gone`). */
  page: string;
  savedDaysAgo: number;
  stage: Stage;
  /** 0 to 1; only where she has begun. */
  read?: number;
  /** Parts that she listened to, as fractions; what else is read went by eye. */
  heard?: [from: number, to: number][];
  /** How many days ago she was in it last, or finished it; by default the day after she saved it. */
  lastInDaysAgo?: number;
  /** In how many days she wants it back. */
  comeBackInDays?: number;
}

export const SEED: SeedEntry[] = [
  { page: 'larch-or-oak', savedDaysAgo: 5, stage: 'inbox' },
  { page: 'ferry-vote-goes-to-the-post', savedDaysAgo: 1, stage: 'inbox' },
  { page: 'a-quiet-engine-for-a-loud-harbour', savedDaysAgo: 2, stage: 'inbox' },
  { page: 'bread-list-closes-early', savedDaysAgo: 4, stage: 'inbox' },
  { page: 'counting-shoots-from-a-kite', savedDaysAgo: 3, stage: 'inbox' },
  { page: 'layl-aljazira', savedDaysAgo: 6, stage: 'inbox' },
  { page: 'loft-talk-night-skies', savedDaysAgo: 6, stage: 'inbox' },
  { page: 'parish:/minutes/october', savedDaysAgo: 3, stage: 'inbox' },
  { page: 'rough:/gone', savedDaysAgo: 7, stage: 'inbox' },
  {
    page: 'what-the-eelgrass-knows',
    savedDaysAgo: 49,
    stage: 'queue',
    read: 0.42,
    heard: [[0.21, 0.42]],
    lastInDaysAgo: 1,
  },
  {
    page: 'a-ferry-that-belongs-to-its-passengers',
    savedDaysAgo: 51,
    stage: 'queue',
    read: 0.1,
    lastInDaysAgo: 44,
  },
  { page: 'forty-one-crossings', savedDaysAgo: 41, stage: 'queue' },
  { page: 'how-the-old-tables-were-reckoned', savedDaysAgo: 27, stage: 'queue' },
  { page: 'the-silt-year', savedDaysAgo: 21, stage: 'queue' },
  { page: 'steam-bending-without-a-steam-box', savedDaysAgo: 18, stage: 'queue', read: 0.66 },
  { page: 'why-the-dawn-chorus-starts-at-sea', savedDaysAgo: 13, stage: 'queue' },
  { page: 'one-member-one-vote', savedDaysAgo: 20, stage: 'queue' },
  { page: 'the-oven-behind-the-net-loft', savedDaysAgo: 8, stage: 'queue', read: 0.25, lastInDaysAgo: 2 },
  { page: 'a-meadow-you-can-hear', savedDaysAgo: 11, stage: 'queue' },
  { page: 'sky-quality-on-a-small-island', savedDaysAgo: 30, stage: 'queue', comeBackInDays: 9 },
  { page: 'shio-no-oto', savedDaysAgo: 17, stage: 'queue' },
  { page: 'heating-a-wheelhouse', savedDaysAgo: 43, stage: 'queue' },
  { page: 'what-a-reserve-is-for', savedDaysAgo: 70, stage: 'queue' },
  {
    page: 'the-rock-that-moved',
    savedDaysAgo: 80,
    stage: 'finished',
    read: 1,
    heard: [[0, 1]],
    lastInDaysAgo: 9,
  },
  { page: 'the-garboard-that-wept', savedDaysAgo: 45, stage: 'finished', read: 1, lastInDaysAgo: 12 },
  {
    page: 'rye-in-a-damp-place',
    savedDaysAgo: 39,
    stage: 'finished',
    read: 1,
    heard: [[0.1, 1]],
    lastInDaysAgo: 5,
  },
  { page: 'harbour-lights-go-amber', savedDaysAgo: 64, stage: 'finished', read: 1 },
  { page: 'moor-path-reopens', savedDaysAgo: 15, stage: 'finished', read: 1 },
  { page: 'wren-count-up', savedDaysAgo: 29, stage: 'finished', read: 1 },
  { page: 'seal-holds-up-noon-boat', savedDaysAgo: 7, stage: 'finished', read: 1 },
  { page: 'kittiwake-passes-survey', savedDaysAgo: 20, stage: 'finished', read: 0.9 },
  { page: 'winter-timetable', savedDaysAgo: 26, stage: 'kept', comeBackInDays: 0 },
  { page: 'bronze-ring-nails', savedDaysAgo: 33, stage: 'kept' },
  { page: 'red-lead-primer', savedDaysAgo: 33, stage: 'kept' },
  { page: 'spring-tides-this-month', savedDaysAgo: 1, stage: 'kept' },
  { page: 'oiling-in-october', savedDaysAgo: 36, stage: 'kept', read: 1 },
  { page: 'tarred-hemp-marline', savedDaysAgo: 33, stage: 'let-go' },
  { page: 'rough:/settled', savedDaysAgo: 12, stage: 'let-go' },
  { page: 'rough:/charset', savedDaysAgo: 34, stage: 'let-go' },
  { page: 'rough:/zip', savedDaysAgo: 9, stage: 'let-go' },
];
