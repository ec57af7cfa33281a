import { Copy, CopyParams, PictureParams } from '@dorvel/core/model';
import { Router } from 'express';
import type { FileStore } from '../files/files';
import type { Library } from '../library/library';
import { accountOf } from './guard';
import { sendPicture } from './picture';
import { notFound } from './problem';

/** Copies never change and pictures are named by their content: both may be kept for ever. */
const FOR_EVER = 'private, max-age=31536000, immutable';

/** The texts and pictures of an account's library. */
export function libraryRoutes(library: (accountId: string) => Library, files: FileStore): Router {
  const router = Router();

  router.get('/copies/:id', async (request, response) => {
    const { id } = CopyParams.parse(request.params);
    const copy = await library(accountOf(response).id).copy(id);
    if (!copy) throw notFound('That copy');
    response.set('cache-control', FOR_EVER).json(Copy.parse(copy));
  });

  router.get('/pictures/:file', async (request, response) => {
    const hash = PictureParams.parse(request.params).file.replace('.webp', '');
    if (!(await library(accountOf(response).id).ownsPicture(hash))) throw notFound('That picture');
    await sendPicture(response, files, hash, FOR_EVER);
  });

  return router;
}
