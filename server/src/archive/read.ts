import { isUtf8 } from 'node:buffer';
import type { Readable } from 'node:stream';
import { ARCHIVE_FILES, ARCHIVE_FORMAT } from '@dorvel/core/formats';
import yauzl from 'yauzl';
import { z } from 'zod';

/** Why a file is not taken for an archive. */
export type NoArchive = 'not-packed' | 'not-ours' | 'newer' | 'too-large';

export class NotAnArchive extends Error {
  override readonly name = 'NotAnArchive';
  constructor(readonly why: NoArchive) {
    super(why);
  }
}

/** What is unpacked of an archive is no more than this: a small file can be packed so that it never ends. */
const MOST_BYTES = 64 * 1024 ** 3;
const MOST_ABOUT = 64 * 1024;
/** A record or a text has no more; see MAX_SOURCE_LENGTH of what is read. */
const MOST_LINE = 32 * 1024 ** 2;
const MOST_PICTURE = 32 * 1024 ** 2;

const About = z.object({
  is: z.literal('dorvel-archive'),
  format: z.number().int().positive(),
  madeAt: z.string().max(40),
  name: z.string().max(200),
});

/** A line of a file of JSON Lines. */
export interface ArchiveLine {
  /** Undefined for one that is none. */
  value: unknown;
  bytes: number;
}

/** An archive that lies in a file. Nothing of it is believed yet but what it says of itself. */
export interface OpenArchive {
  about: { madeAt: string; name: string };
  /** What is to be read of it, unpacked, in bytes. */
  size: number;
  /** A file of JSON Lines. @param read told how many bytes were read */
  lines(name: string, read: (bytes: number) => void): AsyncGenerator<ArchiveLine>;
  /** Its pictures by their names, the hashes that their bytes should have; how many bytes each has. */
  pictures: ReadonlyMap<string, number>;
  /** The bytes of a picture; null when they cannot be read. */
  picture(hash: string): Promise<Buffer | null>;
  close(): Promise<void>;
}

/** @throws NotAnArchive */
export async function openArchive(file: string): Promise<OpenArchive> {
  const zip = await yauzl.openPromise(file, { autoClose: false }).catch(() => {
    throw new NotAnArchive('not-packed');
  });
  try {
    const entries = new Map<string, yauzl.Entry>();
    const pictures = new Map<string, number>();
    let size = 0;
    for await (const entry of zip.eachEntry()) {
      const hash = /^pictures\/([0-9a-f]{64})\.webp$/.exec(entry.fileName)?.[1];
      const isRead =
        hash !== undefined || /^(?:library\.json|copies\.jsonl|records\/[a-z]+\.jsonl)$/.test(entry.fileName);
      if (!isRead || entries.has(entry.fileName)) continue;
      entries.set(entry.fileName, entry);
      size += entry.uncompressedSize;
      if (hash) pictures.set(hash, entry.uncompressedSize);
    }
    if (size > MOST_BYTES) throw new NotAnArchive('too-large');
    const bytesOf = async (name: string, most: number): Promise<Buffer | null> => {
      const entry = entries.get(name);
      if (!entry || entry.uncompressedSize > most) return null;
      return contentOf(await zip.openReadStreamPromise(entry)).catch(() => null);
    };
    const about = aboutIn(await bytesOf(ARCHIVE_FILES.library, MOST_ABOUT));
    return {
      about,
      size,
      pictures,
      picture: (hash) => bytesOf(ARCHIVE_FILES.picture(hash), MOST_PICTURE),
      async *lines(name, read) {
        const entry = entries.get(name);
        if (entry) yield* linesOf(await zip.openReadStreamPromise(entry), read);
      },
      close() {
        zip.close();
        return Promise.resolve();
      },
    };
  } catch (error) {
    zip.close();
    throw error instanceof NotAnArchive ? error : new NotAnArchive('not-packed');
  }
}

function aboutIn(bytes: Buffer | null): OpenArchive['about'] {
  const about = About.safeParse(bytes && isUtf8(bytes) ? jsonIn(bytes.toString()) : undefined);
  if (!about.success) throw new NotAnArchive('not-ours');
  if (about.data.format > ARCHIVE_FORMAT) throw new NotAnArchive('newer');
  return about.data;
}

async function contentOf(from: Readable): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of from) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** Lines as they come; one that is longer than any of ours is passed over, so that it is never in memory as a whole. */
async function* linesOf(from: Readable, read: (bytes: number) => void): AsyncGenerator<ArchiveLine> {
  let parts: Buffer[] = [];
  let length = 0;
  const taken = (end: Buffer): ArchiveLine => {
    const bytes = length + end.length;
    const line = bytes > MOST_LINE ? null : Buffer.concat([...parts, end]);
    [parts, length] = [[], 0];
    return { value: line ? jsonIn(line.toString()) : undefined, bytes };
  };
  for await (const chunk of from as AsyncIterable<Buffer>) {
    read(chunk.length);
    let start = 0;
    for (let end = chunk.indexOf(10); end !== -1; end = chunk.indexOf(10, start)) {
      yield taken(chunk.subarray(start, end));
      start = end + 1;
    }
    const rest = chunk.subarray(start);
    length += rest.length;
    if (length <= MOST_LINE) parts.push(rest);
    else parts = [];
  }
  if (length > 0) yield taken(Buffer.alloc(0));
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    // What is not JSON is counted by whoever asked for it.
    return undefined;
  }
}
