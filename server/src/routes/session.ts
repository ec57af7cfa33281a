import { Account, NewAccount, Setup, SignIn } from '@dorvel/core/model';
import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { Config } from '../config';
import type { Accounts } from '../db/accounts';
import { accountOf, clearSession, requireAccount, sessionToken, setSession } from './guard';
import { HttpProblem, sendProblem } from './problem';

const TRIES = 10;
const WINDOW_MS = 15 * 60 * 1000;

/** Signing in and out, and the first account of an empty library. */
export function sessionRoutes(accounts: Accounts, config: Config): Router {
  const router = Router();
  const limited = rateLimit({
    windowMs: WINDOW_MS,
    limit: TRIES,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, response) =>
      sendProblem(
        response,
        new HttpProblem(
          429,
          'too-many-tries',
          'Too many tries',
          'Wait a quarter of an hour, then try again.',
        ),
      ),
  });

  router.get('/setup', async (_request, response) => {
    response.json(Setup.parse({ needsFirstAccount: (await accounts.count()) === 0, demo: config.demo }));
  });

  router.post('/accounts', limited, async (request, response) => {
    const { mail, name, passphrase } = NewAccount.parse(request.body);
    if ((await accounts.count()) > 0)
      throw new HttpProblem(
        403,
        'accounts-closed',
        'Not open',
        'This library has its account already. Sign in with it.',
      );
    await accounts.create(mail, name, passphrase);
    await signIn(mail, passphrase).then(({ account, token }) => {
      setSession(response, token, config.secure);
      response.status(201).json(Account.parse(account));
    });
  });

  router.post('/session', limited, async (request, response) => {
    const { mail, passphrase } = SignIn.parse(request.body);
    const old = sessionToken(request);
    const { account, token } = await signIn(mail, passphrase);
    if (old) await accounts.signOut(old);
    setSession(response, token, config.secure);
    response.json(Account.parse(account));
  });

  router.get('/session', requireAccount(accounts, config.secure), (_request, response) => {
    response.json(Account.parse(accountOf(response)));
  });

  router.delete('/session', async (request, response) => {
    const token = sessionToken(request);
    if (token) await accounts.signOut(token);
    clearSession(response, config.secure);
    response.status(204).end();
  });

  async function signIn(mail: string, passphrase: string) {
    const session = await accounts.signIn(mail, passphrase);
    if (!session)
      throw new HttpProblem(
        401,
        'wrong-passphrase',
        'Not signed in',
        'Mail address and passphrase do not belong together. Check both.',
      );
    return session;
  }

  return router;
}
