import type { DossierChoices, DossierWords, HighlightKind, NotePurpose, Stage } from '@dorvel/core/model';
import type { FeedChanges } from '@dorvel/core/records';

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
  /** How often its page has turned since, each time fetched again. */
  turns?: number;
  /** In how many days she wants it back. */
  comeBackInDays?: number;
  /** How often she passed it over when it was brought back. */
  passedOver?: number;
  tags?: string[];
  note?: string;
  /** What she marked in it, each by its first and last words. */
  marks?: { words: string; kind: HighlightKind; note?: string }[];
  /** The cards that she made of it, each from words that it has. */
  cards?: { words: string; front: string; back?: string }[];
  /** What she wrote on it besides; a `toDo` is to be done by that many days from now. */
  notes?: { text: string; toDo?: number }[];
}

export const SEED: SeedEntry[] = [
  { page: 'larch-or-oak', savedDaysAgo: 5, stage: 'inbox' },
  { page: 'ferry-vote-goes-to-the-post', savedDaysAgo: 1, stage: 'inbox' },
  { page: 'a-quiet-engine-for-a-loud-harbour', savedDaysAgo: 2, stage: 'inbox' },
  { page: 'bread-list-closes-early', savedDaysAgo: 4, stage: 'inbox' },
  { page: 'counting-shoots-from-a-kite', savedDaysAgo: 3, stage: 'inbox' },
  { page: 'layl-aljazira', savedDaysAgo: 6, stage: 'inbox' },
  { page: 'loft-talk-night-skies', savedDaysAgo: 6, stage: 'inbox' },
  { page: 'the-winter-the-ferry-stood-still', savedDaysAgo: 2, stage: 'inbox' },
  { page: 'what-an-island-owes', savedDaysAgo: 8, stage: 'inbox' },
  { page: 'parish:/minutes/october', savedDaysAgo: 3, stage: 'inbox' },
  { page: 'rough:/gone', savedDaysAgo: 7, stage: 'inbox' },
  {
    page: 'what-the-eelgrass-knows',
    tags: ['eelgrass', 'tides'],
    savedDaysAgo: 49,
    stage: 'queue',
    read: 0.42,
    heard: [[0.21, 0.42]],
    lastInDaysAgo: 1,
    marks: [
      {
        words: 'A meadow that looks like a field of seedlings may be a single plant',
        kind: 'key',
      },
      {
        words: 'Nobody in the harbour office had thought to ask what the silt does to the light',
        kind: 'to-do',
        note: 'Ask the harbour office whether they have asked since.',
      },
      { words: 'Roots hold sand.', kind: 'quote' },
    ],
    cards: [
      {
        words: 'Each leaf that falls leaves a scar.',
        front: 'Each leaf of eelgrass that falls leaves a [[scar]] on the stem.',
      },
      {
        words: 'Thirteen gaps to a growing season.',
        front: 'A growing season of eelgrass is [[thirteen]] gaps between scars.',
      },
      {
        words: 'Eelgrass is not a seaweed.',
        front: 'What is eelgrass, if it is no seaweed?',
        back: 'A flowering plant that went back into the sea',
      },
    ],
    notes: [
      {
        text: 'For the meeting: **why the north berth shoals**, in three sentences, with Teo’s table.',
        toDo: 9,
      },
      { text: 'The barge is paid by the day. Ask the parish whether it could be paid by the tide.' },
    ],
  },
  {
    page: 'a-ferry-that-belongs-to-its-passengers',
    tags: ['cooperative'],
    savedDaysAgo: 51,
    stage: 'queue',
    read: 0.1,
    lastInDaysAgo: 44,
  },
  { page: 'forty-one-crossings', savedDaysAgo: 41, stage: 'queue', tags: ['cooperative'] },
  { page: 'how-the-old-tables-were-reckoned', savedDaysAgo: 27, stage: 'queue', tags: ['tides', 'charts'] },
  { page: 'the-silt-year', savedDaysAgo: 21, stage: 'queue', tags: ['eelgrass'] },
  {
    page: 'steam-bending-without-a-steam-box',
    savedDaysAgo: 18,
    stage: 'queue',
    read: 0.66,
    tags: ['boats/repair', 'wood'],
  },
  { page: 'why-the-dawn-chorus-starts-at-sea', savedDaysAgo: 13, stage: 'queue' },
  {
    page: 'one-member-one-vote',
    savedDaysAgo: 20,
    stage: 'queue',
    tags: ['cooperative', 'law'],
    note: 'Read before the meeting: does our rule 14 allow a vote by post?',
  },
  {
    page: 'the-oven-behind-the-net-loft',
    savedDaysAgo: 8,
    stage: 'queue',
    read: 0.25,
    lastInDaysAgo: 2,
    tags: ['bread'],
  },
  { page: 'a-meadow-you-can-hear', savedDaysAgo: 11, stage: 'queue' },
  {
    page: 'sky-quality-on-a-small-island',
    savedDaysAgo: 30,
    stage: 'queue',
    comeBackInDays: 9,
    tags: ['night sky'],
    note: 'Lend the meter to the school in January.',
  },
  { page: 'shio-no-oto', savedDaysAgo: 17, stage: 'queue' },
  { page: 'heating-a-wheelhouse', savedDaysAgo: 43, stage: 'queue', passedOver: 3, tags: ['boats'] },
  { page: 'what-amber-did-on-the-pier', savedDaysAgo: 10, stage: 'queue', tags: ['night sky'] },
  { page: 'what-a-reserve-is-for', savedDaysAgo: 70, stage: 'queue', tags: ['eelgrass', 'law'] },
  {
    page: 'the-rock-that-moved',
    tags: ['charts'],
    savedDaysAgo: 80,
    stage: 'finished',
    read: 1,
    heard: [[0, 1]],
    lastInDaysAgo: 9,
  },
  {
    page: 'the-garboard-that-wept',
    savedDaysAgo: 45,
    stage: 'finished',
    read: 1,
    lastInDaysAgo: 12,
    tags: ['boats/repair', 'wood'],
  },
  {
    page: 'rye-in-a-damp-place',
    tags: ['bread'],
    savedDaysAgo: 39,
    stage: 'finished',
    read: 1,
    heard: [[0.1, 1]],
    lastInDaysAgo: 5,
  },
  { page: 'harbour-lights-go-amber', savedDaysAgo: 64, stage: 'finished', read: 1, tags: ['night sky'] },
  { page: 'moor-path-reopens', savedDaysAgo: 15, stage: 'finished', read: 1 },
  { page: 'wren-count-up', savedDaysAgo: 29, stage: 'finished', read: 1 },
  { page: 'seal-holds-up-noon-boat', savedDaysAgo: 7, stage: 'finished', read: 1 },
  { page: 'kittiwake-passes-survey', savedDaysAgo: 20, stage: 'finished', read: 0.9, tags: ['ferry'] },
  { page: 'winter-timetable', savedDaysAgo: 26, stage: 'kept', comeBackInDays: 0, tags: ['ferry'] },
  {
    page: 'bronze-ring-nails',
    savedDaysAgo: 33,
    stage: 'kept',
    tags: ['boats/chandlery'],
    note: 'Fredrik says 65 mm for the garboard.',
  },
  { page: 'red-lead-primer', savedDaysAgo: 33, stage: 'kept', tags: ['boats/chandlery'] },
  { page: 'shaft-motor-forty', savedDaysAgo: 31, stage: 'kept', tags: ['ferry/engine'] },
  { page: 'shaft-motor-twenty-five', savedDaysAgo: 31, stage: 'kept', tags: ['ferry/engine'] },
  { page: 'generator-in-a-box', savedDaysAgo: 31, stage: 'kept', tags: ['ferry/engine'] },
  { page: 'battery-thirty', savedDaysAgo: 31, stage: 'kept', tags: ['ferry/engine'] },
  { page: 'spring-tides-this-month', savedDaysAgo: 1, stage: 'kept', tags: ['tides'] },
  { page: 'oiling-in-october', savedDaysAgo: 36, stage: 'kept', read: 1, tags: ['boats/repair'] },
  { page: 'tides-and-their-terms', savedDaysAgo: 60, stage: 'kept', tags: ['tides', 'charts'] },
  { page: 'ferry-loaf', savedDaysAgo: 35, stage: 'kept', tags: ['bread'] },
  { page: 'midwinter-reading', savedDaysAgo: 5, stage: 'kept', comeBackInDays: 12 },
  { page: 'rough:/turning/little-sound', savedDaysAgo: 90, stage: 'kept', turns: 3 },
  { page: 'tarred-hemp-marline', savedDaysAgo: 33, stage: 'let-go' },
  { page: 'rough:/settled', savedDaysAgo: 12, stage: 'let-go' },
  { page: 'rough:/charset', savedDaysAgo: 34, stage: 'let-go' },
  { page: 'rough:/zip', savedDaysAgo: 9, stage: 'let-go' },
];

