import {
  type AccountEventKind,
  AccountOverview,
  AccountPartParams,
  MadeInvitation,
  NewPasskey,
  Passkey,
  PasskeyOptions,
  PasskeysOnly,
  PassphraseAgain,
  PassphraseChange,
} from '@dorvel/core/model';
import { count, eq } from 'drizzle-orm';
import { type Request, type Response, Router } from 'express';
import type { Logger } from 'pino';
import type { AccountTeller } from '../accounts/account-teller';
import type { Accounts } from '../accounts/accounts';
import type { AccountEvents } from '../accounts/events';
import type { Invitations } from '../accounts/invitations';
import type { Passkeys } from '../accounts/passkeys';
import type { Sessions } from '../accounts/sessions';
import type { Tokens } from '../accounts/tokens';
import type { Tries } from '../accounts/tries';
import type { Config } from '../config';
import type { Database } from '../db/open';
import { items } from '../db/schema';
import type { Library } from '../library/library';
import { accountOf, callerOf, clearSession, sessionOf } from './guard';
import { refuseGuessable } from './guessable';
import { originOf, siteOf } from './origin';
import { HttpProblem, notFound } from './problem';
import { limitTries } from './tries';

interface AccountParts {
  database: Database;
  library(accountId: string): Library;
  accounts: Accounts;
  sessions: Sessions;
  tokens: Tokens;
  passkeys: Passkeys;
  invitations: Invitations;
  events: AccountEvents;
  teller: AccountTeller;
  tries: Tries;
  config: Config;
  bell: { ring(whose: string): void };
  /** Erases an account with all that is kept of it anywhere. */
  eraseAll(accountId: string): Promise<void>;
  log: Logger;
}

