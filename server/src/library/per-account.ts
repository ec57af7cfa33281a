import { LRUCache } from 'lru-cache';

/** What is made for an account, by the account's id. */
interface PerAccount<Made> {
  (accountId: string): Made;
  /** Lets go of it; the next who asks has it made again. */
  forget(accountId: string): void;
}

/**
 * Keeps what is made for an account in memory, for the accounts that asked last; for others it is made again.
 *
 * @param max how many accounts' are kept
 */
export function perAccount<Made extends object>(make: (accountId: string) => Made, max: number): PerAccount<Made> {
  const opened = new LRUCache<string, Made>({ max });
  const of = (accountId: string) => {
    const made = opened.get(accountId) ?? make(accountId);
    opened.set(accountId, made);
    return made;
  };
  return Object.assign(of, { forget: (accountId: string) => void opened.delete(accountId) });
}
