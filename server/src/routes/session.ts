import { timingSafeEqual } from 'node:crypto';
import { Account, NewAccount, Setup, SignIn } from '@dorvel/core/model';
import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { Accounts } from '../accounts/accounts';
import type { Config } from '../config';
import { accountOf, clearSession, requireAccount, sessionToken, setSession } from './guard';
import { jsonBody } from './json-body';
import { HttpProblem, sendProblem } from './problem';

const TRIES = 10;
const WINDOW_MS = 15 * 60 * 1000;

interface SessionParts {
  accounts: Accounts;
  config: Config;
  /** Rung with a token when its session has ended. */
  bell: { ring(token: string): void };
  /** Who makes the first account must know it: it was printed where the server was started. */
  setupCode: string;
}

/** Signing in and out, and the first account of an empty library. */
export function sessionRoutes({ accounts, config, bell, setupCode }: SessionParts): Router {
  const router = Router();
  const small = jsonBody('10kb');
  const limited = rateLimit({
    windowMs: WINDOW_MS,
    limit: TRIES,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, response) =>
      sendProblem(
        response,
        new HttpProblem(429, 'too-many-tries', 'Too many tries', 'Wait a quarter of an hour, then try again.'),
      ),
  });

  router.get('/setup', async (_request, response) => {
    response.json(Setup.parse({ needsFirstAccount: (await accounts.count()) === 0, demo: config.demo }));
  });

  router.post('/accounts', limited, small, async (request, response) => {
    const { mail, name, passphrase, code } = NewAccount.parse(request.body);
    const closed = new HttpProblem(
      403,
      'accounts-closed',
      'Not open',
      'This library has its account already. Sign in with it.',
    );
    if ((await accounts.count()) > 0) throw closed;
    if (!isSame(code, setupCode))
      throw new HttpProblem(
        403,
        'setup-code',
        'Wrong set-up code',
        'That is not the set-up code. It was printed where the server was started.',
      );
    if (!(await accounts.createFirst(mail, name, passphrase))) throw closed;
    await signIn(mail, passphrase).then(({ account, token }) => {
      setSession(response, token, config.secure);
      response.status(201).json(Account.parse(account));
    });
  });

  router.post('/session', limited, small, async (request, response) => {
    const { mail, passphrase } = SignIn.parse(request.body);
    const old = sessionToken(request);
    const { account, token } = await signIn(mail, passphrase);
    if (old) await signOut(old);
    setSession(response, token, config.secure);
    response.json(Account.parse(account));
  });

  router.get('/session', requireAccount(accounts, config.secure), (_request, response) => {
    response.json(Account.parse(accountOf(response)));
  });

  router.delete('/session', async (request, response) => {
    const token = sessionToken(request);
    if (token) await signOut(token);
    clearSession(response, config.secure);
    response.status(204).end();
  });

  async function signOut(token: string) {
    await accounts.signOut(token);
    bell.ring(token);
  }

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

/** Whether two codes are the same, in a time that does not tell how much of them is; case and strokes do not count. */
function isSame(given: string, known: string): boolean {
  const bare = (code: string) => Buffer.from(code.replace(/[\s-]/g, '').toLowerCase());
  const [a, b] = [bare(given), bare(known)];
  return a.length === b.length && timingSafeEqual(a, b);
}
