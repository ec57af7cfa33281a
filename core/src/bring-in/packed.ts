import { type Unzipped, unzipSync } from 'fflate';

/** What a small file may grow to when it is unpacked: more is an attempt to fill the memory. */
const MAX_BYTES = 300_000_000;
const MAX_FILES = 20_000;

/**
 * The files of a ZIP file (PKWARE APPNOTE 6.3.10), by their paths.
 *
 * @param isWanted of a path
 * @returns words for the reader when it cannot be read
 */
export function unpacked(
  bytes: Uint8Array,
  isWanted: (path: string) => boolean,
): { ok: true; files: Unzipped } | { ok: false; says: string } {
  const seen = { bytes: 0, files: 0 };
  const isTooMuch = () => seen.bytes > MAX_BYTES || seen.files > MAX_FILES;
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name.endsWith('/') || !isWanted(name)) return false;
        seen.bytes += originalSize;
        seen.files += 1;
        return !isTooMuch();
      },
    });
    if (isTooMuch())
      return { ok: false, says: 'It has more in it, unpacked, than can be read at once. Give it in parts.' };
    return { ok: true, files };
  } catch {
    return { ok: false, says: 'It cannot be unpacked: it is damaged, or packed with a passphrase.' };
  }
}

/** A text in UTF-8, or in what its byte order mark says (WHATWG Encoding, 6.1 decode); else in the encoding that is named. */
export function decodedText(bytes: Uint8Array, label = 'utf-8'): string {
  const mark =
    bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : null;
  try {
    return new TextDecoder(mark ?? label).decode(bytes);
  } catch {
    // A label that names no encoding.
    return new TextDecoder().decode(bytes);
  }
}

/** The encoding that a page declares in its first kilobyte (WHATWG HTML, 13.2.3.2); UTF-8 where it declares none. */
export function declaredEncoding(bytes: Uint8Array): string {
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, 1024));
  return (
    /<meta[^>]+charset\s*=\s*["']?([\w-]+)/i.exec(start)?.[1] ??
    /<\?xml[^>]+encoding\s*=\s*["']([\w-]+)/i.exec(start)?.[1] ??
    'utf-8'
  );
}

/** The path of a file in an archive, as an address writes it: by percent codes, and with what stands behind it. */
export function pathIn(address: string): string {
  try {
    return decodeURIComponent(address.replace(/[?#].*$/, ''));
  } catch {
    // Not percent codes, then: a name with a percent sign in it.
    return address;
  }
}
