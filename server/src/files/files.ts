import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';

/** Files named by their content. The same bytes are kept once, whoever saved them. */
export interface FileStore {
  /** @returns lower-case hexadecimal SHA-256 of the bytes */
  put(bytes: Buffer): Promise<string>;
  /** Where a file lies, for serving it. */
  pathOf(hash: string): string;
  /** Takes a file away; no error when it is not there. */
  remove(hash: string): Promise<void>;
  /** The files that are there, and those that were never finished, by their names; each with its bytes and when it was written. */
  list(): AsyncGenerator<StoredFile>;
  /** Whether a file is there and its bytes are what its name says. */
  verify(hash: string): Promise<boolean>;
}

interface StoredFile {
  path: string;
  /** Null for one that was never finished. */
  hash: string | null;
  bytes: number;
  /** Milliseconds since 1970. */
  writtenAt: number;
}

const WHOLE = /^([0-9a-f]{64})\.webp$/;

/** A store in a folder; two letters of the hash to a sub-folder keep folders short. */
export function folderStore(folder: string): FileStore {
  const pathOf = (hash: string) => path.join(folder, hash.slice(0, 2), `${hash}.webp`);
  const hashOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
  return {
    pathOf,
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
      const shelves = await readdir(folder, { withFileTypes: true }).catch((error: unknown) => {
        // Before the first picture there is no folder.
        if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return [];
        throw error;
      });
      for (const shelf of shelves.filter((each) => each.isDirectory()))
        for (const name of await readdir(path.join(folder, shelf.name))) {
          const at = path.join(folder, shelf.name, name);
          const { size, mtimeMs } = await stat(at);
          yield { path: at, hash: WHOLE.exec(name)?.[1] ?? null, bytes: size, writtenAt: mtimeMs };
        }
    },
    remove: (hash) => rm(pathOf(hash), { force: true }),
    async verify(hash) {
      try {
        return hashOf(await readFile(pathOf(hash))) === hash;
      } catch {
        // Not readable is not there, which is the answer asked for.
        return false;
      }
    },
  };
}
