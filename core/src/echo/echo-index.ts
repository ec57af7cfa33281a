import type { TermProfile } from '../terms';

/** What of a library's texts its echoes are made from. Incremental: an item is put in and taken out at any time. */
export interface EchoIndex {
  readonly size: number;
  /** Puts an item in, or in the place of its earlier profile. */
  put(id: string, profile: Pick<TermProfile, 'phrases' | 'title'>): void;
  remove(id: string): void;
  /** The items that speak of a term, those that make most of it first; none of a term that says nothing here. */
  speaking(wanted: SpokenOf): string[];
  /** How telling a term is for somebody who reads something else: 0 when no other item speaks of it. */
  worth(wanted: SpokenOf): number;
}

export interface SpokenOf {
  /** Of a term; see keyPhrases. */
  key: string;
  /** How often an item has to say it at least: who says it in passing does not speak of it. */
  least: number;
  /** How far down among all that an item speaks of it may stand; 0 is what it makes most of. */
  within: number;
  /** Whether it is written as a name, and so has to be one there: Ebbe is nobody's ebb. */
  isName: boolean;
  /** The items that are not meant: the one that is open, those of a silenced site. */
  not(id: string): boolean;
}

/** How an item speaks of a term. */
interface Spoken {
  count: number;
  salience: number;
  rank: number;
  /** Most often with a small letter. */
  isSmall: boolean;
  /** How much of the item's title it is, 0 to 1. */
  ofTitle: number;
}

/** What more than this part of the library speaks of reminds nobody of anything. */
const TOO_COMMON = 0.25;
/** In a small library a few items are a large part of it. */
const ALWAYS_FEW = 4;

/** How much more telling a term is when another item's title is just that: the item is about it. Chosen on one half of FOLDOC. */
const TITLE_RAISE = 2;

/** An item that speaks of a term, and how. */
interface Speaker extends Pick<Spoken, 'salience' | 'ofTitle'> {
  id: string;
}

/** How much of a title a term is, when it stands there with all its words; else 0. */
function shareOf(key: string, title: readonly string[]): number {
  const words = key.split(' ');
  return title.length > 0 && words.every((word) => title.includes(word)) ? Math.min(1, words.length / title.length) : 0;
}

export function createEchoIndex(): EchoIndex {
  const keysOf = new Map<string, readonly string[]>();
  const items = new Map<string, Map<string, Spoken>>();

  function remove(id: string): void {
    for (const key of keysOf.get(id) ?? []) {
      const having = items.get(key);
      having?.delete(id);
      if (having?.size === 0) items.delete(key);
    }
    keysOf.delete(id);
  }

  function speakers({ key, least, within, isName, not }: SpokenOf): Speaker[] {
    const having = items.get(key);
    if (!having || (having.size > ALWAYS_FEW && having.size > TOO_COMMON * keysOf.size)) return [];
    return [...having]
      .flatMap(([id, { count, salience, rank, isSmall, ofTitle }]) =>
        count >= least && rank < within && !(isName && isSmall) && !not(id) ? [{ id, salience, ofTitle }] : [],
      )
      .sort((a, b) => b.salience - a.salience || (a.id < b.id ? -1 : 1));
  }

  return {
    get size() {
      return keysOf.size;
    },
    put(id, { phrases, title }) {
      remove(id);
      keysOf.set(
        id,
        phrases.map(([key]) => key),
      );
      for (const [rank, [key, form, count, salience]] of phrases.entries()) {
        const having = items.get(key) ?? new Map<string, Spoken>();
        having.set(id, { count, salience, rank, isSmall: /^\p{Ll}/u.test(form), ofTitle: shareOf(key, title) });
        items.set(key, having);
      }
    },
    remove,
    speaking: (wanted) => speakers(wanted).map(({ id }) => id),
    worth(wanted) {
      const speaking = speakers(wanted);
      const rarity = Math.log(1 + keysOf.size / (items.get(wanted.key)?.size ?? 1));
      const ofTitle = speaking.reduce((most, each) => Math.max(most, each.ofTitle), 0);
      return (speaking[0]?.salience ?? 0) * (1 + TITLE_RAISE * ofTitle) * rarity;
    },
  };
}
