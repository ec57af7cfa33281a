import { accountLetter, type Letter, LETTER_KINDS, type LetterKind, newDeviceLetter } from '@dorvel/core/formats';
import type { Account, AccountEventKind } from '@dorvel/core/model';
import { callerWords } from '@dorvel/core/wording';
import type { Logger } from 'pino';
import type { Caller } from './caller';
import { type AccountEvents, OPENINGS } from './events';

const DAY_MS = 24 * 60 * 60 * 1000;
/** Of what comes from whoever knocks, the one of a day that a letter tells: a reader mistypes, and a guesser fills no mailbox. */
const TOLD_AT: Partial<Record<AccountEventKind, number>> = { 'passphrase-without-passkey': 1, 'wrong-passphrase': 5 };

interface TellerParts {
  events: AccountEvents;
  /** Null where this server sends no mail. */
  send: ((to: string, letter: Letter) => Promise<void>) | null;
  log: Logger;
  now(): number;
}

/** What was done with an account. */
export interface Done {
  account: Pick<Account, 'id' | 'mail'>;
  kind: AccountEventKind;
  caller: Caller;
  /** By which the request reached this server. */
  origin: string;
  /** Which token, passkey or device. */
  about?: string;
}

/**
 * Writes down what was done with accounts, and tells their readers by mail what has to do with who can open them: a device that it
 * was not open on before, another passphrase, passkeys, and that somebody tries passphrases.
 */
export function accountTeller({ events, send, log, now }: TellerParts) {
  async function letterFor({ account, kind, caller, origin }: Done) {
    const [where, page] = [callerWords(caller), `${origin}/you/account`];
    const at = TOLD_AT[kind];
    if (at !== undefined && (await events.countSince(account.id, kind, now() - DAY_MS)) !== at - 1) return null;
    if (isLetterKind(kind)) return accountLetter(kind, where, page);
    if (!OPENINGS.includes(kind)) return null;
    const { ever, there } = await events.openedOn(account.id, caller.device);
    return ever && !there ? newDeviceLetter(where, page) : null;
  }
  return {
    /** The letter is on its way when this returns, and is not waited for. */
    async note(done: Done): Promise<void> {
      const { account, kind, caller, about } = done;
      // By what was there before.
      const letter = send === null ? null : await letterFor(done);
      await events.note(account.id, kind, caller, about);
      if (letter)
        send?.(account.mail, letter).catch((error: unknown) => log.error({ err: error }, 'a letter was not sent'));
    },
  };
}
export type AccountTeller = ReturnType<typeof accountTeller>;

const isLetterKind = (kind: AccountEventKind): kind is LetterKind => (LETTER_KINDS as readonly string[]).includes(kind);
