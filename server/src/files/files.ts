import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';

/** Files named by their content. The same bytes are kept once, whoever saved them. */
export interface FileStore {
  /** @returns lower-case hexadecimal SHA-256 of the bytes */
  put(bytes: Buffer): Promise<string>;
  /**
   * @returns null when it is not there
   * @throws Error when the store does not answer: that is not to be taken for a file that is missing
   */
  read(hash: string): Promise<Buffer | null>;
  /** Bytes; null when it is not there. */
  sizeOf(hash: string): Promise<number | null>;
  /** Takes a file away; no error when it is not there. */
  remove(hash: string): Promise<void>;
  /** The files that are there, and those that were never finished, by their names; each with its bytes and when it was written. */
  list(): AsyncGenerator<StoredFile>;
  /** Whether a file is there and its bytes are what its name says. */
  verify(hash: string): Promise<boolean>;
}

interface StoredFile {
  /** Null for one that was never finished. */
  hash: string | null;
  bytes: number;
  /** Milliseconds since 1970. */
  writtenAt: number;
  /** Takes it away. */
  remove(): Promise<void>;
}

/** What a file is called. */
export const fileName = (hash: string) => `${hash}.webp`;
/** @returns null for a name that is not one of ours */
export const hashIn = (name: string): string | null => /^([0-9a-f]{64})\.webp$/.exec(name)?.[1] ?? null;
/** @returns lower-case hexadecimal SHA-256 */
export const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** A store in a folder; two letters of the hash to a sub-folder keep folders short. */
export function folderStore(folder: string): FileStore {
  const pathOf = (hash: string) => path.join(folder, hash.slice(0, 2), fileName(hash));
  const read = (hash: string) => readFile(pathOf(hash)).catch(missingIsNull);
  return {
    read,
    sizeOf: async (hash) => (await stat(pathOf(hash)).catch(missingIsNull))?.size ?? null,
    async put(bytes) {
      const hash = hashOf(bytes);
      const target = pathOf(hash);
      await mkdir(path.dirname(target), { recursive: true });
      // Written beside and renamed, so that a name never stands for half a file.
      const unfinished = `${target}.${process.pid}.${Math.random().toString(36).slice(2)}`;
      try {
        await writeFile(unfinished, bytes);
        await rename(unfinished, target);
      } catch (error) {
        await rm(unfinished, { force: true });
        throw error;
      }
      return hash;
    },
    async *list() {
      // Before the first picture there is no folder.
      const shelves = (await readdir(folder, { withFileTypes: true }).catch(missingIsNull)) ?? [];
      for (const shelf of shelves.filter((each) => each.isDirectory()))
        for (const name of await readdir(path.join(folder, shelf.name))) {
          const at = path.join(folder, shelf.name, name);
          const { size, mtimeMs } = await stat(at);
          yield { hash: hashIn(name), bytes: size, writtenAt: mtimeMs, remove: () => rm(at, { force: true }) };
        }
    },
    remove: (hash) => rm(pathOf(hash), { force: true }),
    async verify(hash) {
      // Not readable is not whole, which is the answer asked for.
      const bytes = await read(hash).catch(() => null);
      return bytes !== null && hashOf(bytes) === hash;
    },
  };
}

function missingIsNull(error: unknown): null {
  if (typeof error === 'object' && error !== null && 'code' in error && error.code === 'ENOENT') return null;
  throw error;
}
