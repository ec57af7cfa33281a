import { LRUCache } from 'lru-cache';

/**
 * Keeps what is made for an account in memory, for the accounts that asked last; for others it is made again.
 *
 * @param max how many accounts' are kept
 */
export function perAccount<Made extends object>(
  make: (accountId: string) => Made,
  max: number,
): (accountId: string) => Made {
  const opened = new LRUCache<string, Made>({ max });
  return (accountId) => {
    const made = opened.get(accountId) ?? make(accountId);
    opened.set(accountId, made);
    return made;
  };
}
