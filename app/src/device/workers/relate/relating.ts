import type { GistSentence } from '@dorvel/core/gist';
import type { Related } from '@dorvel/core/relate';

/** How near an item is to some others, taken together. */
export interface Closeness {
  id: string;
  /** To the nearest of them, 0 to 1. */
  nearness: number;
  /** How many of them it is plainly near to. */
  nearTo: number;
}

/** What the worker can be asked. It keeps its index in step with what is on this device by itself. */
export interface Relating {
  related(accountId: string, itemId: string, most: number): Promise<Related[]>;
  /** How close each candidate is to the others; candidates without a text here are left out. */
  closeness(accountId: string, candidates: string[], others: string[]): Promise<Closeness[]>;
  /** The sentences that carry a copy's text; none when it is not here. */
  gist(accountId: string, copyId: string): Promise<GistSentence[]>;
}
