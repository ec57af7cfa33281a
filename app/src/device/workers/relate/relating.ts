import type { Echo, EchoDensity, EchoPassage } from '@dorvel/core/echo';
import type { GistSentence } from '@dorvel/core/gist';
import type { Subject } from '@dorvel/core/look-back';
import type { Related } from '@dorvel/core/nearness';
import type { Known } from '@dorvel/core/new-to-you';
import type { Closeness } from '@dorvel/core/relate';

/** What of a text is to be heard elsewhere in the library. */
export interface EchoQuestion {
  itemId: string;
  copyId: string;
  density: EchoDensity;
  /** Keys of silenced terms, and hosts of silenced sites. */
  silenced: { terms: readonly string[]; hosts: readonly string[] };
}

/** The passage of an item that speaks of a term. */
export interface PassageOf extends EchoPassage {
  itemId: string;
}

/** A sentence that says what the reader has passed in another item. */
export interface KnownSentence extends Known {
  /** As it stands in the open text. */
  form: string;
  /** As it was met. */
  metAs: string;
}

/** What the worker can be asked. It keeps its index in step with what is on this device by itself. */
export interface Relating {
  related(accountId: string, itemId: string, most: number): Promise<Related[]>;
  /** Those of some tags that an item's text makes much of. */
  namedTags(accountId: string, itemId: string, language: string | null, tags: string[]): Promise<string[]>;
  /** How close each candidate is to the others; candidates without a text here are left out. */
  closeness(accountId: string, candidates: string[], others: string[]): Promise<Closeness[]>;
  /** The names and terms of a text that other items speak of. */
  echoes(accountId: string, question: EchoQuestion): Promise<Echo[]>;
  /** Where items speak of a term; those that do not, or whose text is not here, are left out. */
  passages(accountId: string, key: string, itemIds: string[]): Promise<PassageOf[]>;
  /** Where parts of some items begin, as fractions of their words; those without a text here are left out. */
  parts(accountId: string, itemIds: string[]): Promise<{ id: string; parts: number[] }[]>;
  /** What of a text the reader has read or heard in other items; none when its text is not here. */
  known(accountId: string, itemId: string, copyId: string): Promise<KnownSentence[]>;
  /** What the items of a period speak of together, beside those of the one before. */
  subjects(accountId: string, now: string[], before: string[]): Promise<Subject[]>;
  /** The sentences that carry a copy's text; none when it is not here. */
  gist(accountId: string, copyId: string): Promise<GistSentence[]>;
}
