import { MAX_WRITTEN_ADDRESS_LENGTH } from '../model';
import { canonicalAddress } from './canonical';

/** What a reader typed or pasted, read as one address; or a sentence that says what to do. */
export type AddressReading = { ok: true; address: string } | { ok: false; says: string };

const WEB_ADDRESS = /https?:\/\/[^\s<>"']+/i;
const BARE_HOST =
  /^(?:[\p{L}\p{N}](?:[\p{L}\p{N}-]*[\p{L}\p{N}])?\.)+(?:\p{L}{2,}|xn--[a-z0-9-]+)(?::\d+)?(?:[/?#]\S*)?$/iu;

/**
 * Reads an address from text as people paste it: with words around it (the first address counts),
 * in angle brackets, with a full stop behind it, or without `https://`.
 */
export function readAddress(input: string): AddressReading {
  const text = input.trim();
  if (text === '') return { ok: false, says: 'Paste or type the address of a page.' };
  const found = WEB_ADDRESS.exec(text)?.[0];
  const candidate = found ? trimTail(found) : BARE_HOST.test(text) ? `https://${text}` : null;
  if (candidate === null) {
    const scheme = /^([a-z][a-z0-9+.-]*):/i.exec(text)?.[1];
    return {
      ok: false,
      says: scheme
        ? `“${scheme}:” addresses cannot be saved. Use one that begins with http:// or https://.`
        : 'That is not a web address. It should look like https://example.org/page.',
    };
  }
  if (writtenLength(candidate) > MAX_WRITTEN_ADDRESS_LENGTH)
    return { ok: false, says: 'That address is longer than 8,192 characters.' };
  try {
    const url = new URL(candidate);
    url.username = '';
    url.password = '';
    return { ok: true, address: url.href };
  } catch {
    // URL's parser is the only judge of an address, and throwing is how it says no.
    return { ok: false, says: 'That address has a mistake in it. Check the part after https://.' };
  }
}

/** How long an address is before its letters are written as percent codes: three of these stand for one letter at most. */
function writtenLength(address: string): number {
  return address.replace(/(?:%[0-9a-f]{2})+/gi, (codes) => 'x'.repeat(Math.ceil(codes.length / 9))).length;
}

/** Punctuation that ends the sentence around an address is not part of it; a bracket is, if it was opened inside. */
function trimTail(address: string): string {
  let tail = address.replace(/[.,;:!?'"”’»]+$/u, '');
  while (tail.endsWith(')') && count(tail, '(') < count(tail, ')')) tail = tail.slice(0, -1);
  return tail;
}

function count(text: string, char: string): number {
  return text.split(char).length - 1;
}

/** What a text has of addresses: those that can be saved, and what looks like one but cannot be. */
export interface AddressesReading {
  /** In the order of the text, each page once. */
  addresses: string[];
  faults: { written: string; says: string }[];
}

/** Reads all addresses in a text: a list, a letter, a page of notes. Words are passed over. */
export function readAddresses(text: string): AddressesReading {
  const found = new Map<string, string>();
  const faults = new Map<string, string>();
  for (const [token] of text.matchAll(/[^\s<>"']+/g)) {
    const isMeant = token.includes('://') || /^www\./i.test(token) || BARE_HOST.test(trimTail(token));
    if (!isMeant) continue;
    // "(see:https://…" begins before its address does; a bracket around it is not its own.
    const written = trimTail(token.replace(/^.*?(?=https?:\/\/)/i, '').replace(/^[([]+/, ''));
    const reading = readAddress(written);
    if (!reading.ok) faults.set(written, reading.says);
    else {
      const key = canonicalAddress(reading.address);
      if (!found.has(key)) found.set(key, reading.address);
    }
  }
  return {
    addresses: [...found.values()],
    faults: [...faults].map(([written, says]) => ({ written, says })),
  };
}
