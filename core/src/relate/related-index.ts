import { resemblance, type TermProfile } from '../terms';

/** An item near to another, with what joins them. */
export interface Related {
  id: string;
  /** 0 to 1: the cosine of the two profiles, raised where one speaks of what the other's title names. */
  nearness: number;
  /** The terms that both speak of, as they stand in the texts, the weightiest first. */
  shared: string[];
  /** How much of what both say is the same, word for word, 0 to 1; see resemblance. */
  resemblance: number;
}

/**
 * Which items of a library are near to one another: the vector space model with the term weighting of BM25 (Robertson
 * and Zaragoza 2009, "The Probabilistic Relevance Framework") in both texts, compared by cosine. A term counts the
 * more the rarer it is in the library, and ever less the more often one text repeats it. A text that speaks of what
 * the other's title names is nearer still (ours: on FOLDOC it lifts P@5 from .23 to .26).
 *
 * Incremental: an item is put in and taken out at any time; weights are computed when they are asked for.
 *
 *     profiles   id → its terms
 *     postings   term → the ids that have it         (an inverted index, to meet only those that share something)
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

/** What is farther than this shares words, not a subject: better nothing than something irrelevant. */
export const PLAINLY_RELATED = 0.17;

/** How fast repetition stops counting, and how far long texts are held back. Chosen on FOLDOC, see bench/related.mjs. */
const SATURATION = 2.5;
const LENGTH_NORM = 0.75;
/** How much a title that is wholly spoken of raises nearness, at most, for each of the two. */
const TITLE_RAISE = 2;
/** How much more it counts when the other speaks of the title as a whole, as one of its names and terms. */
const NAMED_RAISE = 2;
const MAX_NAME_WORDS = 4;
/** Holds back titles of a single common word; in units of rarity. */
const TITLE_HOLD = 2;
/** A term that more than this part of the library has says nothing about nearness. */
const TOO_COMMON = 0.5;
const SHARED_SHOWN = 4;
const PHRASES_SHOWN = 3;
/** So many names and terms say why; with fewer, a word is added. */
const ENOUGH = 2;
/** So many of the terms that a text makes most of are its subjects. */
const SUBJECTS = 20;
/** What at least one of two texts says twice is spoken of; what each says once is only mentioned. */
const SPOKEN_OF = 2;

interface Entry {
  length: number;
  title: readonly string[];
  terms: Map<string, { count: number; form: string }>;
  phrases: ReadonlyMap<string, { form: string; count: number; salience: number; rank: number }>;
  /** The whole title as one term; null when it is longer than terms are. */
  named: string | null;
  sketch: readonly number[];
}

/** The weights of an entry's terms, and the length of all of them together. */
interface Vector {
  weights: ReadonlyMap<string, number>;
  norm: number;
}

const sharesWord = (a: string, b: string): boolean => a.split(' ').some((word) => b.split(' ').includes(word));

