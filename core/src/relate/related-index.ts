import type { Related } from '../nearness';
import { MAX_PHRASES, resemblance, type TermProfile } from '../terms';
import { createNumbering } from './numbering';

/**
 * Which items of a library are near to one another: the vector space model with the term weighting of BM25 (Robertson
 * and Zaragoza 2009, "The Probabilistic Relevance Framework") in both texts, compared by cosine. A term counts the
 * more the rarer it is in the library, and ever less the more often one text repeats it. A text that speaks of what
 * the other's title names is nearer still (ours: on FOLDOC it lifts P@5 from .23 to .31),
 * and one of few names and terms less near than its share of them would have it (ours: to .32).
 *
 * Incremental: an item is put in and taken out at any time; weights are computed when they are asked for. Items and
 * terms have numbers, so that what is summed up stands in plain arrays:
 *
 *     entries    number of an item → its terms and how often it has them
 *     postings   number of a term → the items that have it, and how often   (to meet only those that share something)
 */
export interface RelatedIndex {
  readonly size: number;
  has(id: string): boolean;
  /** Puts an item in, or in the place of its earlier profile. */
  put(id: string, profile: TermProfile): void;
  remove(id: string): void;
  /** The items nearest to one, nearest first; empty when it is not in the index. */
  related(id: string, most: number): Related[];
  /** How near an item is to each of some others that it has anything in common with. */
  nearnessTo(id: string, others: readonly string[]): Related[];
  /** Keys of the names and terms that an item makes most of; see keyPhrases. None when it is not in the index. */
  subjectsOf(id: string): readonly string[];
}

/** How fast repetition stops counting, and how far long texts are held back. Chosen on FOLDOC, see bench/related.mjs. */
const SATURATION = 2.5;
const LENGTH_NORM = 0.75;
/** How much rarity counts: as it stands it would make the rarest words of two texts all that counts. Chosen on FOLDOC. */
const RARITY_POWER = 0.8;
/** How much a title that is wholly spoken of raises nearness, at most, for each of the two. */
const TITLE_RAISE = 2;
/** How much more it counts when the other speaks of the title as a whole, as one of its names and terms. */
const NAMED_RAISE = 4;
const MAX_NAME_WORDS = 4;
/** Holds back titles of a single common word; in units of rarity. */
const TITLE_HOLD = 2;
/** A term that more than this part of the library has says nothing about nearness. */
const TOO_COMMON = 0.5;
/** With so many names and terms a text is half as telling as one with very many. Chosen on FOLDOC. */
const HALF_TELLING = 15;
const SHARED_SHOWN = 4;
const PHRASES_SHOWN = 3;
/** So many names and terms say why; with fewer, a word is added. */
const ENOUGH = 2;
/** So many of the terms that a text makes most of are its subjects. */
const SUBJECTS = 20;
/** What at least one of two texts says twice is spoken of; what each says once is only mentioned. */
const SPOKEN_OF = 2;

interface Entry {
  id: string;
  length: number;
  /** Numbers of its terms, those of its title, and beside its terms how often it has them and as what. */
  terms: readonly number[];
  counts: readonly number[];
  forms: readonly string[];
  title: readonly number[];
  phrases: ReadonlyMap<string, { form: string; count: number; salience: number; rank: number }>;
  /** The whole title as one term; null when it is longer than terms are. */
  named: string | null;
  sketch: readonly number[];
}

/** Which items have a term, and beside each how often. */
interface Posting {
  items: number[];
  counts: number[];
}

/** What follows from the library as it is now; thrown away when it changes. */
interface Weighing {
  /** By term: how rare it is; NaN where it was not asked for yet. */
  rarity: Float64Array;
  /** By item: how much its length holds repetition back, and the length of all its weights together. */
  held: Float64Array;
  norm: Float64Array;
}

/** An item among those that an item is near to. */
interface Near {
  at: number;
  nearness: number;
}

const sharesWord = (a: string, b: string): boolean => a.split(' ').some((word) => b.split(' ').includes(word));

