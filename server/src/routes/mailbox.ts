import { Mailbox, MailboxChanges } from '@dorvel/core/model';
import { type Response, Router } from 'express';
import type { Mailboxes } from '../accounts/mailboxes';
import { accountOf } from './guard';
import { notFound } from './problem';

/** @param mailDomain what stands behind the @; null where this server takes no mail */
export function mailboxRoutes(mailboxes: Mailboxes, mailDomain: string | null): Router {
  const router = Router();
  const answer = async (response: Response) => {
    if (mailDomain === null) {
      response.json(Mailbox.parse({ mailbox: null }));
      return;
    }
    const { local, senders, lastUsedAt } = await mailboxes.of(accountOf(response).id);
    response.json(Mailbox.parse({ mailbox: { address: `${local}@${mailDomain}`, senders, lastUsedAt } }));
  };
  router.get('/mailbox', (_request, response) => answer(response));
  router.put('/mailbox', async (request, response) => {
    const { senders } = MailboxChanges.parse(request.body);
    if (mailDomain === null) throw notFound('A mailbox');
    await mailboxes.of(accountOf(response).id);
    await mailboxes.allow(accountOf(response).id, senders);
    await answer(response);
  });
  router.post('/mailbox/rename', async (_request, response) => {
    if (mailDomain === null) throw notFound('A mailbox');
    await mailboxes.rename(accountOf(response).id);
    await answer(response);
  });
  return router;
}
