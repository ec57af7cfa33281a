import type { Item, PictureSeen } from '../model';

/** Of 64 bits, so many may differ between a picture and the same one made smaller, written again or a little lighter. */
const SAME_BITS = 6;

/** How many of the 64 bits of two pictures' likenesses, written in hexadecimal, differ. */
export function bitsApart(one: string, other: string): number {
  const half = (from: number) =>
    bitsIn(Number.parseInt(one.slice(from, from + 8), 16) ^ Number.parseInt(other.slice(from, from + 8), 16));
  return half(0) + half(8);
}

/** How many of 32 bits are set, pairs, fours and bytes at a time: a library is gone through for each picture that is opened. */
function bitsIn(number: number): number {
  const pairs = number - ((number >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Whether two pictures are the same to the eye. */
export const looksTheSame = (one: string | null, other: string | null): boolean =>
  one !== null && other !== null && bitsApart(one, other) <= SAME_BITS;

/** What two pictures of one kind have in common beside it. */
const SAME_KIND = 0.35;
const SAME_GREYNESS = 0.1;

/** How much two pictures look like each other, 0 to 1: by their kind, and by what of them has the same colours by name. */
export function alikeness(one: PictureSeen, other: PictureSeen): number {
  if (looksTheSame(one.likeness, other.likeness)) return 1;
  const shares = new Map<string, number>();
  for (const { name, share } of other.colours) shares.set(name, (shares.get(name) ?? 0) + share);
  const mine = new Map<string, number>();
  for (const { name, share } of one.colours) mine.set(name, (mine.get(name) ?? 0) + share);
  const common = [...mine].reduce((sum, [name, share]) => sum + Math.min(share, shares.get(name) ?? 0), 0);
  const kind = one.kind === other.kind ? SAME_KIND : 0;
  const grey = one.isGrey === other.isGrey ? SAME_GREYNESS : 0;
  return Math.min(0.99, kind + grey + (1 - SAME_KIND - SAME_GREYNESS) * common);
}

type WithPicture = Pick<Item, 'id' | 'choices' | 'capture'>;

/** What was seen in an item's first picture, of the kind that the reader says it is; null where nothing was looked at. */
function seenIn({ choices, capture }: WithPicture): PictureSeen | null {
  const seen = capture.page?.pictures[0]?.seen ?? null;
  return seen && choices.kindSaid.value ? { ...seen, kind: choices.kindSaid.value } : seen;
}

/** Less than that is no likeness that anybody would see. */
const LEAST_ALIKE = 0.6;

/** A picture that is like another one. */
export interface Alike<Of> {
  item: Of;
  alikeness: number;
  isSame: boolean;
}

/** Of items those whose picture is the same to the eye as an item's, or like it, the most alike first. */
export function alikeTo<Of extends WithPicture>(item: WithPicture, items: readonly Of[]): Alike<Of>[] {
  const mine = seenIn(item);
  if (!mine) return [];
  return items
    .flatMap((other): Alike<Of>[] => {
      const seen = other.id === item.id || other.choices.stage.value === 'let-go' ? null : seenIn(other);
      const much = seen ? alikeness(mine, seen) : 0;
      return seen && much >= LEAST_ALIKE
        ? [{ item: other, alikeness: much, isSame: looksTheSame(mine.likeness, seen.likeness) }]
        : [];
    })
    .sort((a, b) => b.alikeness - a.alikeness);
}

/** Beyond half, so much of a likeness counts for what two pictures may be about: two that are like a third count as one text near it. */
const ABOUT = 0.5;

/** Pictures that are like an item's as neighbours of it, to learn its tags from; see suggestTags in core/nearness. */
export const alikeAsNear = (item: WithPicture, items: readonly WithPicture[], most: number) =>
  alikeTo(item, items)
    .slice(0, most)
    .map((alike) => ({ id: alike.item.id, nearness: ABOUT * (alike.alikeness - 0.5) }));