export function createRelatedIndex(): RelatedIndex {
  const items = createNumbering();
  const words = createNumbering();
  const entries: (Entry | null)[] = [];
  const postings: Posting[] = [];
  let totalLength = 0;
  let weighing: Weighing | null = null;

  function weighed(): Weighing {
    if (weighing) return weighing;
    const rarity = new Float64Array(postings.length).fill(Number.NaN);
    const held = new Float64Array(entries.length);
    const norm = new Float64Array(entries.length);
    const meanLength = totalLength / items.size || 1;
    weighing = { rarity, held, norm };
    entries.forEach((entry, at) => {
      if (!entry) return;
      held[at] = SATURATION * (1 - LENGTH_NORM + (LENGTH_NORM * entry.length) / meanLength);
      let sum = 0;
      entry.terms.forEach((term, n) => (sum += weight(at, term, entry.counts[n] ?? 0) ** 2));
      norm[at] = Math.sqrt(sum) || 1;
    });
    return weighing;
  }

  /** How rare a term is in the library; 0 for what too many texts have. */
  function rarity(term: number): number {
    const { rarity: known } = weighed();
    const before = known[term] ?? 0;
    if (!Number.isNaN(before)) return before;
    const having = postings[term]?.items.length ?? 0;
    const common = having > 8 && having > TOO_COMMON * items.size;
    const rare = common ? 0 : Math.log(1 + (items.size - having + 0.5) / (having + 0.5)) ** RARITY_POWER;
    known[term] = rare;
    return rare;
  }

  /** What a term weighs in an item that has it so often. */
  const weight = (at: number, term: number, count: number): number =>
    (count / (count + (weighed().held[at] ?? 0))) * rarity(term);

  /** An item's own terms by number, to look others' up in. */
  function laidOut(at: number, entry: Entry): Float64Array {
    const own = new Float64Array(postings.length);
    const norm = weighed().norm[at] ?? 1;
    entry.terms.forEach((term, n) => (own[term] = weight(at, term, entry.counts[n] ?? 0) / norm));
    return own;
  }

  /** By item: the cosine with `entry`, over the postings of its terms. */
  function cosinesOf(own: Float64Array, entry: Entry): Float64Array {
    const { held, norm } = weighed();
    const cosines = new Float64Array(entries.length);
    for (const term of entry.terms) {
      const mine = own[term] ?? 0;
      const posting = postings[term];
      if (mine === 0 || !posting) continue;
      const worth = mine * rarity(term);
      const { items: having, counts } = posting;
      for (let n = 0; n < having.length; n += 1) {
        const other = having[n] ?? 0;
        const count = counts[n] ?? 0;
        cosines[other] = (cosines[other] ?? 0) + (worth * count) / (count + (held[other] ?? 0));
      }
    }
    for (let other = 0; other < cosines.length; other += 1) cosines[other] = (cosines[other] ?? 0) / (norm[other] ?? 1);
    return cosines;
  }

  function cosineWith(own: Float64Array, at: number, other: Entry): number {
    let sum = 0;
    other.terms.forEach((term, n) => {
      const mine = own[term] ?? 0;
      if (mine !== 0) sum += mine * weight(at, term, other.counts[n] ?? 0);
    });
    return sum / (weighed().norm[at] ?? 1);
  }

  /** How much of a title is spoken of, by the weight of those of its terms that are; 0 to nearly 1. */
  function spokenOf({ title, named }: Entry, isSpoken: (term: number) => boolean, by: Entry): number {
    let spoken = 0;
    let whole = TITLE_HOLD;
    for (const term of title) {
      const worth = rarity(term);
      whole += worth;
      if (isSpoken(term)) spoken += worth;
    }
    if (spoken === 0) return 0;
    return (spoken / whole) * (named !== null && by.phrases.has(named) ? NAMED_RAISE : 1);
  }

  /** How much a text can say of what it is near to: two lines share what they share by chance; 0 to 1. */
  const telling = ({ phrases: { size } }: Entry): number =>
    (size / (size + HALF_TELLING)) * (1 + HALF_TELLING / MAX_PHRASES);

  /** The nearest to an item, nearest first; all that share a term with it where no number is said. */
  function ranked(at: number, entry: Entry, most: number, only?: readonly string[]): Near[] {
    const own = laidOut(at, entry);
    const ofTitle = new Map(entry.title.map((term) => [term, new Set(postings[term]?.items)]));
    const nearnessOf = (other: number, cosine: number): number => {
      const theirs = entries[other];
      if (!theirs || cosine === 0) return 0;
      const titles =
        spokenOf(entry, (term) => ofTitle.get(term)?.has(other) === true, theirs) +
        spokenOf(theirs, (term) => has(entry, own, term), entry);
      return cosine * telling(entry) * telling(theirs) * (1 + TITLE_RAISE * titles);
    };
    const best = createBest(most);
    if (only)
      for (const id of new Set(only)) {
        const other = items.of(id);
        const theirs = other === null ? null : entries[other];
        if (other !== null && theirs && other !== at)
          best.take({ at: other, nearness: nearnessOf(other, cosineWith(own, other, theirs)) });
      }
    else
      cosinesOf(own, entry).forEach((cosine, other) => {
        if (other !== at && cosine !== 0) best.take({ at: other, nearness: nearnessOf(other, cosine) });
      });
    return best.all();
  }

  /** What too many texts have weighs nothing, and yet may be in a title. */
  const has = (entry: Entry, own: Float64Array, term: number): boolean =>
    own[term] !== 0 || (rarity(term) === 0 && entry.terms.includes(term));

  /** Keeps the nearest of those that it is given. */
  function createBest(most: number) {
    let kept: Near[] = [];
    let floor = 0;
    const idOf = ({ at }: Near) => entries[at]?.id ?? '';
    const cut = () => {
      kept.sort((a, b) => b.nearness - a.nearness || (idOf(a) < idOf(b) ? -1 : 1));
      kept = kept.slice(0, most);
    };
    return {
      take(near: Near) {
        if (near.nearness <= 0 || near.nearness < floor) return;
        kept.push(near);
        // Sorted now and then only: for each one it would cost more than what it saves.
        if (kept.length < 4 * most) return;
        cut();
        floor = kept.at(-1)?.nearness ?? 0;
      },
      all() {
        cut();
        return kept;
      },
    };
  }

  function withShared(at: number, entry: Entry, near: Near): Related[] {
    const theirs = entries[near.at];
    if (!theirs) return [];
    return [
      {
        id: theirs.id,
        // Not before they are in order: what speaks of titles may come out above 1.
        nearness: Math.min(1, near.nearness),
        shared: reasons(at, entry, near.at, theirs),
        resemblance: resemblance(entry.sketch, theirs.sketch),
      },
    ];
  }

  /** The names and terms that both come back to; words that come up in both where there are none. */
  function reasons(at: number, entry: Entry, otherAt: number, other: Entry): string[] {
    const phrases = [...entry.phrases]
      .flatMap(([key, { form, count, salience, rank }]) => {
        const theirs = other.phrases.get(key);
        if (!theirs || Math.max(count, theirs.count) < SPOKEN_OF) return [];
        // A single word is a reason where both make much of it; a name or a longer term wherever it stands.
        const isPassing = !key.includes(' ') && !/^\p{Lu}/u.test(form) && Math.max(rank, theirs.rank) >= SUBJECTS;
        if (isPassing) return [];
        const having = key.split(' ').map(rarityOfWord);
        const rare = having.reduce((sum, each) => sum + each, 0) / having.length;
        return [{ key, form, weight: Math.sqrt(salience * theirs.salience) * rare }];
      })
      .filter(({ weight: weighs }) => weighs > 0)
      .sort((a, b) => b.weight - a.weight || (a.key < b.key ? -1 : 1))
      .reduce<{ key: string; form: string }[]>(
        (kept, each) => (kept.some(({ key }) => sharesWord(key, each.key)) ? kept : [...kept, each]),
        [],
      )
      .slice(0, PHRASES_SHOWN);
    const named = phrases.map(({ form }) => form);
    if (named.length >= ENOUGH) return named;
    const shared = sharedTerms(at, entry, otherAt, other);
    return named.length === 0
      ? shared
      : [...named, ...shared.filter((word) => !phrases.some(({ form }) => sharesWord(form, word)))].slice(0, ENOUGH);
  }

  /** A word that the index does not have is as rare as words are. */
  function rarityOfWord(word: string): number {
    const term = words.of(word);
    return term === null ? Math.log(1 + (items.size + 0.5) / 0.5) ** RARITY_POWER : rarity(term);
  }

  /**
   * The terms that make two texts near, for the reader to see. Unlike in nearness itself rarity counts once, not twice:
   * a rare word that each says in passing is a worse reason than the subject that both come back to.
   */
  function sharedTerms(at: number, entry: Entry, otherAt: number, other: Entry): string[] {
    const theirs = new Map(other.terms.map((term, n) => [term, other.counts[n] ?? 0]));
    const joint = entry.terms
      .flatMap((number, n) => {
        const count = entry.counts[n] ?? 0;
        const their = theirs.get(number) ?? 0;
        const rare = rarity(number);
        if (rare === 0 || Math.max(count, their) < SPOKEN_OF || their === 0) return [];
        const weighs = (weight(at, number, count) * weight(otherAt, number, their)) / rare;
        return [{ term: words.nameOf(number), form: entry.forms[n] ?? '', weight: weighs }];
      })
      .sort((one, two) => two.weight - one.weight || (one.term < two.term ? -1 : 1));
    const shown: { term: string; form: string }[] = [];
    for (const each of joint) {
      // A phrase says it better than its words; a word that a shown phrase holds says nothing new.
      const parts = each.term.split(' ');
      if (shown.some(({ term }) => parts.some((part) => term.split(' ').includes(part)))) {
        const single = shown.findIndex(({ term }) => parts.length > 1 && parts.includes(term));
        if (single !== -1) shown[single] = each;
        continue;
      }
      if (shown.length < SHARED_SHOWN) shown.push(each);
    }
    return [...new Set(shown.map(({ form }) => form))];
  }

  function remove(id: string): void {
    const at = items.of(id);
    const entry = at === null ? null : entries[at];
    if (at === null || !entry) return;
    for (const term of entry.terms) {
      const posting = postings[term];
      const place = posting?.items.indexOf(at) ?? -1;
      if (!posting || place === -1) continue;
      // The last one takes its place: their order says nothing.
      const [lastItem, lastCount] = [posting.items.pop() ?? 0, posting.counts.pop() ?? 0];
      if (place < posting.items.length) [posting.items[place], posting.counts[place]] = [lastItem, lastCount];
    }
    entries[at] = null;
    items.free(id);
    totalLength -= entry.length;
    weighing = null;
  }

  const entryOf = (id: string): { at: number; entry: Entry } | null => {
    const at = items.of(id);
    const entry = at === null ? null : entries[at];
    return at === null || !entry ? null : { at, entry };
  };

  return {
    get size() {
      return items.size;
    },
    has: (id) => items.of(id) !== null,
    put(id, profile) {
      remove(id);
      const at = items.take(id);
      const numberOf = (term: string): number => {
        const number = words.take(term);
        postings[number] ??= { items: [], counts: [] };
        return number;
      };
      const terms = profile.terms.map(([term]) => numberOf(term));
      const counts = profile.terms.map(([, count]) => count);
      terms.forEach((term, n) => {
        postings[term]?.items.push(at);
        postings[term]?.counts.push(counts[n] ?? 0);
      });
      entries[at] = {
        id,
        length: profile.length,
        terms,
        counts,
        forms: profile.terms.map(([, , form]) => form),
        title: profile.title.map(numberOf),
        phrases: new Map(
          profile.phrases.map(([key, form, count, salience], rank) => [key, { form, count, salience, rank }]),
        ),
        named: profile.title.length <= MAX_NAME_WORDS ? profile.title.join(' ') : null,
        sketch: profile.sketch,
      };
      totalLength += profile.length;
      weighing = null;
    },
    remove,
    related(id, most) {
      const known = entryOf(id);
      if (!known) return [];
      return ranked(known.at, known.entry, most).flatMap((near) => withShared(known.at, known.entry, near));
    },
    nearnessTo(id, others) {
      const known = entryOf(id);
      if (!known) return [];
      return ranked(known.at, known.entry, others.length, others).flatMap((near) =>
        withShared(known.at, known.entry, near),
      );
    },
    subjectsOf: (id) => [...(entryOf(id)?.entry.phrases.keys() ?? [])].slice(0, SUBJECTS),
  };
}