export function createRelatedIndex(): RelatedIndex {
  const entries = new Map<string, Entry>();
  const postings = new Map<string, Set<string>>();
  let totalLength = 0;
  /** What follows from the library as it is now; thrown away when it changes. */
  const rarities = new Map<string, number>();
  const vectors = new Map<string, Vector>();

  function rarity(term: string): number {
    const known = rarities.get(term);
    if (known !== undefined) return known;
    const having = postings.get(term)?.size ?? 0;
    const common = having > 8 && having > TOO_COMMON * entries.size;
    const rare = common ? 0 : Math.log(1 + (entries.size - having + 0.5) / (having + 0.5));
    rarities.set(term, rare);
    return rare;
  }

  function vectorOf(id: string, entry: Entry): Vector {
    const known = vectors.get(id);
    if (known) return known;
    const meanLength = totalLength / entries.size || 1;
    const held = SATURATION * (1 - LENGTH_NORM + (LENGTH_NORM * entry.length) / meanLength);
    const weights = new Map<string, number>();
    let sum = 0;
    for (const [term, { count }] of entry.terms) {
      const weight = (count / (count + held)) * rarity(term);
      if (weight === 0) continue;
      weights.set(term, weight);
      sum += weight ** 2;
    }
    const vector = { weights, norm: Math.sqrt(sum) || 1 };
    vectors.set(id, vector);
    return vector;
  }

  /** Cosines of an entry with all others that share a term, or with those of `only`. */
  function cosinesOf(id: string, entry: Entry, only?: ReadonlySet<string>): Map<string, number> {
    const own = vectorOf(id, entry);
    const cosines = new Map<string, number>();
    for (const [term, weight] of own.weights)
      for (const other of postings.get(term) ?? []) {
        if (other === id || (only && !only.has(other))) continue;
        const theirs = entries.get(other);
        if (!theirs) continue;
        const { weights, norm } = vectorOf(other, theirs);
        const share = (weight * (weights.get(term) ?? 0)) / (own.norm * norm);
        cosines.set(other, (cosines.get(other) ?? 0) + share);
      }
    return cosines;
  }

  /** How much of a title another text speaks of, by the weight of its terms; 0 to nearly 1. */
  function titleSpokenOf({ title, named }: Entry, by: Entry): number {
    let spoken = 0;
    let whole = TITLE_HOLD;
    for (const term of title) {
      const worth = rarity(term);
      whole += worth;
      if (by.terms.has(term)) spoken += worth;
    }
    return (spoken / whole) * (named !== null && by.phrases.has(named) ? NAMED_RAISE : 1);
  }

  /** All that share a term with an entry, nearest first. */
  function ranked(id: string, entry: Entry, only?: ReadonlySet<string>) {
    return [...cosinesOf(id, entry, only)]
      .flatMap(([other, cosine]) => {
        const theirs = entries.get(other);
        if (!theirs) return [];
        const titles = titleSpokenOf(entry, theirs) + titleSpokenOf(theirs, entry);
        return [{ id: other, nearness: Math.min(1, cosine * (1 + TITLE_RAISE * titles)) }];
      })
      .sort((a, b) => b.nearness - a.nearness || (a.id < b.id ? -1 : 1));
  }

  function withShared(id: string, entry: Entry, near: { id: string; nearness: number }): Related {
    const theirs = entries.get(near.id);
    return {
      ...near,
      shared: theirs ? reasons(id, entry, near.id, theirs) : [],
      resemblance: theirs ? resemblance(entry.sketch, theirs.sketch) : 0,
    };
  }

  /** The names and terms that both come back to; words that come up in both where there are none. */
  function reasons(id: string, entry: Entry, otherId: string, other: Entry): string[] {
    const phrases = [...entry.phrases]
      .flatMap(([key, { form, count, salience, rank }]) => {
        const theirs = other.phrases.get(key);
        if (!theirs || Math.max(count, theirs.count) < SPOKEN_OF) return [];
        // A single word is a reason where both make much of it; a name or a longer term wherever it stands.
        const isPassing = !key.includes(' ') && !/^\p{Lu}/u.test(form) && Math.max(rank, theirs.rank) >= SUBJECTS;
        if (isPassing) return [];
        const having = key.split(' ').map((word) => rarity(word));
        const rare = having.reduce((sum, each) => sum + each, 0) / having.length;
        return [{ key, form, weight: Math.sqrt(salience * theirs.salience) * rare }];
      })
      .filter(({ weight }) => weight > 0)
      .sort((a, b) => b.weight - a.weight || (a.key < b.key ? -1 : 1))
      .reduce<{ key: string; form: string }[]>(
        (kept, each) => (kept.some(({ key }) => sharesWord(key, each.key)) ? kept : [...kept, each]),
        [],
      )
      .slice(0, PHRASES_SHOWN);
    const named = phrases.map(({ form }) => form);
    if (named.length >= ENOUGH) return named;
    const words = sharedTerms(vectorOf(id, entry), vectorOf(otherId, other), entry, other);
    return named.length === 0
      ? words
      : [...named, ...words.filter((word) => !phrases.some(({ form }) => sharesWord(form, word)))].slice(0, ENOUGH);
  }

  /**
   * The terms that make two texts near, for the reader to see. Unlike in nearness itself rarity counts once, not twice:
   * a rare word that each says in passing is a worse reason than the subject that both come back to.
   */
  function sharedTerms(a: Vector, b: Vector, ofA: Entry, ofB: Entry): string[] {
    const joint = [...a.weights]
      .filter(([term]) => b.weights.has(term))
      .map(([term, weight]) => ({
        term,
        form: ofA.terms.get(term)?.form ?? term,
        most: Math.max(ofA.terms.get(term)?.count ?? 0, ofB.terms.get(term)?.count ?? 0),
        weight: (weight * (b.weights.get(term) ?? 0)) / rarity(term),
      }))
      .filter(({ most }) => most >= SPOKEN_OF)
      .sort((one, other) => other.weight - one.weight || (one.term < other.term ? -1 : 1));
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
    const entry = entries.get(id);
    if (!entry) return;
    entries.delete(id);
    totalLength -= entry.length;
    for (const term of entry.terms.keys()) {
      const ids = postings.get(term);
      ids?.delete(id);
      if (ids?.size === 0) postings.delete(term);
    }
    changed();
  }

  function changed(): void {
    rarities.clear();
    vectors.clear();
  }

  return {
    get size() {
      return entries.size;
    },
    has: (id) => entries.has(id),
    put(id, profile) {
      remove(id);
      const terms = new Map(profile.terms.map(([term, count, form]) => [term, { count, form }]));
      const phrases = new Map(
        profile.phrases.map(([key, form, count, salience], rank) => [key, { form, count, salience, rank }]),
      );
      const named = profile.title.length <= MAX_NAME_WORDS ? profile.title.join(' ') : null;
      entries.set(id, { length: profile.length, title: profile.title, terms, phrases, named, sketch: profile.sketch });
      totalLength += profile.length;
      for (const term of terms.keys()) {
        const ids = postings.get(term);
        if (ids) ids.add(id);
        else postings.set(term, new Set([id]));
      }
      changed();
    },
    remove,
    related(id, most) {
      const entry = entries.get(id);
      if (!entry) return [];
      return ranked(id, entry)
        .slice(0, most)
        .map((near) => withShared(id, entry, near));
    },
    nearnessTo(id, others) {
      const entry = entries.get(id);
      if (!entry) return [];
      return ranked(id, entry, new Set(others)).map((near) => withShared(id, entry, near));
    },
    subjectsOf: (id) => [...(entries.get(id)?.phrases.keys() ?? [])].slice(0, SUBJECTS),
  };
}
