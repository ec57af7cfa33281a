import type { Response } from 'express';
import type { FileStore } from '../files/files';
import { notFound } from './problem';

/**
 * Answers with a picture.
 *
 * @param keep how it may be kept, as Cache-Control says it
 * @throws HttpProblem 404 when its file is missing
 */
export async function sendPicture(response: Response, files: FileStore, hash: string, keep: string): Promise<void> {
  const bytes = await files.read(hash);
  if (!bytes) throw notFound('That picture');
  response.set('cache-control', keep).type('image/webp').send(bytes);
}
