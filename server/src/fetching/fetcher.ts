import http from 'node:http';
import https from 'node:https';
import type { Readable } from 'node:stream';
import zlib from 'node:zlib';
import { type Cause, clipped } from '@dorvel/core/model';
import { ForbiddenAddress, guardedLookup, isAllowedHost, isForbiddenLiteral } from './addresses';

export interface FetchRules {
  allowHosts: readonly string[];
  timeoutMs: number;
  /** Bytes after decompression. */
  maxBytes: number;
  accept: string;
  /** Asks for the file only if it is another than the one that these tell (RFC 9110, 13.1). */
  unless?: { etag: string | null; lastModified: string | null };
}

export type Fetched =
  | {
      ok: true;
      url: string;
      contentType: string;
      body: Buffer;
      etag: string | null;
      lastModified: string | null;
      /** For how long the site says that it stays as it is (Cache-Control: max-age), in seconds. */
      maxAgeSeconds: number | null;
      /** Where it is from now on, when each step on the way there was said to be for good (301, 308). */
      movedTo: string | null;
    }
  /**
   * `temporary` is worth another try, after `retryAfterMs` where the server asked for that; `gone` when the site says
   * that the page is not there; `unchanged` when it is the file that `unless` tells.
   */
  | {
      ok: false;
      temporary: boolean;
      cause: Cause;
      retryAfterMs: number | null;
      gone?: true;
      unchanged?: true;
    };

type Refused = Extract<Fetched, { ok: false }>;

const REDIRECT_LIMIT = 8;
const RETRY_AFTER_LIMIT_MS = 24 * 60 * 60 * 1000;

/**
 * Fetches a file from the open web, and from nowhere else: http and https only, each hop of a redirect
 * checked again, private and special addresses refused at the connection, time and size limited.
 */
export async function fetchGuarded(address: string, rules: FetchRules): Promise<Fetched> {
  const deadline = AbortSignal.timeout(rules.timeoutMs);
  const seen = new Set<string>();
  let at = address;
  let forGood = true;
  for (let hop = 0; hop <= REDIRECT_LIMIT; hop++) {
    const url = URL.canParse(at) ? new URL(at) : null;
    if (!url) return final({ code: 'redirects-nowhere' });
    if (url.protocol !== 'http:' && url.protocol !== 'https:')
      return final({ code: 'redirects-to-scheme', scheme: clipped(url.protocol, 40) });
    url.hash = '';
    if (seen.has(url.href)) return final({ code: 'redirects-in-circle' });
    seen.add(url.href);
    const answer = await request(url, rules, deadline).catch((error: unknown) =>
      networkFailure(error, url, rules, deadline),
    );
    if ('ok' in answer) return answer;
    const location = answer.headers.location;
    if (answer.status >= 300 && answer.status < 400 && answer.status !== 304 && location) {
      answer.stream.destroy();
      forGood &&= answer.status === 301 || answer.status === 308;
      at = URL.canParse(location, url.href) ? new URL(location, url.href).href : location;
      continue;
    }
    if (answer.status < 200 || answer.status >= 300) {
      answer.stream.destroy();
      return refusal(answer.status, answer.headers['retry-after']);
    }
    const movedTo = forGood && url.href !== address ? url.href : null;
    return receive(answer, url, rules, movedTo).catch((error: unknown) => networkFailure(error, url, rules, deadline));
  }
  return final({ code: 'redirects-too-often', most: REDIRECT_LIMIT });
}

interface Answer {
  status: number;
  headers: http.IncomingHttpHeaders;
  stream: http.IncomingMessage;
}

function request(url: URL, rules: FetchRules, signal: AbortSignal): Promise<Answer> {
  const allowed = isAllowedHost(url, rules.allowHosts);
  if (!allowed && isForbiddenLiteral(url)) return Promise.reject(new ForbiddenAddress(url.hostname));
  return new Promise((resolve, reject) => {
    const options: https.RequestOptions = {
      lookup: guardedLookup(allowed),
      // A pooled socket would carry on with an address that was checked for another request.
      agent: false,
      signal,
      maxHeaderSize: 64 * 1024,
      headers: {
        'user-agent': 'Mozilla/5.0 (compatible; Dorvel/0.1; a reader’s own copy)'.replace('’', "'"),
        accept: rules.accept,
        'accept-language': 'en, *;q=0.5',
        'accept-encoding': 'gzip, deflate, br',
        ...(rules.unless?.etag ? { 'if-none-match': rules.unless.etag } : {}),
        ...(rules.unless?.lastModified ? { 'if-modified-since': rules.unless.lastModified } : {}),
      },
    };
    const sent = (url.protocol === 'https:' ? https : http).get(url, options, (stream) => {
      stream.on('error', reject);
      resolve({ status: stream.statusCode ?? 0, headers: stream.headers, stream });
    });
    sent.on('error', reject);
  });
}