/** What she put into a dossier, in its order: a page by its slug, a passage by its words. */
type SeedPart =
  | { item: string; cells?: Record<string, string> }
  | { passage: string }
  | { pictureOf: string; caption: string }
  | { note: string; purpose: NotePurpose }
  | { heading: string; nested?: boolean }
  | { search: string };

/** A set that she chose and put in order. */
export interface SeedDossier {
  set: Partial<DossierChoices & DossierWords> & { title: string };
  /** The page whose picture stands in front. */
  lead?: string;
  /** Columns of her own in its facts table, by their keys. */
  columns?: Record<string, string>;
  parts: SeedPart[];
}

export const DOSSIERS: SeedDossier[] = [
  {
    set: {
      title: 'Eelgrass, for the upper class',
      introduction: 'An hour in the net loft, then down to the shore at low water. Bring boots.',
      closing: 'Whoever finds a leaf with thirteen scars may keep it.',
      design: 'quiet',
      accent: 'moss',
    },
    lead: 'what-the-eelgrass-knows',
    parts: [
      { heading: 'Before we go down' },
      { passage: 'Roots hold sand.' },
      { note: 'Ask them what holds the sand where nothing grows. **Nobody gets told.**', purpose: 'question' },
      { passage: 'A meadow that looks like a field of seedlings may be a single plant' },
      { note: 'One plant, so one age. Let them work out how old by counting back.', purpose: 'bridge' },
      { heading: 'At the water' },
      { pictureOf: 'counting-shoots-from-a-kite', caption: 'The kite, and what hung from it' },
      { item: 'a-meadow-you-can-hear' },
      { note: '1. Listen first.\n2. Count one square.\n3. Draw what you counted.', purpose: 'next-step' },
      { heading: 'Whoever wants more', nested: true },
      { item: 'what-a-reserve-is-for' },
    ],
  },
  {
    set: {
      title: 'Winter reading',
      introduction: 'For the December sheet. Five things to read while the ferry stands still.',
      design: 'almanac',
      accent: 'plum',
      typeface: 'source-serif',
      named: true,
    },
    lead: 'sky-quality-on-a-small-island',
    parts: [
      { item: 'the-winter-the-ferry-stood-still' },
      { note: 'Begin with this one. Everybody knows somebody in it.', purpose: 'judgement' },
      { item: 'the-rock-that-moved' },
      { item: 'sky-quality-on-a-small-island' },
      { note: 'The lamps on the pier are the ones it speaks of.', purpose: 'bridge' },
      { item: 'rye-in-a-damp-place' },
      { item: 'midwinter-reading' },
    ],
  },
  {
    set: {
      title: 'A new engine for the ferry',
      introduction:
        'What the cooperative has to decide in January: **one motor, one battery, one box**. Prices are the chandler’s, as their pages state them.',
      closing: 'Questions to the ferry committee, before the meeting if possible.',
      design: 'report',
      accent: 'plum',
      typeface: 'atkinson',
      named: true,
      withFacts: true,
    },
    lead: 'a-quiet-engine-for-a-loud-harbour',
    columns: { 'own-0001': 'Fits our bearers' },
    parts: [
      { heading: 'What it is about' },
      { item: 'a-quiet-engine-for-a-loud-harbour' },
      { note: 'Three proposals in one page. The yard is for both; so am I.', purpose: 'summary' },
      { heading: 'What there is to be had' },
      { item: 'shaft-motor-forty', cells: { 'own-0001': 'yes, by 20 mm' } },
      { item: 'shaft-motor-twenty-five', cells: { 'own-0001': 'yes' } },
      { note: 'Forty kilowatts, because of the head wind. Twenty-five is for fine days.', purpose: 'judgement' },
      { item: 'battery-thirty', cells: { 'own-0001': 'under the benches' } },
      { item: 'generator-in-a-box', cells: { 'said.warranty': '3 years', 'own-0001': 'no' } },
      { note: 'They said three years on the telephone. Have it in writing.', purpose: 'next-step' },
      { heading: 'What else there is on it' },
      { search: 'wheelhouse' },
    ],
  },
];

