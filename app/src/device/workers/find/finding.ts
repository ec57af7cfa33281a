import type { Passage, SearchRequest, SearchResult } from '@dorvel/core/model';

/** What the worker that finds can be asked. It keeps its index in step with what is on this device by itself. */
export interface Finding {
  /** Opens an account's index; `changed` is called whenever what is found may have become other. */
  open(accountId: string, changed: () => void): Promise<void>;
  find(question: SearchRequest): Promise<SearchResult>;
  /** The passages of some items that have most of what was looked for; null where nothing of it stands in the text. */
  passages(question: SearchRequest, ids: string[]): Promise<Record<string, Passage | null>>;
}
