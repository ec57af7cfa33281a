import { wellFormed } from '../model';

/**
 * Addresses of what came from no page: a letter by its message id (`mid:`, RFC 2392), a file by the hash of its bytes
 * (`ni:`, RFC 6920). The same letter or file has the same address, however often it is given.
 */
const MAX_ID_LENGTH = 250;
/** Percent codes make up to nine characters of one. */
const LETTER = new RegExp(`^mid:[^\\s/]{1,${9 * MAX_ID_LENGTH}}$`);
const FILE = /^ni:\/\/\/sha-256;[A-Za-z0-9_-]{43}$/;

/** @param messageId with or without its angle brackets */
export function letterAddress(messageId: string): string {
  const bare = messageId.trim().replace(/^<|>$/g, '').slice(0, MAX_ID_LENGTH);
  // RFC 2392, 2: characters that are not allowed in an address are written by their percent codes.
  return `mid:${encodeURIComponent(wellFormed(bare)).replace(/%40/g, '@')}`;
}

/** @param sha256 of the file's bytes, in base64url without padding */
export function fileAddress(sha256: string): string {
  return `ni:///sha-256;${sha256}`;
}

/** False for letters and files: there is no page to be opened or fetched. */
export function isOnWeb(address: string): boolean {
  return !isLocalAddress(address);
}

/** True for the address of a letter or a file, rightly written. */
export function isLocalAddress(address: string): boolean {
  return LETTER.test(address) || FILE.test(address);
}
