import { MadeToken, NewToken, TokenList, TokenParams } from '@dorvel/core/model';
import { Router } from 'express';
import type { Tokens } from '../accounts/tokens';
import { accountOf } from './guard';
import { notFound } from './problem';

/** The tokens of the reader who has signed in: made, listed with their last use, revoked. */
export function tokenRoutes(tokens: Tokens): Router {
  const router = Router();
  router.get('/tokens', async (_request, response) => {
    response.json(TokenList.parse({ tokens: await tokens.list(accountOf(response).id) }));
  });
  router.post('/tokens', async (request, response) => {
    const { name, scope } = NewToken.parse(request.body);
    response.status(201).json(MadeToken.parse(await tokens.make(accountOf(response).id, name, scope)));
  });
  router.delete('/tokens/:id', async (request, response) => {
    const { id } = TokenParams.parse(request.params);
    if (!(await tokens.revoke(accountOf(response).id, id))) throw notFound('That token');
    response.status(204).end();
  });
  return router;
}
