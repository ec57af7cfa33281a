import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { tagsOf } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { createClock } from '@dorvel/core/sync';
import nodemailer, { type SendMailOptions } from 'nodemailer';
import { pino } from 'pino';
import type { SMTPServer } from 'smtp-server';
import { accountRepository } from '../accounts/accounts';
import { type Mailboxes, mailboxRepository } from '../accounts/mailboxes';
import { workshopInPlace } from '../apart/in-place';
import { GivenUp, type Workshop } from '../apart/workshop';
import { type Database, openDatabase } from '../db/open';
import { type Library, libraryOf } from '../library/library';
import { TEXT_TASKS } from '../tasks/texts';
import { mailListener } from './listener';

const clock = createClock('test', Date.now);
let reading: Workshop;
let folder: string;
let database: Database;
let mailboxes: Mailboxes;
let library: Library;
let server: SMTPServer;
let to: string;

beforeEach(async () => {
  reading = workshopInPlace(TEXT_TASKS);
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
  const account = await accountRepository(database, Date.now).create(
    'a@example.org',
    'A Reader',
    'a long enough passphrase',
  );
  library = libraryOf(database, account?.id ?? '');
  mailboxes = mailboxRepository(database);
  to = `${(await mailboxes.of(library.accountId)).local}@dorvel.example`;
  server = mailListener({
    mailboxes,
    library: (accountId) => libraryOf(database, accountId),
    workshop: { run: (...words) => reading.run(...words), close: () => Promise.resolve() },
    clockOf: () => clock,
    now: Date.now,
    mostAnHour: 3,
    saved: () => undefined,
    log: pino({ level: 'silent' }),
  });
  await new Promise<void>((resolve) => void server.listen(0, '127.0.0.1', resolve));
});
afterEach(async () => {
  await new Promise<void>((resolve) => server.close(resolve));
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Sends over SMTP. @returns the answer: a code and words */
async function send(mail: SendMailOptions): Promise<string> {
  const { port } = server.server.address() as AddressInfo;
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true });
  try {
    return (await transport.sendMail({ from: 'joost@slipway.example', to, subject: 'Look', ...mail })).response;
  } catch (error) {
    return error instanceof Error && 'response' in error ? String(error.response) : String(error);
  }
}
const items = async () => (await library.changesAfter(0)).records.items;

