import { decompress as decompressBrotli } from 'brotli/decompress';
import { decompressSync, Gunzip } from 'fflate';
import { type Findings, type Found, UNSAID } from './found';
import { withPicturesInside } from './inline-pictures';
import { declaredEncoding, decodedText } from './packed';

/** A web archive may be larger than this; what is read of it is not. */
const MOST_BYTES = 300_000_000;

interface Record {
  headers: ReadonlyMap<string, string>;
  content: Uint8Array;
}

/**
 * The pages of a web archive (WARC 1.1, ISO 28500:2017), packed or not: each response that is an HTML page, with the pictures that
 * were kept with it, its address, and the day on which it was kept.
 */
export function pagesInWarc(bytes: Uint8Array): Findings {
  const whole = bytes[0] === 0x1f && bytes[1] === 0x8b ? unpackedMembers(bytes) : bytes;
  if (!whole)
    return { found: [], faults: [{ written: '', says: 'It cannot be unpacked: it is damaged, or too large.' }] };
  const pages: { address: string; savedAt: number | null; body: Uint8Array; charset: string | null }[] = [];
  const pictures = new Map<string, Uint8Array>();
  const faults: Findings['faults'] = [];
  for (const { headers, content } of recordsIn(whole)) {
    const address = headers.get('warc-target-uri')?.replace(/^<|>$/g, '') ?? '';
    const type = headers.get('warc-type');
    if ((type !== 'response' && type !== 'resource') || !/^https?:\/\//i.test(address)) continue;
    const answer =
      type === 'response'
        ? httpAnswer(content)
        : { status: 200, type: headers.get('content-type') ?? '', body: content };
    if (answer?.status !== 200) continue;
    if (!answer.body) faults.push({ written: address, says: 'It is packed in a way that cannot be read here.' });
    else if (/^image\//i.test(answer.type)) pictures.set(address, answer.body);
    else if (/^(?:text\/html|application\/xhtml)/i.test(answer.type))
      pages.push({
        address,
        savedAt: Date.parse(headers.get('warc-date') ?? '') || null,
        body: answer.body,
        charset: /charset\s*=\s*"?([\w-]+)/i.exec(answer.type)?.[1] ?? null,
      });
  }
  const found = pages.map(({ address, savedAt, body, charset }): Found => {
    const html = decodedText(body, charset ?? declaredEncoding(body));
    const inside = withPicturesInside(html, address, (at) => pictures.get(at));
    return { ...UNSAID, address, savedAt, text: { type: 'text/html', body: inside, name: address.slice(0, 200) } };
  });
  if (found.length === 0 && faults.length === 0)
    faults.push({ written: '', says: 'There are no pages in that web archive.' });
  return { found, faults };
}

/** Each record is a member of its own (WARC 1.1, Annex D); all of them, one after the other. */
function unpackedMembers(bytes: Uint8Array): Uint8Array | null {
  const parts: Uint8Array[] = [];
  let size = 0;
  const unpack = new Gunzip((part) => {
    size += part.length;
    if (size > MOST_BYTES) throw new RangeError('too large');
    parts.push(part);
  });
  try {
    unpack.push(bytes, true);
  } catch {
    // Damaged at its end: what came before is whole.
    if (size > MOST_BYTES || parts.length === 0) return null;
  }
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

const latin = new TextDecoder('latin1');

/** The records, up to where it is no web archive any more. */
function* recordsIn(bytes: Uint8Array): Generator<Record> {
  for (let at = 0; at < bytes.length;) {
    while (bytes[at] === 13 || bytes[at] === 10) at += 1;
    const end = headEnd(bytes, at);
    if (end === -1) return;
    const [version = '', ...lines] = latin.decode(bytes.subarray(at, end)).split(/\r?\n/);
    if (!/^WARC\/\d/.test(version)) return;
    const headers = headersIn(lines);
    const start = end + 4;
    const length = Number(headers.get('content-length') ?? NaN);
    if (!(length >= 0)) return;
    yield { headers, content: bytes.subarray(start, start + length) };
    at = start + length;
  }
}

/** Where the empty line after a head begins; -1 where there is none. */
function headEnd(bytes: Uint8Array, from: number): number {
  const most = Math.min(bytes.length, from + 65_536);
  for (let at = from; at + 3 < most; at++)
    if (bytes[at] === 13 && bytes[at + 1] === 10 && bytes[at + 2] === 13 && bytes[at + 3] === 10) return at;
  return -1;
}

const headersIn = (lines: readonly string[]): Map<string, string> =>
  new Map(
    lines.flatMap((line) => {
      const [name, ...rest] = line.split(':');
      return rest.length > 0 ? [[(name ?? '').trim().toLowerCase(), rest.join(':').trim()] as const] : [];
    }),
  );

/** An answer as it was sent (RFC 9112); `body` is null where its coding is not known here. */
function httpAnswer(content: Uint8Array): { status: number; type: string; body: Uint8Array | null } | null {
  const end = headEnd(content, 0);
  if (end === -1) return null;
  const [first = '', ...lines] = latin.decode(content.subarray(0, end)).split(/\r?\n/);
  const headers = headersIn(lines);
  const sent = content.subarray(end + 4);
  const plain = /chunked/i.test(headers.get('transfer-encoding') ?? '') ? (unchunked(sent) ?? sent) : sent;
  return {
    status: Number(/^HTTP\/[\d.]+ (\d{3})/.exec(first)?.[1] ?? NaN),
    type: headers.get('content-type') ?? '',
    body: decodedBody(plain, headers.get('content-encoding') ?? ''),
  };
}

function decodedBody(body: Uint8Array, coding: string): Uint8Array | null {
  if (coding === '' || coding === 'identity') return body;
  const decode = DECODERS.find(([name]) => name.test(coding))?.[1];
  if (!decode) return null;
  try {
    return decode(body);
  } catch {
    // Some tools keep the coding's name and the text without it.
    return looksLikeText(body) ? body : null;
  }
}

const DECODERS: readonly [RegExp, (body: Uint8Array) => Uint8Array][] = [
  [/^(?:x-)?gzip$|^deflate$/i, (body) => decompressSync(body)],
  [/^br$/i, unpackedBrotli],
];

/** One page or picture is smaller; more is an attempt to fill the memory. */
const MOST_BYTES_OF_ONE = 64_000_000;

/** RFC 7932. It does not say how large it becomes: asked with more room each time. */
function unpackedBrotli(body: Uint8Array): Uint8Array {
  for (let room = Math.max(65_536, body.length * 8); ; room *= 4)
    try {
      return decompressBrotli(body, Math.min(room, MOST_BYTES_OF_ONE));
    } catch (error) {
      const isTooSmall = error instanceof Error && error.message.includes('not large enough');
      if (!isTooSmall || room >= MOST_BYTES_OF_ONE) throw error;
    }
}

const looksLikeText = (body: Uint8Array): boolean => /^\s*</.test(latin.decode(body.subarray(0, 200)));

/** RFC 9112, 7.1; null when it is not in chunks after all. */
function unchunked(body: Uint8Array): Uint8Array | null {
  const parts: Uint8Array[] = [];
  for (let at = 0; at < body.length;) {
    const line = latin.decode(body.subarray(at, at + 32));
    const size = /^([0-9a-f]+)(?:[; \t][^\r\n]*)?\r?\n/i.exec(line);
    if (!size) return null;
    const length = parseInt(size[1] ?? '', 16);
    if (length === 0) break;
    at += size[0].length;
    parts.push(body.subarray(at, at + length));
    at += length + 2;
  }
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
