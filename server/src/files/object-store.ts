import { type ObjectStorePlace, openBucket, TIMEOUT_MS } from './bucket';
import { fileName, type FileStore, hashIn, hashOf } from './files';

/** Files as objects of a bucket. Each process and each machine sees the same. */
export function objectStore(place: ObjectStorePlace): FileStore {
  const bucket = openBucket(place);
  const read = async (hash: string) => {
    const response = await bucket.ask(fileName(hash), { method: 'GET', signal: AbortSignal.timeout(TIMEOUT_MS) });
    return response && Buffer.from(await response.arrayBuffer());
  };
  return {
    read,
    remove: (hash) => bucket.remove(fileName(hash)),
    async sizeOf(hash) {
      const response = await bucket.ask(fileName(hash), { method: 'HEAD' });
      return response && Number(response.headers.get('content-length'));
    },
    async put(bytes) {
      const hash = hashOf(bytes);
      // The store compares what came with its hash: half a picture is never kept.
      const headers = { 'content-type': 'image/webp', 'x-amz-content-sha256': hash };
      const kept = await bucket.ask(fileName(hash), { method: 'PUT', headers, body: new Uint8Array(bytes) });
      if (!kept) throw new Error('the object store has no such bucket');
      return hash;
    },
    async *list() {
      for await (const { name, bytes, writtenAt } of bucket.list('')) {
        const hash = hashIn(name);
        // A bucket may have other things in it. They are no pictures, and nothing of ours is ever half there.
        if (hash !== null) yield { hash, bytes, writtenAt, remove: () => bucket.remove(name) };
      }
    },
    async verify(hash) {
      const bytes = await read(hash);
      return bytes !== null && hashOf(bytes) === hash;
    },
  };
}
