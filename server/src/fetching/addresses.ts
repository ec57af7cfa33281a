import dns from 'node:dns';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/**
 * True for addresses that captures must never reach: everything that the IANA special-purpose registries
 * (RFC 6890 and its updates) list, multicast, and IPv6 forms that carry such an IPv4 address inside
 * (IPv4-mapped, 6to4, NAT64 64:ff9b::/96, IPv4-compatible, Teredo by its own range).
 */
export function isForbiddenAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return true;
  const parsed = ipaddr.parse(address);
  if (parsed instanceof ipaddr.IPv4) return parsed.range() !== 'unicast';
  const embedded = embeddedIPv4(parsed);
  if (embedded) return embedded.range() !== 'unicast';
  // Only 2000::/3 is given out as global unicast (IANA IPv6 address space); all the rest is special or unused.
  return (
    parsed.range() !== 'unicast' ||
    ((parsed.parts[0] ?? 0) & 0xe000) !== 0x2000 ||
    SPECIAL_IPV6.some(([net, bits]) => parsed.match(net, bits))
  );
}

/** Entries of the IANA IPv6 special-purpose registry inside 2000::/3. */
const SPECIAL_IPV6 = ['2001::/23', '2001:db8::/32', '3fff::/20', '2620:4f:8000::/48'].map((cidr) =>
  ipaddr.IPv6.parseCIDR(cidr),
);

function embeddedIPv4(address: ipaddr.IPv6): ipaddr.IPv4 | null {
  const parts = address.parts;
  const from = (high: number, low: number) => new ipaddr.IPv4([high >> 8, high & 255, low >> 8, low & 255]);
  if (address.isIPv4MappedAddress()) return address.toIPv4Address();
  if (parts[0] === 0x2002) return from(parts[1] ?? 0, parts[2] ?? 0);
  if (parts[0] === 0x64 && parts[1] === 0xff9b && parts.slice(2, 6).every((part) => part === 0))
    return from(parts[6] ?? 0, parts[7] ?? 0);
  return null;
}

/** Whether `host:port` stands on the allow-list; `*.host:port` stands for all names under a host. */
export function isAllowedHost(url: URL, allowHosts: readonly string[]): boolean {
  const port = url.port || (url.protocol === 'https:' ? '443' : '80');
  const host = url.hostname.toLowerCase();
  return allowHosts.some((entry) => {
    const [name = '', allowedPort] = entry.split(/:(?=\d+$)/);
    if (allowedPort !== port) return false;
    return name.startsWith('*.') ? host.endsWith(name.slice(1)) : host === name;
  });
}

export class ForbiddenAddress extends Error {
  override readonly name = 'ForbiddenAddress';
}

/**
 * Looks a name up and hands back only addresses that have been checked. The connection is made to just these,
 * so that a name that answers differently a moment later (DNS rebinding) gains nothing.
 */
export function guardedLookup(isAllowed: boolean): LookupFunction {
  return (hostname, options, callback) => {
    // RFC 6761, 6.3: names under localhost are the loopback address, and are not asked of any server.
    if (/(^|\.)localhost\.?$/i.test(hostname)) {
      answer([{ address: '127.0.0.1', family: 4 }]);
      return;
    }
    dns.lookup(hostname, { ...options, all: true }, (error, addresses) => {
      if (error) callback(error, '', 0);
      else answer(addresses);
    });
    function answer(addresses: dns.LookupAddress[]) {
      const safe = isAllowed ? addresses : addresses.filter(({ address }) => !isForbiddenAddress(address));
      const [first] = safe;
      if (!first) callback(new ForbiddenAddress(`${hostname} leads to a private or special address`), '', 0);
      else if (options.all) callback(null, safe);
      else callback(null, first.address, first.family);
    }
  };
}

/** For hosts written as addresses, which are never looked up. */
export function isForbiddenLiteral(url: URL): boolean {
  const host = url.hostname.replace(/^\[|\]$/g, '');
  return ipaddr.isValid(host) && isForbiddenAddress(host);
}