/** What readers see of their own account, and what they change in it. */
export function accountRoutes(parts: AccountParts): Router {
  const { accounts, sessions, tokens, passkeys, invitations, events, teller, bell } = parts;
  const router = Router();
  const note = (request: Request, response: Response, kind: AccountEventKind, about?: string) =>
    teller.note({
      ...{ account: accountOf(response), kind, caller: callerOf(request), origin: originOf(request) },
      ...(about === undefined ? {} : { about }),
    });
  const partOf = (request: Request) => AccountPartParams.parse(request.params).id;

  const limited = limitTries(parts.tries, {
    name: 'passphrase',
    most: 10,
    of: ({ res }) => (res ? accountOf(res as Response).id : null),
  });
  /** A session may have been left open where others pass by. */
  const showPassphrase = async (request: Request, response: Response, passphrase: string) => {
    if (await accounts.isPassphrase(accountOf(response).id, passphrase)) return;
    await note(request, response, 'wrong-passphrase');
    throw new HttpProblem(403, 'wrong-passphrase', 'Not your passphrase', 'That is not your passphrase. Try again.');
  };

  router.get('/account', async (_request, response) => {
    const { id } = accountOf(response);
    const [listed, known, passkeysOnly, noted, open, mayInvite, [kept], pictureBytes] = await Promise.all([
      sessions.list(id, sessionOf(response)),
      passkeys.list(id),
      accounts.isPasskeysOnly(id),
      events.list(id),
      invitations.list(id),
      accounts.mayInvite(id),
      parts.database.read.select({ n: count() }).from(items).where(eq(items.accountId, id)),
      parts.library(id).pictureBytes(),
    ]);
    response.json(
      AccountOverview.parse({
        sessions: listed,
        passkeys: known,
        passkeysOnly,
        events: noted,
        kept: { items: kept?.n ?? 0, pictureBytes, pictureQuotaBytes: parts.config.pictureQuotaBytes },
        mayInvite,
        invitations: open,
      }),
    );
  });

  router.put('/account/passphrase', limited, async (request, response) => {
    const { passphrase, wanted, endTokens } = PassphraseChange.parse(request.body);
    await showPassphrase(request, response, passphrase);
    refuseGuessable(wanted, accountOf(response));
    await accounts.setPassphrase(accountOf(response).id, wanted);
    await endOthers(response);
    await note(request, response, 'passphrase-changed');
    if (endTokens)
      for (const name of await tokens.revokeAll(accountOf(response).id))
        await note(request, response, 'token-revoked', name);
    response.status(204).end();
  });

  async function endOthers(response: Response) {
    const ended = await sessions.endOthers(accountOf(response).id, sessionOf(response));
    for (const { id } of ended) bell.ring(id);
    return ended;
  }

  router.delete('/account/sessions', async (request, response) => {
    for (const { device } of await endOthers(response)) await note(request, response, 'session-ended', device);
    response.status(204).end();
  });
  router.delete('/account/sessions/:id', async (request, response) => {
    const ended = await sessions.endOne(accountOf(response).id, partOf(request));
    if (!ended) throw notFound('That session');
    bell.ring(ended.id);
    await note(request, response, 'session-ended', ended.device);
    response.status(204).end();
  });

  router.post('/account/invitations', async (request, response) => {
    const { id } = accountOf(response);
    if (!(await accounts.mayInvite(id)))
      throw new HttpProblem(403, 'may-not-invite', 'Not yours to do', 'Only who runs this server lets others in.');
    const made = await invitations.make(id);
    if (!made)
      throw new HttpProblem(409, 'too-many', 'Too many', 'So many invitations are open. Withdraw one of them first.');
    await note(request, response, 'invited');
    response.status(201).json(MadeInvitation.parse(made));
  });
  router.delete('/account/invitations/:id', async (request, response) => {
    if (!(await invitations.withdraw(accountOf(response).id, partOf(request)))) throw notFound('That invitation');
    response.status(204).end();
  });

  router.post('/account/passkeys/options', limited, async (request, response) => {
    await showPassphrase(request, response, PassphraseAgain.parse(request.body).passphrase);
    response.json(PasskeyOptions.parse(await passkeys.askToMake(accountOf(response), siteOf(request))));
  });
  router.post('/account/passkeys', limited, async (request, response) => {
    const wanted = NewPasskey.parse(request.body);
    const made = await passkeys.make(accountOf(response), wanted, siteOf(request)).catch((error: unknown) => {
      parts.log.info({ err: error }, 'a passkey was not accepted');
      return null;
    });
    if (!made)
      throw new HttpProblem(
        400,
        'passkey',
        'No passkey',
        'The passkey could not be made. Begin again, and within five minutes.',
      );
    await note(request, response, 'passkey-added', made.name);
    response.status(201).json(Passkey.parse(made));
  });
  router.delete('/account/passkeys/:id', async (request, response) => {
    const outcome = await passkeys.remove(accountOf(response).id, partOf(request));
    if (outcome === 'unknown') throw notFound('That passkey');
    if (outcome === 'the-last')
      throw new HttpProblem(
        409,
        'the-last-passkey',
        'The last one',
        'Nothing else opens this account. Add another passkey, or let the passphrase open it again.',
      );
    await note(request, response, 'passkey-removed', outcome.removed);
    response.status(204).end();
  });
  router.put('/account/passkeys-only', limited, async (request, response) => {
    const { passphrase, wanted } = PasskeysOnly.parse(request.body);
    await showPassphrase(request, response, passphrase);
    if (!(await accounts.setPasskeysOnly(accountOf(response).id, wanted)))
      throw new HttpProblem(
        409,
        'no-passkey',
        'No passkey yet',
        'Add a passkey first: without one nobody could sign in.',
      );
    await note(request, response, wanted ? 'passkeys-only' : 'passphrase-opens');
    response.status(204).end();
  });

  router.post('/account/erase', limited, async (request, response) => {
    await showPassphrase(request, response, PassphraseAgain.parse(request.body).passphrase);
    const { id } = accountOf(response);
    const open = await sessions.list(id, sessionOf(response));
    await parts.eraseAll(id);
    for (const each of open) bell.ring(each.id);
    clearSession(response, parts.config.secure);
    response.status(204).end();
  });
  return router;
}
