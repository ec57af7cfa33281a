import type { IncomingHttpHeaders } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type ArchiveStep, NightlyArchive } from '@dorvel/core/model';
import type { HybridClock } from '@dorvel/core/sync';
import { NO_ARCHIVE_WORDS } from '@dorvel/core/wording';
import { type Response, Router } from 'express';
import type { AccountEvents } from '../accounts/events';
import { goThrough } from '../archive/in';
import type { IncomingArchives } from '../archive/incoming';
import type { NightlyArchives } from '../archive/nightly';
import { NotAnArchive } from '../archive/read';
import type { Archive, ArchiveShelf } from '../archive/shelf';
import type { Database } from '../db/open';
import type { FileStore } from '../files/files';
import type { ChangeBell } from '../library/bell';
import type { Library } from '../library/library';
import { accountOf, callerOf } from './guard';
import { HttpProblem } from './problem';
import { limitRate } from './tries';

interface ArchiveRouteParts {
  database: Database;
  files: FileStore;
  library(accountId: string): Library;
  clockOf(accountId: string): HybridClock;
  archives: ArchiveShelf;
  incoming: IncomingArchives;
  nightly: NightlyArchives;
  events: AccountEvents;
  bell: ChangeBell;
  wakeRunner(): void;
}

/** So many bytes of an archive are gone through before it is told how far it is. */
const STEP_BYTES = 512 * 1024;

/**
 * All of a reader's library as one file, sent while it is made; what broke off goes on (RFC 9110, 14). And such a file in again:
 * first sent and looked through, then brought in.
 */
export function archiveRoutes(parts: ArchiveRouteParts): Router {
  const { archives, incoming, bell } = parts;
  const router = Router();
  const aFew = limitRate(60, 60);
  router.get('/archive', aFew, async (request, response) => {
    const archive = await archives.of(accountOf(response));
    // What packs the answers must leave it alone: it is packed, and goes as it is made.
    response.set({ 'cache-control': 'no-store, no-transform', etag: archive.etag, 'accept-ranges': 'bytes' });
    response.type('application/zip');
    response.attachment(`Dorvel ${new Date(archive.madeAt).toISOString().slice(0, 10)}.zip`);
    const start = await startOf(archive, request.headers, response);
    // What goes on after it broke off is the same taking.
    if (start === 0) await parts.events.note(accountOf(response).id, 'archive-taken', callerOf(request));
    // Ends with a broken connection when it cannot be whole: half an archive must not look like one.
    await pipeline(Readable.from(archive.bytesFrom(start)), response).catch((error: unknown) => {
      if (!isGone(error)) throw error;
    });
  });
  router.get('/archive/nightly', async (_request, response) => {
    response.json(NightlyArchive.parse(await parts.nightly.of(accountOf(response))));
  });
  router.put('/archive/in', aFew, async (request, response) => {
    const { id } = accountOf(response);
    if (!request.is('application/zip'))
      throw new HttpProblem(415, 'media-type', 'Not a ZIP file', NO_ARCHIVE_WORDS['not-packed']);
    await incoming.keep(id, request).catch((error: unknown) => {
      throw asProblem(error);
    });
    await goThroughWaiting(id, false, response);
  });
  router.post('/archive/in', aFew, async (_request, response) => {
    const { id } = accountOf(response);
    await goThroughWaiting(id, true, response);
  });
  router.delete('/archive/in', async (_request, response) => {
    await incoming.forget(accountOf(response).id);
    response.status(204).end();
  });

  /** Whose archives are gone through just now: two at once would only meet each other. */
  const busy = new Set<string>();
  async function goThroughWaiting(accountId: string, brings: boolean, response: Response): Promise<void> {
    if (busy.has(accountId))
      throw new HttpProblem(
        409,
        'busy',
        'Under way',
        'An archive is being gone through already. Wait until that is done.',
      );
    busy.add(accountId);
    const isWanted = () => !response.destroyed;
    const write = (step: ArchiveStep) => {
      if (isWanted()) response.write(`${JSON.stringify(step)}\n`);
    };
    const archive = await incoming.open(accountId).catch((error: unknown) => {
      busy.delete(accountId);
      throw asProblem(error);
    });
    try {
      if (!archive)
        throw new HttpProblem(
          404,
          'not-found',
          'Nothing waits',
          'No archive waits to be brought in. Give it once more.',
        );
      response.type('application/jsonl').set('cache-control', 'no-store, no-transform');
      let told = 0;
      const look = await goThrough(
        archive,
        { ...parts, library: parts.library(accountId), clock: parts.clockOf(accountId), now: Date.now },
        {
          brings,
          isWanted,
          step(passed) {
            if (passed < told + STEP_BYTES) return;
            told = passed;
            write({ passed: Math.min(passed, archive.size), of: archive.size });
          },
        },
      );
      write({ look });
      if (brings && isWanted()) await incoming.forget(accountId);
      response.end();
    } catch (error) {
      if (!response.headersSent) throw error;
      write({
        says: 'The server could not go on. What was brought in until then is in your library; bring it in once more.',
      });
      response.end();
      throw error;
    } finally {
      await archive?.close();
      busy.delete(accountId);
      if (brings) {
        bell.ring(accountId);
        parts.wakeRunner();
      }
    }
  }
  return router;
}

/** True when whoever asked is not there any more. */
const isGone = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && error.code === 'ERR_STREAM_PREMATURE_CLOSE';

function asProblem(error: unknown): unknown {
  if (!(error instanceof NotAnArchive)) return error;
  return new HttpProblem(
    error.why === 'too-large' ? 413 : 422,
    error.why,
    'Not brought in',
    NO_ARCHIVE_WORDS[error.why],
  );
}

/** Where it goes on; all of it for who has begun with another, or asks for more than one end of it. */
async function startOf(
  archive: Archive,
  { range, 'if-range': of }: IncomingHttpHeaders,
  response: Response,
): Promise<number> {
  const start = Number(/^bytes=(\d{1,15})-$/.exec(range ?? '')?.[1] ?? 0);
  if (start === 0 || (of !== undefined && of !== archive.etag)) return 0;
  // What is said of a part tells how large the whole is.
  const size = await archive.whole;
  if (start >= size) {
    response.set('content-range', `bytes */${size}`);
    throw new HttpProblem(416, 'range', 'Nothing more', 'The archive has no more than you have.');
  }
  response
    .status(206)
    .set({ 'content-range': `bytes ${start}-${size - 1}/${size}`, 'content-length': `${size - start}` });
  return start;
}
