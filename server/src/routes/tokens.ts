import { MadeToken, NewToken, TokenList, TokenParams } from '@dorvel/core/model';
import { Router } from 'express';
import type { AccountEvents } from '../accounts/events';
import type { Tokens } from '../accounts/tokens';
import { accountOf, callerOf } from './guard';
import { notFound } from './problem';

/** The tokens of the reader who has signed in: made, listed with their last use, revoked. */
export function tokenRoutes(tokens: Tokens, events: AccountEvents): Router {
  const router = Router();
  router.get('/tokens', async (_request, response) => {
    response.json(TokenList.parse({ tokens: await tokens.list(accountOf(response).id) }));
  });
  router.post('/tokens', async (request, response) => {
    const { name, scope } = NewToken.parse(request.body);
    const accountId = accountOf(response).id;
    const made = MadeToken.parse(await tokens.make(accountId, name, scope));
    await events.note(accountId, 'token-made', callerOf(request), made.token.name);
    response.status(201).json(made);
  });
  router.delete('/tokens/:id', async (request, response) => {
    const { id } = TokenParams.parse(request.params);
    const accountId = accountOf(response).id;
    const name = await tokens.revoke(accountId, id);
    if (name === null) throw notFound('That token');
    await events.note(accountId, 'token-revoked', callerOf(request), name);
    response.status(204).end();
  });
  return router;
}