class TooLarge extends Error {
  override readonly name = 'TooLarge';
}

async function receive(answer: Answer, url: URL, rules: FetchRules, movedTo: string | null): Promise<Fetched> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  const decoded = decompress(answer);
  try {
    for await (const chunk of decoded) {
      bytes += (chunk as Buffer).length;
      if (bytes > rules.maxBytes) throw new TooLarge();
      chunks.push(chunk as Buffer);
    }
  } finally {
    answer.stream.destroy();
  }
  return {
    ok: true,
    url: url.href,
    contentType: answer.headers['content-type'] ?? '',
    body: Buffer.concat(chunks),
    etag: answer.headers.etag ?? null,
    lastModified: answer.headers['last-modified'] ?? null,
    maxAgeSeconds: maxAgeOf(answer.headers['cache-control']),
    movedTo,
  };
}

function maxAgeOf(cacheControl: string | undefined): number | null {
  const seconds = /(?:^|[\s,])max-age\s*=\s*"?(\d{1,9})/i.exec(cacheControl ?? '')?.[1];
  return seconds === undefined ? null : Number(seconds);
}

function decompress({ headers, stream }: Answer): Readable {
  const through = (decoder: zlib.Gunzip | zlib.BrotliDecompress | zlib.Inflate) => {
    stream.on('error', (error) => decoder.destroy(error));
    return stream.pipe(decoder);
  };
  // Servers that are cut off, or lie about the end, still leave what came before it.
  const lenient = { finishFlush: zlib.constants.Z_SYNC_FLUSH };
  switch ((headers['content-encoding'] ?? '').trim().toLowerCase()) {
    case 'gzip':
    case 'x-gzip':
      return through(zlib.createGunzip(lenient));
    case 'deflate':
      return through(zlib.createInflate(lenient));
    case 'br':
      return through(zlib.createBrotliDecompress({ finishFlush: zlib.constants.BROTLI_OPERATION_FLUSH }));
    default:
      return stream;
  }
}

function final(cause: Cause): Refused {
  return { ok: false, temporary: false, cause, retryAfterMs: null };
}

function temporary(cause: Cause, retryAfterMs: number | null = null): Refused {
  return { ok: false, temporary: true, cause, retryAfterMs };
}

function refusal(status: number, retryAfter: string | undefined): Fetched {
  if (status === 429 || status >= 500) {
    return temporary({ code: 'answered', status }, retryAfterMs(retryAfter));
  }
  if (status === 304) return { ...final({ code: 'unchanged' }), unchanged: true };
  if (status === 404 || status === 410)
    return {
      ok: false,
      temporary: false,
      cause: { code: 'answered', status },
      retryAfterMs: null,
      gone: true,
    };
  return final({ code: 'answered', status });
}

/** Retry-After: seconds or a date (RFC 9110, 10.2.3). */
function retryAfterMs(value: string | undefined): number | null {
  if (!value) return null;
  const ms = /^\d+$/.test(value.trim()) ? Number(value) * 1000 : Date.parse(value) - Date.now();
  return Number.isNaN(ms) ? null : Math.min(Math.max(0, ms), RETRY_AFTER_LIMIT_MS);
}

function networkFailure(error: unknown, url: URL, rules: FetchRules, deadline: AbortSignal): Fetched {
  if (error instanceof ForbiddenAddress) return final({ code: 'private-network' });
  if (error instanceof TooLarge) return final({ code: 'too-large', megabytes: Math.round(rules.maxBytes / 1_000_000) });
  // However it shows: an answer that is cut off in the middle looks like a broken connection.
  if (deadline.aborted) return temporary({ code: 'no-answer', seconds: Math.round(rules.timeoutMs / 1000) });
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN')
    return temporary({ code: 'no-such-host', host: url.hostname.slice(0, 300) });
  if (code === 'ECONNREFUSED') return temporary({ code: 'connection-refused' });
  if (code.startsWith('ERR_TLS') || code.includes('CERT')) return final({ code: 'certificate-invalid' });
  if (code.startsWith('Z_') || code.startsWith('ERR_BROTLI') || code.startsWith('ERR__ERROR_FORMAT'))
    return final({ code: 'not-unpackable' });
  if (code === 'HPE_HEADER_OVERFLOW' || code.startsWith('HPE_')) return final({ code: 'not-http' });
  return temporary({ code: 'connection-broken' });
}
