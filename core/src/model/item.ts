import { z } from 'zod';
import { TextAnchor } from './anchor';
import { extensible } from './extensible';
import { Fact, MAX_FACTS } from './fact';
import { HowMuch } from './how-much';
import { ContentHash, Day, Fraction, Id, Instant, MAX_ADDRESS_LENGTH } from './ids';
import { ArrivalSign, CaptureOutcome, withOutcome, withSigns } from './outcome';
import { MAX_PICTURES, MAX_TYPED, PictureFacts, PictureKind, withWordRegisters, WordsPutRight } from './picture';
import { Place } from './place';
import { stamped, stampedSince } from './register';
import { Spans } from './spans';
import { TagName } from './tag';

/** `inbox → queue → finished`, with `kept` and `let-go` beside them. */
export const Stage = z.enum(['inbox', 'queue', 'finished', 'kept', 'let-go']);
export type Stage = z.infer<typeof Stage>;

/** How often something was done, and the day on which it was done last. */
export const Tally = z.object({ times: z.number().int().nonnegative(), lastOn: Day.nullable() });
export type Tally = z.infer<typeof Tally>;
export const NO_TALLY: Tally = { times: 0, lastOn: null };

/**
 * Blocks of one copy that the reader took out, as places among the blocks of its tree; the copy itself stays as it
 * is. `signs` tells the blocks again in other copies from the same site. None taken out says that the reader decided
 * to leave the copy alone.
 */
export const Tidying = z.object({
  copyId: Id,
  out: z.array(z.number().int().nonnegative()).max(500),
  signs: z.array(z.string().max(200)).max(500),
});
export type Tidying = z.infer<typeof Tidying>;

/** Tidyings of this many copies of an item are kept. */
export const MAX_TIDYINGS = 20;

/**
 * What is done about the sentences of a text that say what the reader has met elsewhere: they are told of; drawn softly
 * and passed over; or not spoken of, since the reader says that they are new.
 */
export const KnownWish = z.enum(['told', 'passed-over', 'disputed']);
export type KnownWish = z.infer<typeof KnownWish>;

/**
 * What the reader decides about an item, and how often it was put before them. Each field is a register of its
 * own: the last writer by clock stamp wins.
 */
export const Choices = extensible({
  stage: stamped(Stage),
  /** The reader's own title; null means the page's. */
  title: stamped(z.string().trim().min(1).max(500).nullable()),
  /** Order in the Queue; smaller is nearer the top. */
  queueRank: stamped(z.number()),
  /** When it was last saved, or saved again: lists put the newest on top. */
  raisedAt: stamped(Instant),
  /** When it was finished; an item can be finished and kept. */
  finishedAt: stamped(Instant.nullable()),
  /** The day on which it is to surface again. */
  comeBackOn: stampedSince(Day.nullable(), null),
  /** How often it was brought back in front of the reader. */
  shown: stampedSince(Tally, NO_TALLY),
  /** How often the reader passed it over when it was. */
  passedOver: stampedSince(Tally, NO_TALLY),
  /** What a save of it keeps; counts from the next time that it is fetched. */
  howMuch: stampedSince(HowMuch, 'words-and-pictures'),
  /** What the reader took out of its copies. */
  tidied: stampedSince(z.array(Tidying).max(MAX_TIDYINGS), []),
  /** What is done about what of it the reader knows. */
  known: stampedSince(KnownWish, 'told'),
  /** When the reader said that it is one of the best; null when they did not. */
  best: stampedSince(Instant.nullable(), null),
  /** What it was called in the list that it came from: its title until its page says one. */
  listedAs: stampedSince(z.string().trim().min(1).max(500).nullable(), null),
  /** Of a picture: the kind that the reader says it is. */
  kindSaid: stampedSince(PictureKind.nullable(), null),
  /** What the reader typed in that stands in its pictures: what nothing else can read. */
  typed: stampedSince(z.string().max(MAX_TYPED).nullable(), null),
  /** Where it was saved, for a reader who wants that kept. */
  place: stampedSince(Place.nullable(), null),
});
export type Choices = z.infer<typeof Choices>;
export type ChoiceField = keyof Choices;

/** How far, as one number whatever carried it, and where the reader stopped. */
export const Progress = extensible({
  /** The furthest fraction of words passed. Never goes down. */
  furthest: Fraction,
  /** The loose end: where to go on. */
  position: stamped(TextAnchor).nullable(),
  /** The parts that went by ear; what else is passed went by eye. */
  heard: Spans.default([]),
});
export type Progress = z.infer<typeof Progress>;

export const Verdict = z.enum(['whole', 'partial', 'failed']);

/** Our verdict on whether the text really arrived, with the signs seen. */
export const CameThrough = z.preprocess(
  withSigns,
  extensible({ verdict: Verdict, signs: z.array(ArrivalSign).max(10).default([]) }),
);
export type CameThrough = z.infer<typeof CameThrough>;

