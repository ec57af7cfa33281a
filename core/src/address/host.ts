/** The host of an address, without `www.`; empty for one that has none, such as a letter's. */
export function hostOf(address: string): string {
  return URL.canParse(address) ? new URL(address).hostname.replace(/^www\./, '') : '';
}