/** What takes her an evening each: they are there where two years of hers are. */
export const LONG_READS: SeedEntry[] = [
  {
    page: 'the-net-loft-tapes',
    savedDaysAgo: 58,
    stage: 'queue',
    read: 0.55,
    heard: [[0.2, 0.55]],
    lastInDaysAgo: 2,
    tags: ['oral history', 'ferry'],
    marks: [
      { words: 'The quiet. If there was a wind you slept.', kind: 'key' },
      { words: 'They give courses in it now.', kind: 'quote' },
      {
        words: 'We were poor before. We only had it in writing that we weren’t.'.replaceAll('’', "'"),
        kind: 'quote',
        note: 'For the wall of the ticket office.',
      },
    ],
  },
  {
    page: 'eleven-tides-in-an-open-boat',
    savedDaysAgo: 30,
    stage: 'queue',
    read: 0.18,
    lastInDaysAgo: 6,
    tags: ['tides', 'boats'],
    marks: [{ words: 'It tells you when to wake up.', kind: 'key', note: 'So do our accounts.' }],
  },
  {
    page: 'what-the-dark-is-for',
    savedDaysAgo: 90,
    stage: 'finished',
    read: 1,
    lastInDaysAgo: 41,
    tags: ['night skies', 'lamps'],
    marks: [
      { words: 'A lamp that shines only on what it was put up for makes no mark on my meter at all.', kind: 'key' },
      { words: 'It is the one kind of filth that is gone the moment that you stop.', kind: 'quote' },
      { words: 'A shade costs eleven pounds.', kind: 'to-do', note: 'Eleven for each lamp of the car deck?' },
    ],
  },
  { page: 'ein-winter-auf-der-faehre', savedDaysAgo: 12, stage: 'queue', tags: ['ferry'] },
  {
    page: 'the-island-in-the-corner',
    savedDaysAgo: 44,
    stage: 'queue',
    read: 0.4,
    lastInDaysAgo: 9,
    tags: ['charts', 'harbour'],
    marks: [
      { words: 'An error that is known has a use.', kind: 'key' },
      { words: 'it looks like water, or like ornament', kind: 'quote', note: 'For the talk: gaps are drawn over.' },
    ],
  },
  {
    page: 'by-laws-of-the-ferry',
    savedDaysAgo: 47,
    stage: 'kept',
    read: 1,
    lastInDaysAgo: 20,
    tags: ['cooperative', 'ferry'],
    marks: [
      { words: 'They had the right temptation in mind and the wrong thief.', kind: 'quote' },
      { words: 'It is not that they are talked round, for hardly anybody says a word.', kind: 'doubt' },
      { words: 'after a night’s sleep'.replace('’', "'"), kind: 'key', note: 'Worth having in our own statutes.' },
    ],
  },
  { page: 'la-nuit-des-terriers', savedDaysAgo: 5, stage: 'queue', tags: ['birds'] },
  {
    page: 'reckoning-a-harbour-by-hand',
    savedDaysAgo: 120,
    stage: 'kept',
    read: 0.3,
    tags: ['tides'],
    lastInDaysAgo: 75,
  },
];

/** The feeds that she follows: `host:/path`, the front page where that names its feed. */
export const FOLLOWED: { address: string; set?: FeedChanges }[] = [
  { address: 'jottings:/' },
  { address: 'glass:/rss.xml' },
  { address: 'lantern:/feed.json' },
  { address: 'chartroom:/index.rdf' },
  { address: 'courier:/', set: { mode: 'save-all', tag: 'harbour news' } },
  { address: 'rough:/lapsed.xml', set: { title: 'Slip and Shore, a newsletter' } },
];
