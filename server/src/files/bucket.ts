import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { AwsClient } from 'aws4fetch';
import { getElementsByTagName, textContent } from 'domutils';
import { parseDocument } from 'htmlparser2';

/** Where a bucket is, and with which key it opens. */
export interface ObjectStorePlace {
  /** Of the bucket, in path style: `https://objects.example.org/dorvel`. */
  address: string;
  region: string;
  key: string;
  secret: string;
}

/** An object, as the list of a bucket tells of it. */
interface Listed {
  name: string;
  bytes: number;
  /** Milliseconds since 1970. */
  writtenAt: number;
}

/** A bucket of an object store. */
export interface Bucket {
  /**
   * Asks for an object. Whoever takes its bytes slowly is not cut off, unless by a signal of their own; a store that does not
   * begin to answer is.
   *
   * @returns null when it is not there
   * @throws Error when the store does not answer, or refuses
   */
  ask(name: string, init: RequestInit, alsoTaken?: readonly number[]): Promise<Response | null>;
  /** Puts what a file holds there, however large it is. @throws Error when the store does not take it */
  putFile(name: string, file: string): Promise<void>;
  remove(name: string): Promise<void>;
  /** @param start what their names begin with @throws Error */
  list(start: string): AsyncGenerator<Listed>;
}

/** For an answer to begin; for one that is taken at once, to be whole. */
export const TIMEOUT_MS = 30_000;
/** A gigabyte on a line of ten megabits. */
const FILE_TIMEOUT_MS = 20 * 60_000;
/** Of a store that is busy; so long it is left alone. */
const RETRIES = 3;
const RETRY_MS = 200;

/**
 * A bucket by the S3 protocol (Amazon S3 API 2006-03-01: PutObject, GetObject, HeadObject, DeleteObject, ListObjectsV2; signatures of
 * version 4).
 */
export function openBucket({ address, region, key, secret }: ObjectStorePlace): Bucket {
  const client = (retries: number) =>
    new AwsClient({ accessKeyId: key, secretAccessKey: secret, region, service: 's3', retries });
  const [asked, askedOnce] = [client(RETRIES), client(0)];
  const bucket = address.replace(/\/$/, '');

  async function askAt(
    url: string,
    init: RequestInit,
    alsoTaken: readonly number[] = [],
    by = asked,
    timeoutMs = TIMEOUT_MS,
  ): Promise<Response | null> {
    const patience = new AbortController();
    const timer = setTimeout(() => patience.abort(new Error('the object store did not answer')), timeoutMs);
    try {
      const signal = init.signal ? AbortSignal.any([init.signal, patience.signal]) : patience.signal;
      const response = await by.fetch(url, { ...init, signal });
      if (response.ok || alsoTaken.includes(response.status)) return response;
      await response.body?.cancel();
      if (response.status === 404) return null;
      throw new Error(`the object store answered ${response.status}`);
    } finally {
      clearTimeout(timer);
    }
  }

  return {
    ask: (name, init, alsoTaken) => askAt(`${bucket}/${name}`, init, alsoTaken),
    async putFile(name, file) {
      // The store compares what came with its hash: half a file is never kept.
      const hash = createHash('sha256');
      await pipeline(createReadStream(file), hash);
      const headers = { 'content-length': String((await stat(file)).size), 'x-amz-content-sha256': hash.digest('hex') };
      for (let left = RETRIES; ; left--)
        try {
          const body = Readable.toWeb(createReadStream(file)) as unknown as ReadableStream;
          const init = { method: 'PUT', headers, body, duplex: 'half' as const };
          const kept = await askAt(`${bucket}/${name}`, init, [], askedOnce, FILE_TIMEOUT_MS);
          if (!kept) throw new Error('the object store has no such bucket');
          return;
        } catch (error) {
          if (left === 0) throw error;
          await sleep(RETRY_MS * 2 ** (RETRIES - left));
        }
    },
    async remove(name) {
      const response = await askAt(`${bucket}/${name}`, { method: 'DELETE' });
      await response?.body?.cancel();
    },
    async *list(start) {
      const prefix = start === '' ? '' : `&prefix=${encodeURIComponent(start)}`;
      let next = '';
      do {
        const from = next === '' ? '' : `&continuation-token=${encodeURIComponent(next)}`;
        const response = await askAt(`${bucket}?list-type=2${from}${prefix}`, {
          method: 'GET',
          signal: AbortSignal.timeout(TIMEOUT_MS),
        });
        if (!response) throw new Error('the object store has no such bucket');
        const page = parseDocument(await response.text(), { xmlMode: true });
        const said = (name: string, within: Parameters<typeof getElementsByTagName>[1]) =>
          textContent(getElementsByTagName(name, within, true, 1));
        for (const object of getElementsByTagName('Contents', page))
          yield {
            name: said('Key', object),
            bytes: Number(said('Size', object)),
            writtenAt: Date.parse(said('LastModified', object)),
          };
        next = said('NextContinuationToken', page);
      } while (next !== '');
    },
  };
}
