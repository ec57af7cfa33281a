import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Request, Response } from 'express';
import { type ObjectStorePlace, openBucket } from './bucket';

/**
 * Files that a server makes for one of its readers, or is sent by them, and keeps for a while: sounds, archives. Of any size, under
 * names of our own (`podcasts/<account>/<item>.mp3`), where every process that shares the library finds them.
 */
export interface MadeFiles {
  /**
   * Keeps a file under a name once it is whole; nothing of it stays when it does not become so.
   *
   * @param write writes it where it is told to, on this machine
   * @returns what `write` did
   */
  make<Made>(name: string, write: (file: string) => Promise<Made>): Promise<Made>;
  /**
   * Answers a request with a file, or with the part of it that is asked for (RFC 9110, 14).
   *
   * @param type its media type
   * @returns false when it is not there; then nothing is answered
   */
  send(name: string, type: string, request: Request, response: Response): Promise<boolean>;
  /** A file where it can be read on this machine, until it is given back; null when it is not there. */
  borrow(name: string): Promise<{ file: string; giveBack(): Promise<void> } | null>;
  /** Takes a file away; no error when it is not there. */
  remove(name: string): Promise<void>;
  /** Takes all of a folder away. @param writtenBefore only what is older, milliseconds since 1970 */
  removeAll(folder: string, writtenBefore?: number): Promise<void>;
}

/** What was being written for so long is what a process left that was ended. */
const LEFT_MS = 24 * 60 * 60 * 1000;

/** Such files below a folder. @param making where they are written until they are whole, on the same disk; of its own */
export function madeInFolder(folder: string, making: string): MadeFiles {
  const pathOf = (name: string) => path.join(folder, name);
  const isThere = (file: string) => stat(file).then(() => true, missingIsFalse);
  return {
    make: (name, write) =>
      written(making, write, async (file) => {
        await mkdir(path.dirname(pathOf(name)), { recursive: true });
        await rename(file, pathOf(name));
      }),
    async send(name, type, _request, response) {
      const file = pathOf(name);
      if (!(await isThere(file))) return false;
      // From its own folder: the library may lie below one whose name begins with a dot.
      await new Promise<void>((resolve, reject) => {
        const where = { root: path.dirname(file), headers: { 'content-type': type }, cacheControl: false };
        response.sendFile(path.basename(file), where, (error?: Error) =>
          error && !isGone(error) ? reject(error) : resolve(),
        );
      });
      return true;
    },
    borrow: async (name) =>
      (await isThere(pathOf(name))) ? { file: pathOf(name), giveBack: () => Promise.resolve() } : null,
    remove: (name) => rm(pathOf(name), { force: true }),
    removeAll: (name, writtenBefore = Infinity) => removeOld(pathOf(name), writtenBefore),
  };
}

/** Such files in an object store. @param making where they are written until they are sent there; of its own */
export function madeInBucket(place: ObjectStorePlace, making: string): MadeFiles {
  const bucket = openBucket(place);
  return {
    make: (name, write) => written(making, write, (file) => bucket.putFile(name, file)),
    async send(name, type, request, response) {
      const { range, 'if-range': ifRange } = request.headers;
      // Who asks for the rest of another file gets all of this one.
      const isRest = async () =>
        ifRange === undefined || (await bucket.ask(name, { method: 'HEAD' }))?.headers.get('etag') === ifRange;
      const headers: Record<string, string> = range !== undefined && (await isRest()) ? { range } : {};
      const method = request.method === 'HEAD' ? 'HEAD' : 'GET';
      const found = await bucket.ask(name, { method, headers }, [416]);
      if (!found) return false;
      response.status(found.status).set({ 'content-type': type, 'accept-ranges': 'bytes' });
      const told = found.ok ? ['content-length', 'content-range', 'etag', 'last-modified'] : ['content-range'];
      for (const each of told) {
        const value = found.headers.get(each);
        if (value !== null) response.set(each, value);
      }
      if (method === 'HEAD' || !found.ok || !found.body) {
        await found.body?.cancel();
        response.end();
      } else
        await pipeline(Readable.fromWeb(found.body), response).catch((error: unknown) => {
          if (!isGone(error)) throw error;
        });
      return true;
    },
    async borrow(name) {
      const found = await bucket.ask(name, { method: 'GET' });
      if (!found?.body) return null;
      const file = await newIn(making);
      const giveBack = () => rm(file, { force: true });
      try {
        await pipeline(Readable.fromWeb(found.body), createWriteStream(file, { mode: 0o600 }));
      } catch (error) {
        await giveBack();
        throw error;
      }
      return { file, giveBack };
    },
    remove: bucket.remove,
    async removeAll(folder, before = Infinity) {
      for await (const { name, writtenAt } of bucket.list(`${folder}/`))
        if (writtenAt < before) await bucket.remove(name);
    },
  };
}

/** Has a file written, and done with what is to be done with it; in the end it stands there no more. */
async function written<Made>(
  making: string,
  write: (file: string) => Promise<Made>,
  keep: (file: string) => Promise<void>,
): Promise<Made> {
  const file = await newIn(making);
  try {
    const made = await write(file);
    await keep(file);
    return made;
  } finally {
    await rm(file, { force: true });
  }
}

/** A name for a new file in a folder, from which what others left there is gone. */
async function newIn(folder: string): Promise<string> {
  await mkdir(folder, { recursive: true });
  await removeOld(folder, Date.now() - LEFT_MS);
  return path.join(folder, randomUUID());
}

/** Takes away what a folder has, below it too, that was written before a time. @param before milliseconds since 1970; Infinity for all */
export async function removeOld(folder: string, before: number): Promise<void> {
  if (before === Infinity) {
    await rm(folder, { recursive: true, force: true });
    return;
  }
  const found = await readdir(folder, { recursive: true, withFileTypes: true }).catch(missingIsFalse);
  for (const entry of (found || []).filter((each) => each.isFile())) {
    const file = path.join(entry.parentPath, entry.name);
    // Another may have taken it away meanwhile.
    const about = await stat(file).catch(missingIsFalse);
    if (about && about.mtimeMs < before) await rm(file, { force: true });
  }
}

function missingIsFalse(error: unknown): false {
  if (hasCode(error, 'ENOENT')) return false;
  throw error;
}

/** Whoever asked is not there any more. */
const isGone = (error: unknown): boolean =>
  ['ECONNABORTED', 'ECONNRESET', 'EPIPE', 'ERR_STREAM_PREMATURE_CLOSE'].some((code) => hasCode(error, code));

const hasCode = (error: unknown, code: string): boolean =>
  typeof error === 'object' && error !== null && 'code' in error && error.code === code;
