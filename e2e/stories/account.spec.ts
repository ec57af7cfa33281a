import { execFileSync } from 'node:child_process';
import http from 'node:http';
import { type Browser, expect, type Page, test, type TestInfo } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { type OwnServer, ownServer, root } from '../own-server';
import { ACCOUNT_PORTS, LETTER_PORT, page as webPage } from '../ports';
import { goTo, openInYou, row } from '../reader';
import { Client } from '../service/client';

const ada = { mail: 'ada@skerrow.example', name: 'Ada Brandt-Ruiz', passphrase: 'a long enough passphrase' };
const CHANGED = 'quite another passphrase';
const bo = { mail: 'bo@skerrow.example', name: 'Bo Lindqvist', passphrase: 'the second one is long too' };
/** All mail of the tests comes to one place: each width, and each try, has readers of its own. */
const of = ({ project, retry }: TestInfo, reader: typeof ada) => ({
  ...reader,
  mail: `${project.name}-${retry}-${reader.mail}`,
});

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const toAccount = async (page: Page) => {
  await openInYou(page, 'Account');
};
const makeAccount = async (page: Page, code: string, { mail, name, passphrase }: typeof ada) => {
  await page.getByLabel(/code$/).fill(code);
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Mail address').fill(mail);
  await page.getByLabel(/^Passphrase/).fill(passphrase);
  await press(page, 'Make the account');
};
const signIn = async (page: Page, mail: string, passphrase: string) => {
  await page.getByLabel('Mail address').fill(mail);
  await page.getByLabel('Passphrase', { exact: true }).fill(passphrase);
  await press(page, 'Sign in');
};
const isIn = (page: Page) => expect(page.getByRole('heading', { name: 'Now', level: 1 })).toBeVisible();

