import { fileLine } from '@dorvel/core/client';
import { dossierLetter } from '@dorvel/core/formats';
import {
  DossierFileAsked,
  DossierFileParams,
  DossierLetter,
  DossierParams,
  Publication,
  PublicationWish,
} from '@dorvel/core/model';
import { type Request, type Response, Router } from 'express';
import type { AccountEvents } from '../accounts/events';
import type { FileStore } from '../files/files';
import type { Library } from '../library/library';
import { dossierFile } from '../publish/documents/files';
import type { Dossiers } from '../publish/dossiers';
import type { SendLetter } from '../publish/reminders';
import { accountOf, callerOf } from './guard';
import { originOf } from './origin';
import { HttpProblem, notFound } from './problem';
import { limitRate } from './tries';

interface DossierParts {
  dossiers: Dossiers;
  library(accountId: string): Library;
  files: FileStore;
  events: AccountEvents;
  /** Null where this server sends no mail. */
  send: SendLetter | null;
}

/** Where a reader hands their dossiers on: at an address, as a letter, as files. */
export function dossierRoutes({ dossiers, library, files, events, send }: DossierParts): Router {
  const router = Router();
  const opened = async (accountId: string, dossierId: string) => {
    const open = await dossiers.open(accountId, dossierId);
    if (!open) throw notFound('That dossier');
    return open;
  };
  const answer = async (request: Request, response: Response, dossierId: string) => {
    const row = await dossiers.row(accountOf(response).id, dossierId);
    const address = `${originOf(request)}/shown/${row?.secret ?? ''}`;
    const fragment = `<iframe src="${address}/embed" style="width:100%;border:0" loading="lazy"></iframe><script src="${originOf(request)}/shown/fit.js"></script>`;
    response.json(
      Publication.parse({
        publication: row && {
          ...{ address, access: row.access, madeAt: row.madeAt, withdrawnAt: row.withdrawnAt },
          ...{ atom: `${address}/feed.atom`, json: `${address}/feed.json`, fragment },
        },
      }),
    );
  };

  router.get('/dossiers/:id/publication', async (request, response) => {
    await answer(request, response, DossierParams.parse(request.params).id);
  });
  router.put('/dossiers/:id/publication', async (request, response) => {
    const { id } = DossierParams.parse(request.params);
    const wish = PublicationWish.parse(request.body);
    const accountId = accountOf(response).id;
    const { handedOn } = await opened(accountId, id);
    const hasOne = (await dossiers.row(accountId, id))?.passphraseHash ?? wish.passphrase;
    if (wish.access === 'passphrase' && hasOne === null)
      throw new HttpProblem(400, 'passphrase', 'No passphrase', 'Say which passphrase is to be asked for.');
    await dossiers.publish(accountId, id, wish);
    await events.note(accountId, 'dossier-handed-on', callerOf(request), handedOn.compiled.title.slice(0, 200));
    await answer(request, response, id);
  });
  router.delete('/dossiers/:id/publication', async (request, response) => {
    const { id } = DossierParams.parse(request.params);
    await dossiers.withdraw(accountOf(response).id, id);
    await answer(request, response, id);
  });

  router.get('/dossiers/:id/files/:format', async (request, response) => {
    const { id, format } = DossierFileParams.parse(request.params);
    const { told } = DossierFileAsked.parse(request.query);
    const accountId = accountOf(response).id;
    const open = await opened(accountId, id);
    let isWanted = true;
    response.on('close', () => (isWanted = false));
    if (told) response.type('application/octet-stream');
    const file = await dossierFile(open, format, {
      ...{ library: library(accountId), files, isWanted: () => isWanted },
      step: (done, of) => {
        if (told) response.write(fileLine({ done, of }));
      },
    });
    const name = `${fileName(open.handedOn.compiled.title)}${file.ending}`;
    if (!told) {
      response.type(file.type).attachment(name).send(file.content);
      return;
    }
    response.write(fileLine({ name, type: file.type, bytes: Buffer.byteLength(file.content) }));
    response.end(file.content);
  });

  // A letter goes to anybody: nobody is to be flooded through this server.
  const aFew = limitRate(30, 60);
  router.post('/dossiers/:id/letter', aFew, async (request, response) => {
    const { id } = DossierParams.parse(request.params);
    const { to, words } = DossierLetter.parse(request.body);
    if (!send) throw new HttpProblem(409, 'letter', 'No mail', 'This server sends no mail. Take the letter as a file.');
    const account = accountOf(response);
    const { handedOn } = await opened(account.id, id);
    await send(to, dossierLetter(handedOn, words), account.mail).catch((error: unknown) => {
      const said = error instanceof Error ? error.message : String(error);
      throw new HttpProblem(502, 'letter', 'Not sent', `The mail server did not take the letter: ${said}`);
    });
    response.status(204).end();
  });
  return router;
}

/** A title as a file may be called anywhere. */
const fileName = (title: string): string =>
  title
    .replace(/[\p{Cc}\p{Cf}<>:"/\\|?*]/gu, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[ .]+|[ .]+$/g, '')
    .slice(0, 80)
    .trim() || 'Dossier';
