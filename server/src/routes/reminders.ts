import { comeBackAtom, comeBackJsonFeed } from '@dorvel/core/formats';
import { FeedWish, LetterSent, LetterWish, Reminders as Answer } from '@dorvel/core/model';
import { type Request, type Response, Router } from 'express';
import { z } from 'zod';
import type { Database } from '../db/open';
import { cameBack } from '../publish/come-back';
import type { Reminders } from '../publish/reminders';
import { accountOf } from './guard';
import { originOf } from './origin';
import { HttpProblem, notFound } from './problem';
import { limitRate } from './tries';

/** Where the reader asks for a daily letter or a feed of what comes back. */
export function reminderRoutes(reminders: Reminders, wake: () => void): Router {
  const router = Router();
  const answer = async (request: Request, response: Response) => {
    const { id, mail } = accountOf(response);
    const row = await reminders.of(id);
    const feed = (file: string) => `${originOf(request)}/come-back/${row?.secret ?? ''}/${file}`;
    response.json(
      Answer.parse({
        mail: reminders.canSend ? mail : null,
        letter:
          row && row.letterHour !== null
            ? { hour: row.letterHour, sentOn: row.sentOn, isStuck: row.retryAt !== null }
            : null,
        feed: row?.secret ? { atom: feed('feed.atom'), json: feed('feed.json') } : null,
      }),
    );
  };
  router.get('/reminders', answer);
  router.put('/reminders/letter', async (request, response) => {
    const { hour, zone } = LetterWish.parse(request.body);
    if (!reminders.canSend) throw notFound('A way to send letters');
    await reminders.setLetter(accountOf(response).id, { zone, origin: originOf(request) }, hour);
    wake();
    await answer(request, response);
  });
  const aFew = limitRate(6, 1);
  router.post('/reminders/letter/now', aFew, async (_request, response) => {
    const isSent = await reminders.sendLetter({ accountId: accountOf(response).id }).catch((error: unknown) => {
      const said = error instanceof Error ? error.message : String(error);
      throw new HttpProblem(502, 'letter', 'Not sent', `The mail server did not take the letter: ${said}`);
    });
    response.json(LetterSent.parse({ isSent }));
  });
  router.post('/reminders/feed', async (request, response) => {
    const { zone } = FeedWish.parse(request.body);
    await reminders.makeFeed(accountOf(response).id, { zone, origin: originOf(request) });
    await answer(request, response);
  });
  router.delete('/reminders/feed', async (request, response) => {
    await reminders.endFeed(accountOf(response).id);
    await answer(request, response);
  });
  return router;
}

const Address = z.object({
  secret: z.string().regex(/^[A-Za-z0-9_-]{32}$/),
  file: z.enum(['feed.atom', 'feed.json']),
});

/** The feed itself, for any feed reader: a wrong address is answered as if there were nothing here. */
export function publicReminderRoutes(reminders: Reminders, database: Database): Router {
  const router = Router();
  router.use(limitRate(120, 1));
  router.get('/:secret/:file', async (request, response) => {
    const wanted = Address.safeParse(request.params).data;
    const reader = wanted && (await reminders.at(wanted.secret));
    if (!wanted || !reader) throw notFound('That feed');
    const facts = {
      address: `${originOf(request)}/come-back/${wanted.secret}/${wanted.file}`,
      home: `${originOf(request)}/now`,
      entries: await cameBack(database, reader),
    };
    response.set({ 'cache-control': 'private, no-cache', 'x-robots-tag': 'noindex' });
    if (wanted.file === 'feed.atom') response.type('application/atom+xml').send(comeBackAtom(facts));
    else response.type('application/feed+json').send(comeBackJsonFeed(facts));
  });
  return router;
}