test('a reader sees where their account is open and what was done with it, shuts devices out, lets another reader in, who leaves for good', async ({
  page,
  browser,
}, info) => {
  const { project } = info;
  const server = ownServer(ACCOUNT_PORTS[project.name as keyof typeof ACCOUNT_PORTS], {
    DORVEL_SMTP_URL: `smtp://127.0.0.1:${LETTER_PORT}`,
  });
  await server.start();
  const [ADA, BO] = [of(info, ada), of(info, bo)];
  // Passkeys belong to a name; a number has none.
  const origin = server.origin.replace('127.0.0.1', 'localhost');
  try {
    await page.goto(origin);
    await makeAccount(page, /first account: (\S+)/.exec(server.output())?.[1] ?? '', ADA);
    await isIn(page);

    const desk = new Client(server.origin);
    const firefox = { 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' };
    expect((await desk.call('POST', '/session', ADA, firefox)).status).toBe(200);
    const itemId = await desk.save('https://harbour.example/notice');
    await toAccount(page);
    const open = page.getByRole('list', { name: 'Signed in on' });
    await expect(open.getByRole('listitem')).toHaveCount(2);
    await expect(open.getByRole('listitem').filter({ hasText: 'This device' })).toContainText('on Linux');
    await press(page, 'End the session of Firefox on Linux, from 127.0.0.1');
    await expect(open.getByRole('listitem')).toHaveCount(1);
    expect((await desk.call('GET', '/session')).status).toBe(401);

    // A passphrase that is not theirs changes nothing; theirs ends what is open elsewhere.
    expect((await desk.call('POST', '/session', ADA, firefox)).status).toBe(200);
    const changing = page.getByRole('region', { name: 'Passphrase' });
    await changing.getByLabel('Current passphrase').fill('not this one at all');
    await changing.getByLabel(/^New passphrase/).fill(CHANGED);
    await changing.getByRole('button').click();
    await expect(changing.getByRole('alert')).toContainText('not your passphrase');
    const tokens = async () =>
      ((await (await page.request.get(`${origin}/api/tokens`)).json()) as { tokens: { name: string }[] }).tokens;
    expect((await desk.call('POST', '/tokens', { name: 'A button', scope: 'save' })).status).toBe(201);
    expect(await tokens()).toHaveLength(1);
    await changing.getByRole('switch', { name: 'End buttons and bookmarks too' }).click();
    await changing.getByLabel('Current passphrase').fill(ADA.passphrase);
    await changing.getByRole('button').click();
    await expect(page.getByText(/passphrase is changed/)).toBeVisible();
    expect(await tokens()).toEqual([]);
    expect((await desk.call('GET', '/session')).status).toBe(401);
    expect((await desk.call('POST', '/session', ADA, firefox)).status).toBe(401);

    // A device that was not known is told of by mail; one that was, not again.
    const told = async () => (await lettersTo(ADA.mail)).sort();
    await expect
      .poll(told, { timeout: 20_000 })
      .toEqual(['Signed in on another device', 'Your passphrase was changed']);

    const log = page.getByRole('list', { name: 'What has happened' });
    await page.reload();
    await expect(log.getByRole('listitem').first()).toContainText('A wrong passphrase was tried');
    await expect(log.getByRole('listitem').first()).toContainText('Firefox on Linux, from 127.0.0.1');
    await expect(log).toContainText('A session was ended: Firefox on Linux');
    await expectAccessible(page, 'account');
    await expectTargets(page, 'account');

    await passkey(page);
    await onlyByPasskey(page, desk, ADA.mail, (...words) => commanded(server, words));
    await page.getByRole('button', { name: 'Remove “My phone”' }).click();
    await page.getByRole('button', { name: 'Remove “My phone” for good' }).click();
    await expect(page.getByRole('list', { name: 'Passkeys' })).toHaveCount(0);
    // Whatever has to do with who can open it; that the right passphrase was given twice in a day is told once.
    await expect.poll(told, { timeout: 20_000 }).toEqual([
      'A passkey was added',
      'A passkey was removed',
      'Only a passkey opens your Dorvel now',
      'Only a passkey opens your Dorvel now',
      'Signed in on another device',
      // One that does not say what it is.
      'Signed in on another device',
      'Somebody has your passphrase',
      'Your passphrase opens your Dorvel again',
      'Your passphrase was changed',
      'Your passphrase was changed',
    ]);

    await press(page, 'Invite somebody');
    const code = await page
      .getByRole('region', { name: 'The invitation' })
      .getByText(/^[0-9a-z]{4}-/)
      .innerText();
    await expectAccessible(page, 'account with an invitation');
    const other = await another(browser, origin, code, BO);
    await expect(page.getByRole('list', { name: 'Open invitations' })).toBeVisible();
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Others on this server' })).toBeVisible();
    await expect(page.getByRole('list', { name: 'Open invitations' })).toHaveCount(0);

    // What is left is the first reader's, as it was.
    await forgottenAndGone(other, BO);
    expect((await desk.call('POST', '/session', { mail: BO.mail, passphrase: CHANGED })).status).toBe(401);
    expect((await desk.call('POST', '/session', { mail: ADA.mail, passphrase: CHANGED })).status).toBe(200);
    expect((await desk.items()).map(({ id }) => id)).toContain(itemId);
  } finally {
    await server.clear();
  }
});

/** What whoever runs the server does beside it: npm run account. @returns what it printed */
const commanded = ({ env }: OwnServer, words: string[]): string =>
  execFileSync(process.execPath, ['server/dist/commands/account.mjs', ...words], { cwd: root, env, encoding: 'utf8' });

/** The subjects of what came by mail. */
async function lettersTo(mail: string): Promise<string[]> {
  const { port } = new URL(webPage('post', '/'));
  const answer = await new Promise<string>((resolve, reject) => {
    // Not every system resolves names under .localhost: the header names the host.
    http
      .get(`http://127.0.0.1:${port}/letters`, { headers: { host: `post.localhost:${port}` } }, (response) => {
        let text = '';
        response.on('data', (part) => (text += String(part))).on('end', () => resolve(text));
      })
      .on('error', reject);
  });
  return [...answer.matchAll(/<a href="[^"]*">([^<]*)<\/a><br>to ([^<]*)</g)].flatMap(([, subject, to]) =>
    to === mail ? [subject!] : [],
  );
}

/** Adds a passkey, signs out, and comes back in by it: with Chromium's own stand-in for an authenticator. */
async function passkey(page: Page) {
  const chromium = await page.context().newCDPSession(page);
  await chromium.send('WebAuthn.enable');
  const { authenticatorId } = await chromium.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await press(page, 'Add a passkey');
  const adding = page.getByRole('region', { name: 'Passkeys' });
  await adding.getByLabel(/^Name, such as/).fill('My phone');
  await adding.getByLabel('Your passphrase').fill(CHANGED);
  await press(page, 'Make the passkey');
  await expect(page.getByRole('list', { name: 'Passkeys' }).getByRole('listitem')).toContainText('never used');
  await openInYou(page, 'Account');
  await press(page, 'Sign out');
  // Who does not show that it is them is not let in.
  await chromium.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false });
  await press(page, 'Use a passkey');
  await expect(page.getByRole('alert')).toContainText('No passkey was given');
  await chromium.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true });
  await press(page, 'Use a passkey');
  await isIn(page);
  await toAccount(page);
  await expect(page.getByRole('list', { name: 'Passkeys' }).getByRole('listitem')).toContainText('last used today');
  await expect(page.getByRole('list', { name: 'What has happened' })).toContainText(
    'Signed in with a passkey: My phone',
  );
}