/** What the page says of itself, and the measure of its text. */
const PageFactsNow = extensible({
  title: z.string().max(1000).nullable(),
  authors: z.array(z.string().max(200)).max(40),
  siteName: z.string().max(300).nullable(),
  /** ISO 8601, with its zone where the page states one. */
  publishedAt: z.string().max(40).nullable(),
  modifiedAt: z.string().max(40).nullable().default(null),
  licenceUrl: z.string().max(2000).nullable().default(null),
  facts: z.array(Fact).max(MAX_FACTS).default([]),
  /** BCP 47 tag. */
  language: z.string().max(35).nullable(),
  excerpt: z.string().max(600).nullable(),
  wordCount: z.number().int().nonnegative(),
  /** Silent reading time in minutes, pictures counted. */
  minutes: z.number().nonnegative(),
  pictureCount: z.number().int().nonnegative(),
  thumbnail: ContentHash.nullable(),
  /** Of its site. */
  icon: ContentHash.nullable().default(null),
  /** The copy to be read; null when only the address is kept. */
  copyId: Id.nullable(),
  /** Its pictures, when it is nothing but pictures. */
  pictures: z.array(PictureFacts).max(MAX_PICTURES).default([]),
  cameThrough: CameThrough,
});

/** Records from before authors were a list have them in one line. */
export const PageFacts = z.preprocess((page) => {
  const old = z.looseObject({ byline: z.string().nullable() }).safeParse(page);
  return old.success && !('authors' in old.data)
    ? { ...old.data, authors: old.data.byline === null ? [] : [old.data.byline] }
    : page;
}, PageFactsNow);
export type PageFacts = z.infer<typeof PageFacts>;

/** A copy as a list shows it. */
export const CopyNote = z.object({
  id: Id,
  madeAt: Instant,
  /** Of its text; two copies of one hash say the same. */
  hash: ContentHash,
  wordCount: z.number().int().nonnegative(),
  /** How it came: by our fetching the page, or by the reader's hand. */
  origin: z.enum(['fetched', 'given']),
});
export type CopyNote = z.infer<typeof CopyNote>;

export const MAX_COPIES = 30;

/** An item has at most this many tags, those taken off counted. */
const MAX_TAGS = 200;

/**
 * The item's tags by key (see tagKey), each a register of its own, so that tags given on two devices both stay. A tag
 * that was taken off is null.
 */
export const Tags = z.record(z.string().max(200), stamped(TagName.nullable())).check((context) => {
  if (Object.keys(context.value).length > MAX_TAGS)
    context.issues.push({
      code: 'too_big',
      origin: 'record',
      maximum: MAX_TAGS,
      input: context.value,
      message: 'too-many-tags',
    });
});
export type Tags = z.infer<typeof Tags>;

export const CaptureState = z.enum(['waiting', 'fetching', 'arrived', 'failed']);

/** What the server knows of the page. Only the server writes it; the highest revision wins. */
const CaptureNow = extensible({
  /** The account's sequence number at which the server wrote it; 0 before it has seen the item. */
  revision: z.number().int().nonnegative(),
  state: CaptureState,
  /** What became of it, or is becoming of it. */
  outcome: CaptureOutcome,
  attempts: z.number().int().nonnegative(),
  nextTryAt: Instant.nullable(),
  /** The address in canonical form: the same for two spellings of one page. */
  addressKey: z.string().max(MAX_ADDRESS_LENGTH),
  /** The item that stands for this one, when both turned out to be the same page. */
  duplicateOf: Id.nullable(),
  /** The page's facts; null until a copy has arrived. */
  page: PageFacts.nullable(),
  /** All copies of the item, the newest first. */
  copies: z.array(CopyNote).max(MAX_COPIES).default([]),
  /** When the page was first seen to be gone; null while it is there. */
  goneSince: Instant.nullable().default(null),
});
export const Capture = z.preprocess(withOutcome, CaptureNow);
export type Capture = z.infer<typeof Capture>;

const ItemNow = extensible({
  id: Id,
  /** The address as the reader gave it; never dropped, whatever its page does. */
  address: z.string().min(1).max(MAX_ADDRESS_LENGTH),
  savedAt: Instant,
  choices: Choices,
  tags: Tags.default({}),
  /** Words in its pictures that the reader put right. */
  putRight: WordsPutRight.default({}),
  progress: Progress,
  capture: Capture,
});

/** Anything saved. */
export const Item = z.preprocess(withWordRegisters, ItemNow);
export type Item = z.infer<typeof Item>;

/** The tags that an item has, as the reader wrote them, in alphabetical order. */
export function tagsOf(item: Item): string[] {
  return Object.values(item.tags)
    .flatMap(({ value }) => (value === null ? [] : [value]))
    .sort((a, b) => a.localeCompare(b));
}

/** Whether the words of an item are those of its page: what stood there instead of a text says nothing of it. */
export const hasText = ({ capture: { page } }: Pick<Item, 'capture'>): boolean =>
  page !== null && page.cameThrough.verdict !== 'failed';
