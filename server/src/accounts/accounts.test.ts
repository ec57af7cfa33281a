import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Account } from '@dorvel/core/model';
import { sql } from 'drizzle-orm';
import { type Database, openDatabase } from '../db/open';
import { passkeys as passkeyTable } from '../db/schema';
import { accountRepository } from './accounts';
import { deviceWords } from './caller';
import { hashOfCode, newCode } from './codes';
import { accountEventLog } from './events';
import { invitationRepository } from './invitations';
import { passkeyRepository } from './passkeys';
import { resetCodeRepository } from './reset-codes';
import { sessionRepository } from './sessions';

const PASSPHRASE = 'a long enough passphrase';
const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;
const PHONE = { device: 'Firefox on Android', place: '192.0.2.7' };
const DESK = { device: 'Firefox on Linux', place: '2001:db8::1' };

let folder: string;
let database: Database;
let now = Date.UTC(2026, 10, 1);
const clock = () => now;

beforeEach(async () => {
  now = Date.UTC(2026, 10, 1);
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
});
afterEach(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

const accounts = () => accountRepository(database, clock);
const account = async (mail = 'a@example.org'): Promise<Account> => (await accounts().create(mail, 'A', PASSPHRASE))!;

describe('passphrases', () => {
  it('open their own account only, and are told whose they were tried on', async () => {
    const { id } = await account();
    expect((await accounts().whose('a@example.org', PASSPHRASE)).account?.id).toBe(id);
    expect(await accounts().whose('a@example.org', 'another passphrase')).toEqual({ account: null, tried: id });
    expect(await accounts().whose('nobody@example.org', PASSPHRASE)).toEqual({ account: null, tried: null });
  });

  it('are replaced, and the one before opens nothing', async () => {
    const { id } = await account();
    await accounts().setPassphrase(id, 'quite another passphrase');
    expect(await accounts().isPassphrase(id, PASSPHRASE)).toBe(false);
    expect(await accounts().isPassphrase(id, 'quite another passphrase')).toBe(true);
    expect((await accounts().whose('a@example.org', PASSPHRASE)).account).toBeNull();
  });
});

describe('an account that only a passkey opens', () => {
  const SITE = { origin: 'https://dorvel.example', host: 'dorvel.example' };
  const withPasskeys = async (accountId: string, ...names: string[]) => {
    await database.write((tx) =>
      tx.insert(passkeyTable).values(
        names.map((name) => ({
          ...{ id: `${name}-id`, accountId, credentialId: `${name}-credential`, publicKey: '', counter: 0 },
          ...{ transports: [], name, madeAt: now, lastUsedAt: null },
        })),
      ),
    );
    return passkeyRepository(database, clock);
  };

  it('needs one that would open it, and is none from the first', async () => {
    const { id } = await account();
    expect(await accounts().isPasskeysOnly(id)).toBe(false);
    expect(await accounts().setPasskeysOnly(id, true)).toBe(false);
    expect(await accounts().isPasskeysOnly(id)).toBe(false);
    const other = await account('b@example.org');
    await withPasskeys(other.id, 'theirs');
    expect(await accounts().setPasskeysOnly(id, true)).toBe(false);
  });

  it('keeps its last passkey until the passphrase opens it again', async () => {
    const { id } = await account();
    const keys = await withPasskeys(id, 'phone', 'desk');
    expect(await accounts().setPasskeysOnly(id, true)).toBe(true);
    expect(await accounts().isPasskeysOnly(id)).toBe(true);
    expect(await keys.remove(id, 'phone-id')).toEqual({ removed: 'phone' });
    expect(await keys.remove(id, 'phone-id')).toBe('unknown');
    expect(await keys.remove(id, 'desk-id')).toBe('the-last');
    expect((await keys.list(id)).map(({ name }) => name)).toEqual(['desk']);
    expect(await accounts().setPasskeysOnly(id, false)).toBe(true);
    expect(await keys.remove(id, 'desk-id')).toEqual({ removed: 'desk' });
    // The way back is there, too, when no passkey is.
    expect(await accounts().setPasskeysOnly(id, false)).toBe(true);
  });

  it('asks whoever holds a passkey who they are: it stands for two factors', async () => {
    const { options } = await (await withPasskeys((await account()).id, 'phone')).askToSignIn(SITE);
    expect(options.userVerification).toBe('required');
  });
});

describe('sessions', () => {
  const failed = jest.fn();
  const sessions = () => sessionRepository(database, clock, failed);
  afterEach(() => expect(failed).not.toHaveBeenCalled());
  /** Until what nobody waits for is written down. */
  const written = () => database.write(() => Promise.resolve());

  it('open their account until they are signed out of, and no token of theirs is kept', async () => {
    const { id } = await account();
    const token = await sessions().open(id, PHONE);
    expect(JSON.stringify(await database.read.all(sql`select * from sessions`))).not.toContain(token);
    const session = await sessions().resume(token, PHONE.place);
    expect(session?.account.mail).toBe('a@example.org');
    expect(await sessions().isOpen(session?.id ?? '')).toBe(true);
    expect(await sessions().signOut(token)).toBe(session?.id);
    expect(await sessions().resume(token, PHONE.place)).toBeNull();
    expect(await sessions().isOpen(session?.id ?? '')).toBe(false);
  });

  it('rotate after a day; the old token serves until the new one is used, and a minute more', async () => {
    const { id } = await account();
    const resume = (token: string) => sessions().resume(token, PHONE.place);
    const old = await sessions().open(id, PHONE);
    now += DAY_MS + 60 * MINUTE_MS;
    // Of requests that come at once, one brings the new token: two might arrive in the wrong order.
    const answers = await Promise.all([resume(old), resume(old), resume(old)]);
    const [lost = '', ...more] = answers.flatMap((answer) => answer?.rotatedTo ?? []);
    expect(more).toEqual([]);
    // The answer was lost, and the device comes again hours later: it gets another, and the lost one opens nothing.
    now += 6 * 60 * MINUTE_MS;
    const rotated = (await resume(old))?.rotatedTo ?? '';
    expect(rotated).not.toBe('');
    expect(await resume(lost)).toBeNull();
    expect((await resume(rotated))?.rotatedTo).toBeNull();
    expect((await resume(old))?.rotatedTo).toBeNull();
    now += 61_000;
    expect(await resume(old)).toBeNull();
    expect(await resume(rotated)).not.toBeNull();
  });

  it('end when they are not used for three months, and after a year however much they are used', async () => {
    const { id } = await account();
    const unused = await sessions().open(id, DESK);
    let used = await sessions().open(id, PHONE);
    let days = 0;
    for (let session = await sessions().resume(used, PHONE.place); session;) {
      used = session.rotatedTo ?? used;
      now += DAY_MS + MINUTE_MS;
      days += 1;
      if (days === 91) expect(await sessions().resume(unused, DESK.place)).toBeNull();
      session = await sessions().resume(used, PHONE.place);
    }
    expect(days).toBe(365);
  });

  it('are listed once each with device, place and last use, whatever tokens they have had, and ended one by one', async () => {
    const [{ id }, other] = [await account(), await account('b@example.org')];
    const phone = await sessions().open(id, PHONE);
    const desk = await sessions().open(id, DESK);
    const strange = await sessions().open(other.id, DESK);
    now += DAY_MS + MINUTE_MS;
    const moved = await sessions().resume(phone, '198.51.100.4');
    const own = moved?.id ?? '';
    await written();
    expect(await sessions().list(id, own)).toEqual([
      {
        id: own,
        device: PHONE.device,
        place: '198.51.100.4',
        signedInAt: Date.UTC(2026, 10, 1),
        lastUsedAt: now,
        isThis: true,
      },
      expect.objectContaining({ ...DESK, isThis: false }),
    ]);
    const deskId = (await sessions().resume(desk, DESK.place))?.id ?? '';
    expect(await sessions().endOne(other.id, deskId)).toBeNull();
    expect(await sessions().endOne(id, deskId)).toEqual({ id: deskId, device: DESK.device });
    expect(await sessions().resume(desk, DESK.place)).toBeNull();

    // One that is on its way to replace another ends with it.
    expect(await sessions().endOthers(id, own)).toEqual([]);
    expect(await sessions().endOthers(id, null)).toEqual([{ id: own, device: PHONE.device }]);
    for (const token of [phone, moved?.rotatedTo ?? '']) expect(await sessions().resume(token, '')).toBeNull();
    expect(await sessions().resume(strange, DESK.place)).not.toBeNull();
  });
});

describe('invitations', () => {
  const invitations = () => invitationRepository(database, clock);

  it('let one reader in, who lets in nobody else', async () => {
    const { id } = await account();
    const { code } = (await invitations().make(id))!;
    expect(JSON.stringify(await database.read.all(sql`select * from invitations`))).not.toContain(
      code.replaceAll('-', ''),
    );
    const typed = ` ${code.toUpperCase().replaceAll('-', ' ')}`;
    const both = await Promise.all(
      ['b@example.org', 'c@example.org'].map((mail) => accounts().createInvited(mail, 'B', PASSPHRASE, typed)),
    );
    expect(both.filter((each) => each === 'no-invitation')).toHaveLength(1);
    const made = both.find((each) => typeof each === 'object');
    expect(await accounts().mayInvite(made?.id ?? '')).toBe(false);
    expect(await accounts().mayInvite(id)).toBe(true);
    expect(await invitations().list(id)).toEqual([]);
  });

  it('stay good when the mail address is known; end after a week, and when they are withdrawn', async () => {
    const [{ id }, other] = [await account(), await account('b@example.org')];
    const one = (await invitations().make(id))!;
    expect(await accounts().createInvited('b@example.org', 'B', PASSPHRASE, one.code)).toBe('known-mail');
    const two = (await invitations().make(id))!;
    expect(await invitations().withdraw(other.id, two.invitation.id)).toBe(false);
    expect(await invitations().withdraw(id, two.invitation.id)).toBe(true);
    expect(await accounts().createInvited('c@example.org', 'C', PASSPHRASE, two.code)).toBe('no-invitation');
    expect((await invitations().list(id)).map((each) => each.id)).toEqual([one.invitation.id]);
    now += 7 * DAY_MS;
    expect(await accounts().createInvited('c@example.org', 'C', PASSPHRASE, one.code)).toBe('no-invitation');
    expect(await invitations().list(id)).toEqual([]);
  });

  it('are not without number', async () => {
    const { id } = await account();
    for (let n = 0; n < 20; n++) expect(await invitations().make(id)).not.toBeNull();
    expect(await invitations().make(id)).toBeNull();
  });
});

describe('codes for another passphrase', () => {
  const codes = () => resetCodeRepository(database, clock);

  it('open their own account once, for half an hour', async () => {
    const { id } = await account();
    await account('b@example.org');
    const code = (await codes().make(id))!;
    expect(await codes().use('b@example.org', code)).toBeNull();
    expect(await codes().use('a@example.org', newCode())).toBeNull();
    expect(await codes().use('a@example.org', code)).toBe(id);
    expect(await codes().use('a@example.org', code)).toBeNull();

    now += 3 * MINUTE_MS;
    const late = (await codes().make(id))!;
    now += 30 * MINUTE_MS;
    expect(await codes().use('a@example.org', late)).toBeNull();
  });

  it('are not made again within two minutes, and a new one ends the one before', async () => {
    const { id } = await account();
    const first = (await codes().make(id))!;
    expect(await codes().make(id)).toBeNull();
    now += 2 * MINUTE_MS;
    const second = (await codes().make(id))!;
    expect(await codes().use('a@example.org', first)).toBeNull();
    expect(await codes().use('a@example.org', second)).toBe(id);
  });

  it('have sixteen signs, none of which is taken for another, and are typed as one likes', () => {
    const code = newCode();
    expect(code).toMatch(/^[0-9a-hjkmnp-tv-z]{4}(?:-[0-9a-hjkmnp-tv-z]{4}){3}$/);
    expect(hashOfCode(` ${code.toUpperCase().replaceAll('-', '')} `)).toBe(hashOfCode(code));
    expect(new Set(Array.from({ length: 200 }, newCode)).size).toBe(200);
  });
});

describe('the log of an account', () => {
  it('has the newest first, of that account, for a year, and no more than it may', async () => {
    const [{ id }, other] = [await account(), await account('b@example.org')];
    const log = accountEventLog(database, clock);
    await log.note(id, 'signed-in', PHONE);
    now += MINUTE_MS;
    await log.note(id, 'token-made', DESK, 'A desk');
    await log.note(other.id, 'wrong-passphrase', DESK);
    expect(await log.list(id)).toEqual([
      { at: now, kind: 'token-made', ...DESK, about: 'A desk' },
      { at: now - MINUTE_MS, kind: 'signed-in', ...PHONE, about: null },
    ]);
    for (let n = 0; n < 505; n++) await log.note(other.id, 'wrong-passphrase', DESK);
    const [row] = await database.read.all<{ n: number }>(
      sql`select count(*) as n from account_events where account_id = ${other.id}`,
    );
    expect(row?.n).toBe(500);
    now += 366 * DAY_MS;
    await log.note(id, 'signed-in', PHONE);
    expect(await log.list(id)).toHaveLength(1);
  });
});

// From memory: what browsers send of themselves (RFC 9110, 10.1.5).
it.each([
  ['Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0', 'Firefox on Linux'],
  ['Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0', 'Firefox on Android'],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 18_5 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Mobile/15E148 Safari/604.1',
    'Safari on iOS',
  ],
  [undefined, ''],
  ['', ''],
  ['\u0000'.repeat(9), ''],
])('of %j a device is called %j', (userAgent, words) => {
  expect(deviceWords(userAgent)).toBe(words);
});
