import { AwsClient } from 'aws4fetch';
import { getElementsByTagName, textContent } from 'domutils';
import { parseDocument } from 'htmlparser2';
import { fileName, type FileStore, hashIn, hashOf } from './files';

/** Where a bucket is, and with which key it opens. */
export interface ObjectStorePlace {
  /** Of the bucket, in path style: `https://objects.example.org/dorvel`. */
  address: string;
  region: string;
  key: string;
  secret: string;
}

const TIMEOUT_MS = 30_000;

/**
 * Files as objects of a bucket, by the S3 protocol (Amazon S3 API 2006-03-01: PutObject, GetObject, HeadObject, DeleteObject,
 * ListObjectsV2; signatures of version 4). Each process and each machine sees the same.
 */
export function objectStore({ address, region, key, secret }: ObjectStorePlace): FileStore {
  const client = new AwsClient({ accessKeyId: key, secretAccessKey: secret, region, service: 's3', retries: 3 });
  const bucket = address.replace(/\/$/, '');
  const at = (hash: string) => `${bucket}/${fileName(hash)}`;
  /** @returns null when it is not there */
  const ask = async (url: string, init: RequestInit): Promise<Response | null> => {
    const response = await client.fetch(url, { ...init, signal: AbortSignal.timeout(TIMEOUT_MS) });
    if (response.ok) return response;
    await response.body?.cancel();
    if (response.status === 404) return null;
    throw new Error(`the store of pictures answered ${response.status}`);
  };
  const read = async (hash: string) => {
    const response = await ask(at(hash), { method: 'GET' });
    return response && Buffer.from(await response.arrayBuffer());
  };
  const takeAway = async (url: string) => {
    await ask(url, { method: 'DELETE' });
  };
  return {
    read,
    remove: (hash) => takeAway(at(hash)),
    async sizeOf(hash) {
      const response = await ask(at(hash), { method: 'HEAD' });
      return response && Number(response.headers.get('content-length'));
    },
    async put(bytes) {
      const hash = hashOf(bytes);
      // The store compares what came with its hash: half a picture is never kept.
      const headers = { 'content-type': 'image/webp', 'x-amz-content-sha256': hash };
      const kept = await ask(at(hash), { method: 'PUT', headers, body: new Uint8Array(bytes) });
      if (!kept) throw new Error('the store of pictures has no such bucket');
      return hash;
    },
    async *list() {
      let next = '';
      do {
        const from = next === '' ? '' : `&continuation-token=${encodeURIComponent(next)}`;
        const response = await ask(`${bucket}?list-type=2${from}`, { method: 'GET' });
        if (!response) throw new Error('the store of pictures has no such bucket');
        const page = parseDocument(await response.text(), { xmlMode: true });
        const said = (name: string, within: Parameters<typeof getElementsByTagName>[1]) =>
          textContent(getElementsByTagName(name, within, true, 1));
        for (const object of getElementsByTagName('Contents', page)) {
          const hash = hashIn(said('Key', object));
          // A bucket may have other things in it. They are not ours to take away, and nothing of ours is ever half there.
          if (hash === null) continue;
          yield {
            hash,
            bytes: Number(said('Size', object)),
            writtenAt: Date.parse(said('LastModified', object)),
            remove: () => takeAway(at(hash)),
          };
        }
        next = said('NextContinuationToken', page);
      } while (next !== '');
    },
    async verify(hash) {
      const bytes = await read(hash);
      return bytes !== null && hashOf(bytes) === hash;
    },
  };
}