describe('mail to an account', () => {
  it('saves a link with its note and tags, once, however often it is sent', async () => {
    const mail = { subject: 'Larch #wood', text: 'For Thursday: https://slipway.example/larch' };
    expect((await mailboxes.of(library.accountId)).lastUsedAt).toBeNull();
    expect(await send(mail)).toMatch(/^250 /);
    expect((await mailboxes.of(library.accountId)).lastUsedAt).toBeGreaterThan(0);
    expect(await send({ ...mail, to: to.toUpperCase() })).toMatch(/^250 /);
    const saved = await items();
    expect(saved.filter(({ capture }) => capture.duplicateOf === null)).toMatchObject([
      { address: 'https://slipway.example/larch' },
    ]);
    expect((await library.changesAfter(0)).records.notes.map(noteText)).toEqual(['For Thursday:']);
    expect(saved.flatMap(tagsOf)).toEqual(['wood']);
  });

  it('keeps a letter as a letter', async () => {
    await send({
      messageId: '<7@slipway.example>',
      text: 'The larch is in.',
      list: { id: 'yard.slipway.example' },
    });
    expect(await items()).toMatchObject([{ address: 'mid:7@slipway.example', capture: { state: 'waiting' } }]);
  });

  // RFC 5321, 4.2.3 and 4.5.5; RFC 3463; RFC 3834.
  it.each<[string, SendMailOptions, RegExp]>([
    ['an address that nobody has', { to: 'save-nobody@dorvel.example' }, /^550 5\.1\.1 /],
    ['a notice of delivery', { envelope: { from: '' } }, /^550 5\.7\.1 .*notices/],
    ['an automatic reply', { headers: { 'Auto-Submitted': 'auto-replied' }, text: 'Away.' }, /^554 5\.7\.1 /],
    [
      'a mail in circles',
      { headers: Array.from({ length: 60 }, () => ({ key: 'Received', value: 'from a by b' })), text: 'x' },
      /^554 5\.4\.6 /,
    ],
    ['nothing to save', { text: '' }, /^554 5\.6\.0 /],
    ['too much', { text: 'x', attachments: [{ filename: 'a.pdf', content: Buffer.alloc(11_000_000) }] }, /^552 /],
  ])('refuses %s', async (_what, mail, answer) => {
    const from = mail.envelope ? { envelope: { ...mail.envelope, to } } : {};
    expect(await send({ ...mail, ...from })).toMatch(answer);
    expect(await items()).toEqual([]);
  });

  it('takes mail only from whom its owner allows, and at another name after it was renamed', async () => {
    await mailboxes.allow(library.accountId, ['birgit@slipway.example', '@tidewater.example']);
    const text = 'https://slipway.example/larch';
    expect(await send({ text })).toMatch(/^550 5\.7\.1 .*takes no mail from you/);
    // The envelope may say what it likes: the letter's own sender counts as well.
    expect(await send({ text, envelope: { from: 'birgit@slipway.example', to } })).toMatch(/^550 5\.7\.1/);
    expect(await send({ text, from: 'Birgit@Slipway.example' })).toMatch(/^250 /);
    expect(await send({ text, from: 'any@tidewater.example' })).toMatch(/^250 /);
    await mailboxes.rename(library.accountId);
    expect(await send({ text, from: 'birgit@slipway.example' })).toMatch(/^550 5\.1\.1/);
  });

  it('keeps a flood out', async () => {
    const text = 'https://slipway.example/larch';
    for (let n = 0; n < 3; n++) expect(await send({ text })).toMatch(/^250 /);
    expect(await send({ text })).toMatch(/^451 4\.7\.0 /);
  });

  it('keeps a letter whose id is beyond ASCII, and a link of 3,000 letters beyond it', async () => {
    const id = `<${'é'.repeat(200)}@slipway.example>`;
    const raw = `From: joost@slipway.example\r\nTo: ${to}\r\nSubject: Ebb\r\nMessage-ID: ${id}\r\nList-Id: yard\r\nMIME-Version: 1.0\r\nContent-Type: text/plain; charset=utf-8\r\n\r\nThe larch is in.`;
    expect(await send({ raw, envelope: { from: 'joost@slipway.example', to } })).toMatch(/^250 /);
    expect(await send({ text: `Look: https://slipway.example/${'é'.repeat(3000)}` })).toMatch(/^250 /);
    const saved = await items();
    expect(saved.map(({ address }) => address.slice(0, 12))).toEqual(['mid:%C3%A9%C', 'https://slip']);
  });

  it.each<[string, Workshop['run'], RegExp]>([
    ['takes too long to be read', () => Promise.reject(new GivenUp('time')), /^554 5\.6\.0 .*cannot be read safely/],
    ['cannot be read', () => Promise.reject(new Error('parts')), /^554 5\.6\.0 .*cannot be read/],
  ])('refuses for good what %s, so that nobody sends it for days', async (_what, run, answer) => {
    reading = { run, close: () => Promise.resolve() };
    expect(await send({ text: 'https://slipway.example/larch' })).toMatch(answer);
    expect(await items()).toEqual([]);
  });

  it('refuses a letter of 1,100 parts for good', async () => {
    const part = '--b\r\nContent-Type: text/plain\r\n\r\nRopes.\r\n';
    const raw = `From: joost@slipway.example\r\nTo: ${to}\r\nSubject: x\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n${part.repeat(1100)}--b--\r\n`;
    expect(await send({ raw, envelope: { from: 'joost@slipway.example', to } })).toMatch(/^554 5\.6\.0 /);
    expect(await items()).toEqual([]);
  });

  it('has a letter sent again when it does not lie with the letter', async () => {
    reading = { run: () => Promise.reject(new GivenUp('ended')), close: () => Promise.resolve() };
    expect(await send({ text: 'https://slipway.example/larch' })).toMatch(/^451 /);
  });

  it('refuses what could not be saved, instead of saying that it was', async () => {
    reading = workshopInPlace({
      letter: () => ({
        sender: 'joost@slipway.example',
        isAutomatic: false,
        goesInCircles: false,
        requests: [{ address: 'gopher://é', tags: [] }],
      }),
    });
    expect(await send({ text: 'x' })).toMatch(/^554 5\.6\.0 It could not be saved: .*cannot be saved/);
  });
});
