/**
 * Keeps what is made for an account in memory, for the accounts that asked last; for others it is made anew.
 *
 * @param most how many accounts' are kept
 */
export function perAccount<Made>(
  make: (accountId: string) => Made,
  most: number,
): (accountId: string) => Made {
  const opened = new Map<string, Made>();
  return (accountId) => {
    const made = opened.get(accountId) ?? make(accountId);
    opened.delete(accountId);
    opened.set(accountId, made);
    const [eldest] = opened.keys();
    if (opened.size > most && eldest !== undefined) opened.delete(eldest);
    return made;
  };
}
