import { timingSafeEqual } from 'node:crypto';
import { codeLetter } from '@dorvel/core/formats';
import {
  Account,
  type AccountEventKind,
  CodeWish,
  Mail,
  NewAccount,
  PasskeyOptions,
  PasskeySignIn,
  PassphraseByCode,
  Setup,
  SignIn,
} from '@dorvel/core/model';
import { type Request, type Response, Router } from 'express';
import type { Logger } from 'pino';
import { z } from 'zod';
import type { AccountTeller } from '../accounts/account-teller';
import type { Accounts } from '../accounts/accounts';
import { hashOfCode } from '../accounts/codes';
import type { Passkeys } from '../accounts/passkeys';
import { CODE_LIFE_MS, type ResetCodes } from '../accounts/reset-codes';
import type { Sessions } from '../accounts/sessions';
import type { Tries } from '../accounts/tries';
import type { Config } from '../config';
import type { SendLetter } from '../publish/reminders';
import { accountOf, callerOf, clearSession, requireAccount, sessionToken, setSession } from './guard';
import { refuseGuessable } from './guessable';
import { jsonBody } from './json-body';
import { originOf, siteOf } from './origin';
import { HttpProblem } from './problem';
import { limitRate, limitTries } from './tries';

interface SessionParts {
  accounts: Accounts;
  sessions: Sessions;
  passkeys: Passkeys;
  resetCodes: ResetCodes;
  teller: AccountTeller;
  tries: Tries;
  config: Config;
  /** Rung with a session's id when it has ended. */
  bell: { ring(sessionId: string): void };
  /** Who makes the first account must know it: it was printed where the server was started. */
  setupCode: string;
  /** Null where this server sends no mail. */
  send: SendLetter | null;
  log: Logger;
}