/** The right passphrase, and a code by mail, let nobody in any more; the one passkey stays; then the passphrase does again. */
async function onlyByPasskey(page: Page, desk: Client, mail: string, operator: (...words: string[]) => string) {
  const keys = page.getByRole('region', { name: 'Passkeys' });
  await press(page, 'Let only a passkey sign in');
  await keys.getByLabel('Your passphrase').fill('not this one at all');
  await press(page, 'Only passkeys from here on');
  await expect(keys.getByRole('alert')).toContainText('not your passphrase');
  await keys.getByLabel('Your passphrase').fill(CHANGED);
  await press(page, 'Only passkeys from here on');
  await expect(keys).toContainText('Nothing else opens this account.');
  await expect(keys.getByRole('button', { name: /^Remove/ })).toHaveCount(0);
  await expectAccessible(page, 'account by passkeys only');
  const isRefused = async (answer: Promise<Response>) => {
    const { status } = await answer;
    expect([status, await (await answer).text()]).toEqual([403, expect.stringContaining('passkey-wanted')]);
    expect((await desk.call('GET', '/session')).status).toBe(401);
  };
  await isRefused(desk.call('POST', '/session', { mail, passphrase: CHANGED }));
  const code = /[0-9a-z]{4}(?:-[0-9a-z]{4}){3}/.exec(operator('code', mail))?.[0];
  await isRefused(desk.call('POST', '/reset/passphrase', { mail, code, passphrase: CHANGED }));
  await press(page, 'Sign out');
  await signIn(page, mail, CHANGED);
  await expect(page.getByRole('alert')).toContainText('only a passkey opens this account');
  await press(page, 'Use a passkey');
  await isIn(page);
  await toAccount(page);
  await expect(page.getByRole('list', { name: 'What has happened' })).toContainText(
    'The right passphrase was given, and no passkey: not let in',
  );
  await press(page, 'Let the passphrase sign in, too');
  await keys.getByLabel('Your passphrase').fill(CHANGED);
  await press(page, 'Let it sign in');
  await expect(keys).toContainText('It works beside the passphrase.');

  // Whose passkeys are lost is helped by whoever runs the server.
  await press(page, 'Let only a passkey sign in');
  await keys.getByLabel('Your passphrase').fill(CHANGED);
  await press(page, 'Only passkeys from here on');
  await expect(keys).toContainText('Nothing else opens this account.');
  expect(operator('passphrase', mail)).toContain('The passphrase opens the account');
  expect((await desk.call('POST', '/session', { mail, passphrase: CHANGED })).status).toBe(200);
  expect((await desk.call('DELETE', '/session')).status).toBe(204);
  await page.reload();
  await expect(keys).toContainText('It works beside the passphrase.');
}

/** A second reader, who was told a code. */
async function another(browser: Browser, origin: string, code: string, BO: typeof bo): Promise<Page> {
  const other = await (await browser.newContext()).newPage();
  await other.goto(origin);
  await press(other, 'I have an invitation');
  await expectAccessible(other, 'an invitation');
  await makeAccount(other, 'abcd-abcd-abcd-abcd', BO);
  await expect(other.getByRole('alert')).toContainText('that code is of none');
  await makeAccount(other, code, BO);
  await isIn(other);
  await goTo(other, 'Inbox');
  // Nothing of Ada's: only what every reader begins with.
  await expect(row(other, 'How to use Dorvel, by using it')).toBeVisible();
  await expect(other.getByRole('list', { name: 'Inbox' }).getByRole('listitem')).toHaveCount(1);
  await toAccount(other);
  await expect(other.getByRole('heading', { name: 'Others on this server' })).toHaveCount(0);
  return other;
}

/** They forget their passphrase, are sent a code, choose another, and erase their account. */
async function forgottenAndGone(other: Page, BO: typeof bo) {
  await openInYou(other, 'Account');
  await press(other, 'Sign out');
  await press(other, 'Forgotten the passphrase?');
  await other.getByLabel('Mail address').fill(BO.mail);
  await press(other, 'Send the code');
  await expect(other.getByRole('status')).toContainText('on its way');
  await expectAccessible(other, 'a forgotten passphrase');
  const mail = await other.context().newPage();
  await expect(async () => {
    await mail.goto(webPage('post', '/letters'));
    await mail
      .getByRole('listitem')
      .filter({ hasText: `to ${BO.mail}` })
      .getByRole('link')
      .first()
      .click({ timeout: 2000 });
  }).toPass();
  const code = /[0-9a-z]{4}(?:-[0-9a-z]{4}){3}/.exec(await mail.locator('body').innerText())?.[0] ?? '';
  await mail.close();
  await other.getByLabel('Code').fill(code);
  await other.getByLabel(/^New passphrase/).fill(CHANGED);
  await press(other, 'Choose this passphrase');
  await isIn(other);
  await toAccount(other);
  await expect(other.getByRole('list', { name: 'What has happened' })).toContainText(
    'Passphrase chosen anew, by a code',
  );
  await press(other, 'Erase the account…');
  await other.getByLabel('Your passphrase').fill('not this one at all');
  await press(other, 'Erase everything');
  await press(other, 'Yes, erase everything for good');
  await expect(other.getByRole('alert')).toContainText('not your passphrase');
  await other.getByLabel('Your passphrase').fill(CHANGED);
  await press(other, 'Erase everything');
  await press(other, 'Yes, erase everything for good');
  await expect(other.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  await signIn(other, BO.mail, CHANGED);
  await expect(other.getByRole('alert')).toContainText('do not belong together');
  await other.context().close();
}
