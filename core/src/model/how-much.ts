import { z } from 'zod';

/** What a save keeps. */
export const HowMuch = z.enum([
  'words-and-pictures',
  'words-only',
  'whole-page',
  'address-only',
  'selected-part',
  'picture',
]);
export type HowMuch = z.infer<typeof HowMuch>;

/** How it is said to the reader. */
export const HOW_MUCH_WORDS: Readonly<Record<HowMuch, string>> = {
  'words-and-pictures': 'Words and pictures',
  'words-only': 'Words only',
  'whole-page': 'Whole page',
  'address-only': 'Address only',
  'selected-part': 'Selected part',
  picture: 'Picture',
};

/** About 14 MB; what comes by mail may be larger than what one push may carry. */
const MAX_GIVEN_SIZE = 14_000_000;
/** Bytes on the way, as JSON in UTF-8: as much as one push may carry with something beside it. */
export const MAX_PUSHED_SIZE = 6_000_000;

/** A text that the reader gives by hand: pasted, or a file of theirs. */
export const GivenText = z.object({
  type: z.enum([
    'text/html',
    'text/plain',
    'text/markdown',
    'multipart/related',
    'message/rfc822',
    'application/pdf',
    'application/epub+zip',
    'image/png',
  ]),
  body: z.string().min(1).max(MAX_GIVEN_SIZE),
  encoding: z.enum(['utf8', 'base64']),
  /** The name of the file that it was in. */
  name: z.string().max(300).optional(),
});
export type GivenText = z.infer<typeof GivenText>;

/** Whether a text is small enough to be given in one push. Characters are not bytes: most have one, some have six. */
export function isPushable(body: string): boolean {
  if (body.length > MAX_PUSHED_SIZE) return false;
  return 6 * body.length <= MAX_PUSHED_SIZE || new TextEncoder().encode(JSON.stringify(body)).length <= MAX_PUSHED_SIZE;
}

/** What a device may give in one push. */
export const PushedText = GivenText.refine(({ body }) => isPushable(body), 'given-text-too-large');
