import { z } from 'zod';
import { ContentHash, Fraction, Stamp } from './ids';
import { stamped } from './register';

/** What kind of picture it is, as far as it can be told from how it looks. */
export const PictureKind = z.enum(['photograph', 'drawing', 'line-drawing', 'diagram', 'screenshot', 'page-of-text']);
export type PictureKind = z.infer<typeof PictureKind>;

/** A colour of a picture: in sRGB, as `#rrggbb`, with the part of the picture that has it, and its plain name. */
export const PictureColour = z.object({
  hex: z.string().regex(/^#[0-9a-f]{6}$/),
  share: Fraction,
  name: z.string().max(30),
});
export type PictureColour = z.infer<typeof PictureColour>;

export const MAX_PICTURE_COLOURS = 5;

/** A reason for a kind: what was measured, and how much of it there was. */
export const KindReason = z.object({
  of: z.enum(['soft', 'paper', 'straight', 'long', 'thin', 'middle', 'text', 'strong', 'grey']),
  /** 0 to 1. */
  amount: z.number().nonnegative(),
});
export type KindReason = z.infer<typeof KindReason>;

/** What was seen in a picture. */
export const PictureSeen = z.object({
  /** By share, the most first. */
  colours: z.array(PictureColour).max(MAX_PICTURE_COLOURS),
  kind: PictureKind,
  why: z.array(KindReason).max(4),
  /** Without any colour but greys. */
  isGrey: z.boolean(),
  /** 64 bits in hexadecimal: pictures that look alike differ in few of them. Null for what is all of one shade. */
  likeness: z
    .string()
    .regex(/^[0-9a-f]{16}$/)
    .nullable(),
  wordCount: z.number().int().nonnegative(),
  /** How many of the words may be wrong. */
  unsureCount: z.number().int().nonnegative(),
});
export type PictureSeen = z.infer<typeof PictureSeen>;

/** A picture that was saved for itself, or one of several pages photographed into one item. */
export const PictureFacts = z.object({
  /** Of the size for a screen. */
  hash: ContentHash,
  /** Of the size for many beside each other. */
  small: ContentHash,
  /** Of the largest size that is kept. */
  large: ContentHash,
  /** Of the size for a screen, in pixels. */
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  /** Null until it was looked at, or when that could not be done. */
  seen: PictureSeen.nullable(),
});
export type PictureFacts = z.infer<typeof PictureFacts>;

/** An item has at most this many pictures of its own. */
export const MAX_PICTURES = 40;

/** A word in a picture. */
export const RecognisedWord = z.object({
  text: z.string().min(1).max(200),
  /** Left, top, width and height in thousandths of the picture's width and height. */
  box: z.tuple([z.number(), z.number(), z.number(), z.number()]),
  /** How sure the recognition is, 0 to 100. */
  sure: z.number().min(0).max(100),
  /** What begins with it: a line, and perhaps a paragraph or a heading. */
  begins: z.enum(['line', 'paragraph', 'heading']).optional(),
});
export type RecognisedWord = z.infer<typeof RecognisedWord>;

/** The words in one picture, in the order in which they are read. */
export const RecognisedPicture = z.object({ hash: ContentHash, words: z.array(RecognisedWord).max(20_000) });
export type RecognisedPicture = z.infer<typeof RecognisedPicture>;

/** A word that the reader put right. */
export const WordPutRight = z.object({
  /** What it was recognised as: of another recognition it says nothing. */
  was: z.string().max(200),
  /** Nothing when there is no word. */
  is: z.string().max(200),
});
export type WordPutRight = z.infer<typeof WordPutRight>;

/** An item has at most so many words put right. */
export const MAX_WORDS_PUT_RIGHT = 1000;

/**
 * Words that the reader put right, by the picture and the place (see placeOfWord), each a register of its own, so that words put
 * right on two devices both stay.
 */
export const WordsPutRight = z
  .record(z.string().max(160), stamped(WordPutRight))
  .refine((all) => Object.keys(all).length <= MAX_WORDS_PUT_RIGHT, 'too-many-words-put-right');
export type WordsPutRight = z.infer<typeof WordsPutRight>;

/** The name of a word's place: that of its picture, and which it is among the words there. */
export const placeOfWord = (hash: string, place: number): string => `${hash} ${place}`;

/** All that was put right in one register, as it was kept at first. */
export const WordsInOne = z.array(WordPutRight.extend({ hash: ContentHash, place: z.number().int().nonnegative() }));

export const wordRegisters = (words: z.infer<typeof WordsInOne>, at: string): WordsPutRight =>
  Object.fromEntries(words.map(({ hash, place, was, is }) => [placeOfWord(hash, place), { value: { was, is }, at }]));

const RegisterOfAll = z.object({ value: WordsInOne, at: Stamp });
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

/** Items from before each word was a register of its own, as they are now. */
export function withWordRegisters(item: unknown): unknown {
  // Asked of every item that is read: a schema of the whole would take a quarter of the time that reading it takes.
  if (!isObject(item) || !isObject(item.choices) || !Object.hasOwn(item.choices, 'putRight')) return item;
  const { putRight, ...choices } = item.choices;
  const old = RegisterOfAll.safeParse(putRight).data;
  if (!old) return item;
  return {
    ...item,
    choices,
    putRight: { ...wordRegisters(old.value, old.at), ...(item.putRight as object | undefined) },
  };
}

/** What a reader types in that stands in a picture, in characters. */
export const MAX_TYPED = 20_000;
