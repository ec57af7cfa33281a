import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Account, AccountEventKind } from '@dorvel/core/model';
import pino from 'pino';
import { type Database, openDatabase } from '../db/open';
import { accountTeller } from './account-teller';
import { accountRepository } from './accounts';
import { accountEventLog } from './events';

const HOUR_MS = 60 * 60 * 1000;
const ORIGIN = 'https://library.example.org';
const PHONE = { device: 'Firefox on Android', place: '192.0.2.7' };
const DESK = { device: 'Firefox on Linux', place: '2001:db8::1' };

let folder: string;
let database: Database;
let account: Account;
let now = 0;
const clock = () => now;
const send = jest.fn(() => Promise.resolve());
const log = pino({ level: 'silent' });

beforeEach(async () => {
  now = Date.UTC(2026, 10, 1);
  send.mockReset().mockResolvedValue(undefined);
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
  account = (await accountRepository(database, clock).create('a@example.org', 'A', 'a long enough passphrase'))!;
});
afterEach(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

const events = () => accountEventLog(database, clock);
const done = (kind: AccountEventKind, caller = PHONE, by: typeof send | null = send) =>
  accountTeller({ events: events(), send: by, log, now: clock }).note({ account, kind, caller, origin: ORIGIN });
const subjects = () =>
  (send.mock.calls as unknown as [to: string, letter: { subject: string; text: string }][]).map(
    ([to, { subject, text }]) => {
      expect(to).toBe('a@example.org');
      expect(text).toContain(`${ORIGIN}/you/account`);
      return subject;
    },
  );

it('tells of changes in who can open an account, each time, and of other things not', async () => {
  for (const kind of ['passphrase-changed', 'passkey-added', 'passkey-added', 'token-made', 'archive-taken'] as const)
    await done(kind);
  expect(subjects()).toEqual(['Your passphrase was changed', 'A passkey was added', 'A passkey was added']);
  expect((await events().list(account.id)).map(({ kind }) => kind)).toEqual([
    'archive-taken',
    'token-made',
    'passkey-added',
    'passkey-added',
    'passphrase-changed',
  ]);
});

it('tells of a device that the account was not open on before, but not of the first', async () => {
  for (const caller of [PHONE, DESK, DESK, PHONE]) await done('signed-in', caller);
  expect(subjects()).toEqual(['Signed in on another device']);
});

it('tells once in a day that the right passphrase was refused', async () => {
  await done('passphrase-without-passkey');
  await done('passphrase-without-passkey', DESK);
  expect(subjects()).toEqual(['Somebody has your passphrase']);
  now += 25 * HOUR_MS;
  await done('passphrase-without-passkey');
  expect(subjects()).toHaveLength(2);
});

it('tells of wrong passphrases with the fifth of a day: whoever mistypes is left alone, a guesser fills no mailbox', async () => {
  for (let n = 0; n < 4; n++) await done('wrong-passphrase');
  expect(subjects()).toEqual([]);
  for (let n = 0; n < 40; n++) await done('wrong-passphrase');
  expect(subjects()).toEqual(['Wrong passphrases were tried']);
});

it('writes down what was done where no mail is sent, or when it is not taken', async () => {
  await done('passphrase-changed', PHONE, null);
  send.mockRejectedValue(new Error('the mail server does not answer'));
  await done('passkey-added');
  expect((await events().list(account.id)).map(({ kind }) => kind)).toEqual(['passkey-added', 'passphrase-changed']);
});
