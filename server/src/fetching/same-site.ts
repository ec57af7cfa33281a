import { parse as parseHost } from 'tldts';

/** True when two addresses belong to one site (registrable domain, by the Public Suffix List). */
export function sameSite(a: string, b: string): boolean {
  const site = (address: string) => {
    const host = parseHost(address, { allowPrivateDomains: true });
    return host.domain ?? host.hostname;
  };
  const siteOfA = site(a);
  return siteOfA !== null && siteOfA === site(b);
}
