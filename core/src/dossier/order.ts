import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';
import { type DossierEntry, MAX_RANK_LENGTH } from '../model';

/** The rank that an entry gets. */
export interface NewEntryRank {
  id: string;
  rank: string;
}

const rankOf = ({ choices }: DossierEntry): string => choices.rank.value;
const isBefore = (a: string, b: string): boolean => a < b;

/** What is in a dossier, in its order. Two that were put in one place while apart stand beside each other, the same way everywhere. */
export function inOrder(entries: readonly DossierEntry[], dossierId: string): DossierEntry[] {
  return entries
    .filter((each) => each.dossierId === dossierId && !each.choices.removed.value)
    .sort((a, b) => {
      const [x, y] = [rankOf(a), rankOf(b)];
      if (x === y) return isBefore(a.id, b.id) ? -1 : 1;
      return isBefore(x, y) ? -1 : 1;
    });
}

/**
 * Ranks for what is put at a place in the order.
 *
 * @param ordered see inOrder
 * @param at how many stand before it, 0 to all
 * @param count how many are put there
 * @returns `ranks` for them in their order; `others`, the ranks that some of those there get, where they left no room
 */
export function ranksAt(
  ordered: readonly DossierEntry[],
  at: number,
  count: number,
): { ranks: string[]; others: NewEntryRank[] } {
  const before = ordered[at - 1];
  const floor = before ? rankOf(before) : null;
  // Those that share the rank of the one before stand where two devices put them, with nothing between.
  const shared = ordered.slice(at).findIndex((each) => floor === null || isBefore(floor, rankOf(each)));
  const crowd = ordered.slice(at, shared === -1 ? ordered.length : at + shared);
  const next = ordered[at + crowd.length];
  const fresh = generateNKeysBetween(floor, next ? rankOf(next) : null, count + crowd.length);
  if (fresh.some(({ length }) => length > MAX_RANK_LENGTH)) return allAnew(ordered, at, count);
  return {
    ranks: fresh.slice(0, count),
    others: crowd.map(({ id }, n) => ({ id, rank: fresh[count + n] ?? '' })),
  };
}

/** Ranks that have grown too long, all of them made anew. */
function allAnew(ordered: readonly DossierEntry[], at: number, count: number) {
  const fresh = generateNKeysBetween(null, null, ordered.length + count);
  return {
    ranks: fresh.slice(at, at + count),
    others: ordered.map(({ id }, n) => ({ id, rank: fresh[n < at ? n : n + count] ?? '' })),
  };
}

/**
 * What changes when things that stand together are put elsewhere.
 *
 * @param from where the first of them stands
 * @param count how many of them
 * @param to how many of the others stand before them afterwards
 */
export function moveEntries(ordered: readonly DossierEntry[], from: number, count: number, to: number): NewEntryRank[] {
  const moving = ordered.slice(from, from + count);
  const rest = [...ordered.slice(0, from), ...ordered.slice(from + count)];
  if (moving.length === 0 || to === from || to < 0 || to > rest.length) return [];
  const { ranks, others } = ranksAt(rest, to, moving.length);
  return [...moving.map(({ id }, n) => ({ id, rank: ranks[n] ?? '' })), ...others];
}

/** The first rank of all. */
export const FIRST_RANK = generateKeyBetween(null, null);

/** Ranks after all there are, for who does not have the whole order at hand. @param last of those; null when there are none */
export const ranksAfter = (last: string | null, count: number): string[] => generateNKeysBetween(last, null, count);
