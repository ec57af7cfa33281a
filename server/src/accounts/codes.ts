import { createHash, randomBytes } from 'node:crypto';

/** Without letters and figures that are taken for one another (Crockford's base 32). */
const SIGNS = '0123456789abcdefghjkmnpqrstvwxyz';
const LENGTH = 16;

/** A code that is read from one screen and typed into another: 80 random bits, in groups of four. */
export function newCode(): string {
  const signs = [...randomBytes(LENGTH)].map((byte) => SIGNS[byte % SIGNS.length]).join('');
  return signs.replace(/(....)(?=.)/g, '$1-');
}

/** What of a code is kept, so that a stolen database opens nothing. Case, spaces and strokes of what was typed do not count. */
export function hashOfCode(typed: string): string {
  return createHash('sha256').update(typed.replace(/[\s-]/g, '').toLowerCase()).digest('hex');
}
