/** So many bytes go into one call: engines bound the number of its arguments. */
const AT_ONCE = 0x8000;

/** Bytes in Base64 (RFC 4648, 4), as a given text carries them. */
export function inBase64(bytes: Uint8Array): string {
  let binary = '';
  for (let at = 0; at < bytes.length; at += AT_ONCE) binary += String.fromCharCode(...bytes.subarray(at, at + AT_ONCE));
  return btoa(binary);
}

/** The same in the alphabet for addresses, without padding (RFC 4648, 5). */
export function inBase64Url(bytes: Uint8Array): string {
  return inBase64(bytes).replace(/\+/g, '-').replace(/\//g, '_').replace(/=/g, '');
}
