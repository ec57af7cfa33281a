import { once } from 'node:events';
import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { Database } from '../db/open';
import type { FileStore } from '../files/files';
import type { Library } from '../library/library';
import { archiveFiles, packArchive } from '../publish/archive';
import { accountOf } from './guard';

interface ArchiveRouteParts {
  database: Database;
  files: FileStore;
  library(accountId: string): Library;
}

/** All of a reader's library as one file, written as it is made. */
export function archiveRoutes({ database, files, library }: ArchiveRouteParts): Router {
  const router = Router();
  const aFew = rateLimit({ windowMs: 60 * 60 * 1000, limit: 20, standardHeaders: 'draft-8', legacyHeaders: false });
  router.get('/archive', aFew, async (_request, response) => {
    const account = accountOf(response);
    const now = Date.now();
    let isWanted = true;
    response.on('close', () => (isWanted = false));
    // What packs the answers must leave it alone: it is packed, and goes as it is made.
    response.set({ 'cache-control': 'no-store, no-transform' }).type('application/zip');
    response.attachment(`Dorvel ${new Date(now).toISOString().slice(0, 10)}.zip`);
    const made = archiveFiles(account, { database, files, library: library(account.id), now });
    await packArchive(
      made,
      now,
      async (bytes) => {
        if (!isWanted || response.write(bytes)) return;
        await Promise.race([once(response, 'drain'), once(response, 'close')]);
      },
      () => isWanted,
    );
    response.end();
  });
  return router;
}