/** Signing in and out; the first account of an empty library, and those that were invited. */
export function sessionRoutes(parts: SessionParts): Router {
  const { accounts, sessions, passkeys, resetCodes, teller, config, bell, send, log } = parts;
  const router = Router();
  const small = jsonBody('10kb');
  const limited = limitTries(parts.tries, { name: 'enter', most: 10 });
  // Whoever has many addresses to try from has no more tries with one account.
  const byMail = limitTries(parts.tries, {
    name: 'mail',
    most: 50,
    of: (request) => Mailed.safeParse(request.body).data?.mail ?? null,
  });

  router.get('/setup', async (_request, response) => {
    response.json(
      Setup.parse({
        needsFirstAccount: (await accounts.count()) === 0,
        sendsMail: send !== null,
        demo: config.demo,
      }),
    );
  });

  router.post('/accounts', limited, small, async (request, response) => {
    const { mail, name, passphrase, code } = NewAccount.parse(request.body);
    refuseGuessable(passphrase, { mail, name });
    const account =
      (await accounts.count()) > 0
        ? invited(await accounts.createInvited(mail, name, passphrase, code))
        : await first(mail, name, passphrase, code);
    await done(request, account, 'account-made');
    await enter(request, response, account, 201);
  });

  async function first(mail: string, name: string, passphrase: string, code: string): Promise<Account> {
    if (!isSame(code, parts.setupCode))
      throw new HttpProblem(
        403,
        'setup-code',
        'Wrong set-up code',
        'That is not the set-up code. It was printed where the server was started.',
      );
    return (await accounts.createFirst(mail, name, passphrase)) ?? invited('no-invitation');
  }

  router.post('/session', limited, small, byMail, async (request, response) => {
    const { mail, passphrase } = SignIn.parse(request.body);
    const { account, tried } = await accounts.whose(mail, passphrase);
    if (!account) {
      if (tried !== null) await done(request, { id: tried, mail }, 'wrong-passphrase');
      throw new HttpProblem(
        401,
        'wrong-passphrase',
        'Not signed in',
        'Mail address and passphrase do not belong together. Check both.',
      );
    }
    if (await accounts.isPasskeysOnly(account.id)) {
      await done(request, account, 'passphrase-without-passkey');
      throw passkeyWanted('That is your passphrase, but only a passkey opens this account.');
    }
    await done(request, account, 'signed-in');
    await enter(request, response, account);
  });

  router.post('/session/passkey/options', limitRate(60, 15), small, async (request, response) => {
    response.json(PasskeyOptions.parse(await passkeys.askToSignIn(siteOf(request))));
  });

  router.post('/session/passkey', limited, small, async (request, response) => {
    const answer = PasskeySignIn.parse(request.body);
    const found = await passkeys.whose(answer, siteOf(request)).catch((error: unknown) => {
      log.info({ err: error }, 'a passkey was not accepted');
      return null;
    });
    if (!found)
      throw new HttpProblem(
        401,
        'passkey',
        'Not signed in',
        'This server does not know that passkey. Sign in with your passphrase.',
      );
    await done(request, found.account, 'signed-in-by-passkey', found.name);
    await enter(request, response, found.account);
  });

  // Whether there is such an account is told to nobody: not by the answer, nor by how long it takes.
  router.post('/reset', limitRate(10, 15), small, (request, response) => {
    const { mail } = CodeWish.parse(request.body);
    if (send === null)
      throw new HttpProblem(
        501,
        'no-mail',
        'No mail',
        'This server sends no mail. Whoever runs it makes you a code: npm run account -- code, and your mail address.',
      );
    const [caller, origin] = [callerOf(request), originOf(request)];
    const sendCode = async () => {
      const account = await accounts.byMail(mail);
      const code = account && (await resetCodes.make(account.id));
      if (!code) return;
      await teller.note({ account, kind: 'code-asked', caller, origin });
      await send(mail, codeLetter(code, CODE_LIFE_MS / 60_000));
    };
    sendCode().catch((error: unknown) => log.error({ err: error }, 'a code was not sent'));
    response.status(202).end();
  });

  router.post('/reset/passphrase', limited, small, byMail, async (request, response) => {
    const { mail, code, passphrase } = PassphraseByCode.parse(request.body);
    // Before the code is used up.
    refuseGuessable(passphrase, { mail, name: '' });
    const accountId = await resetCodes.use(mail, code);
    const account = accountId === null ? null : await accounts.byId(accountId);
    if (!account)
      throw new HttpProblem(
        403,
        'code',
        'Not that code',
        'Mail address and code do not belong together, or the code is older than half an hour. Ask for another.',
      );
    await accounts.setPassphrase(account.id, passphrase);
    for (const { id } of await sessions.endOthers(account.id, null)) bell.ring(id);
    if (await accounts.isPasskeysOnly(account.id)) {
      // Not as what opened it: the device is none that the log knows by this.
      await done(request, account, 'passphrase-changed');
      throw passkeyWanted('The passphrase is chosen, but only a passkey opens this account.');
    }
    await done(request, account, 'passphrase-by-code');
    await enter(request, response, account);
  });

  router.get('/session', requireAccount(sessions, config.secure), (_request, response) => {
    response.json(Account.parse(accountOf(response)));
  });

  router.delete('/session', async (request, response) => {
    await leave(request);
    clearSession(response, config.secure);
    response.status(204).end();
  });

  const done = (request: Request, account: Pick<Account, 'id' | 'mail'>, kind: AccountEventKind, about?: string) =>
    teller.note({
      ...{ account, kind, caller: callerOf(request), origin: originOf(request) },
      ...(about === undefined ? {} : { about }),
    });

  async function leave(request: Request) {
    const token = sessionToken(request, config.secure);
    const id = token ? await sessions.signOut(token) : null;
    if (id !== null) bell.ring(id);
  }

  /** Signs a reader in on the device that asks; who was signed in there before is not any more. */
  async function enter(request: Request, response: Response, account: Account, status = 200) {
    await leave(request);
    setSession(response, await sessions.open(account.id, callerOf(request)), config.secure);
    response.status(status).json(Account.parse(account));
  }

  return router;
}

/** What is right and not enough: a reader whose passkeys are lost is helped by whoever runs the server. */
const passkeyWanted = (why: string) =>
  new HttpProblem(
    403,
    'passkey-wanted',
    'A passkey is wanted',
    `${why} Use your passkey. If you have none any more, whoever runs this server can let the passphrase open it again.`,
  );

/** Of a body that is not yet known to be whole. */
const Mailed = z.object({ mail: Mail });

/** @throws HttpProblem when there is no account */
function invited(outcome: Account | 'no-invitation' | 'known-mail'): Account {
  if (outcome === 'no-invitation')
    throw new HttpProblem(
      403,
      'accounts-closed',
      'Not open',
      'This library has its account already: sign in with it. Others are let in by an invitation, and that code is of none.',
    );
  if (outcome === 'known-mail')
    throw new HttpProblem(
      409,
      'known-mail',
      'Known already',
      'There is an account with that mail address. Sign in with it.',
    );
  return outcome;
}

/** Whether two codes are the same, in a time that does not tell how much of them is. */
const isSame = (given: string, known: string): boolean =>
  timingSafeEqual(Buffer.from(hashOfCode(given)), Buffer.from(hashOfCode(known)));
