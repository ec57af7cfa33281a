import type { PictureSeen } from '../model';

/** Of 64 bits, so many may differ between a picture and the same one made smaller, written again or a little lighter. */
const SAME_BITS = 6;

/** How many of the 64 bits of two pictures' likenesses differ. */
export function bitsApart(one: string, other: string): number {
  let differing = BigInt(`0x${one}`) ^ BigInt(`0x${other}`);
  let count = 0;
  for (; differing > 0n; differing &= differing - 1n) count += 1;
  return count;
}

/** Whether two pictures are the same to the eye. */
export const looksTheSame = (one: string | null, other: string | null): boolean =>
  one !== null && other !== null && bitsApart(one, other) <= SAME_BITS;

/** What two pictures of one kind have in common beside it. */
const SAME_KIND = 0.35;
const SAME_GREYNESS = 0.1;

/**
 * How much two pictures look like each other, 0 to 1: by their kind, and by what of them has the same colours by name.
 *
 * @param kindOf what counts as the kind of each, where the reader says another
 */
export function alikeness(
  one: PictureSeen,
  other: PictureSeen,
  kindOf: (seen: PictureSeen) => PictureSeen['kind'] = ({ kind }) => kind,
): number {
  if (looksTheSame(one.likeness, other.likeness)) return 1;
  const shares = new Map<string, number>();
  for (const { name, share } of other.colours) shares.set(name, (shares.get(name) ?? 0) + share);
  const mine = new Map<string, number>();
  for (const { name, share } of one.colours) mine.set(name, (mine.get(name) ?? 0) + share);
  const common = [...mine].reduce((sum, [name, share]) => sum + Math.min(share, shares.get(name) ?? 0), 0);
  const kind = kindOf(one) === kindOf(other) ? SAME_KIND : 0;
  const grey = one.isGrey === other.isGrey ? SAME_GREYNESS : 0;
  return Math.min(0.99, kind + grey + (1 - SAME_KIND - SAME_GREYNESS) * common);
}
