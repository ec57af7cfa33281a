import { execFileSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { ownServer, root } from '../own-server';
import { ACCOUNTS_PORT, CODE_PORT } from '../ports';
import { Client } from './client';

const READER = { mail: 'reader@example.org', name: 'A Reader', passphrase: 'a long enough passphrase' };

test('an empty library gets its first account on the screen, takes no second, and locks out who guesses', async ({
  page,
}) => {
  const server = ownServer(ACCOUNTS_PORT);
  await server.start();
  try {
    await page.goto(server.origin);
    await expect(page.getByText(/empty and has no account yet/)).toBeVisible();
    await expect(page.getByRole('button', { name: /demo/ })).toHaveCount(0);
    await page.getByLabel('Set-up code').fill(/first account: (\S+)/.exec(server.output())?.[1] ?? '');
    await page.getByLabel('Name').fill(READER.name);
    await page.getByLabel('Mail address').fill(READER.mail);
    await page.getByLabel(/^Passphrase/).fill('too short');
    await page.getByRole('button', { name: 'Make the account' }).click();
    await expect(page.getByRole('alert')).toContainText('at least 12 characters');
    await page.getByLabel(/^Passphrase/).fill(READER.passphrase);
    await page.getByRole('button', { name: 'Make the account' }).click();
    await expect(page.getByText(/nothing waits for you now/)).toBeVisible();

    const second = await new Client(server.origin).call('POST', '/accounts', {
      ...READER,
      mail: 'other@example.org',
      code: 'any',
    });
    expect(second.status).toBe(403);

    // Signing in once more, on this and on another device: both sessions live, and the one that was replaced is dead.
    const device = new Client(server.origin);
    expect((await device.call('POST', '/session', READER)).status).toBe(200);
    const replaced = device.cookie;
    expect((await device.call('POST', '/session', READER)).status).toBe(200);
    expect(device.cookie).not.toBe(replaced);
    expect((await device.call('GET', '/session')).status).toBe(200);
    expect((await new Client(server.origin, replaced).call('GET', '/session')).status).toBe(401);
    await page.reload();
    await expect(page.getByText(/nothing waits for you now/)).toBeVisible();

    const tries: number[] = [];
    for (let n = 0; n < 12; n++)
      tries.push(
        (await new Client(server.origin).call('POST', '/session', { ...READER, passphrase: 'a wrong guess' })).status,
      );
    expect(tries.slice(0, 8)).toEqual(Array(8).fill(401));
    expect(tries.at(-1)).toBe(429);
    const locked = await new Client(server.origin).call('POST', '/session', READER);
    expect(locked.status).toBe(429);
    expect(await locked.json()).toMatchObject({
      type: '/problems/too-many-tries',
      detail: expect.stringContaining('Wait'),
    });
    // Who is signed in stays signed in.
    expect((await device.call('GET', '/session')).status).toBe(200);
  } finally {
    await server.clear();
  }
});

test('whoever runs the server makes a code for who has forgotten their passphrase; it opens once, and ends every session', async () => {
  const server = ownServer(CODE_PORT, { DORVEL_DEMO: '1' });
  await server.start();
  try {
    const command = (...words: string[]) =>
      execFileSync(process.execPath, ['scripts/command.mjs', 'account', ...words], {
        cwd: root,
        env: server.env,
        encoding: 'utf8',
      });
    const device = await new Client(server.origin).signIn();
    expect(command()).toContain('ines@skerrow.example  Ines Tavora-Holm');
    expect(() => command('code', 'nobody@skerrow.example')).toThrow(/No account has that mail address/);
    const [code = ''] = /[0-9a-z]{4}(?:-[0-9a-z]{4}){3}/.exec(command('code', 'ines@skerrow.example')) ?? [];
    expect(() => command('code', 'ines@skerrow.example')).toThrow(/a moment ago/);

    // Who asks through the server is told how to come by one, and nothing of who has an account.
    const asked = await new Client(server.origin).call('POST', '/reset', { mail: 'ines@skerrow.example' });
    expect([asked.status, await asked.json()]).toMatchObject([
      501,
      { detail: expect.stringContaining('npm run account') },
    ]);
    const wish = { mail: 'ines@skerrow.example', passphrase: 'quite another passphrase' };
    const choose = (by: string, more = {}) =>
      new Client(server.origin).call('POST', '/reset/passphrase', { ...wish, code: by, ...more });
    expect((await choose('aaaa-aaaa-aaaa-aaaa')).status).toBe(403);
    expect((await choose(code, { passphrase: 'too short' })).status).toBe(400);
    expect((await choose(code)).status).toBe(200);
    expect((await choose(code)).status).toBe(403);
    expect((await device.call('GET', '/session')).status).toBe(401);
    expect((await new Client(server.origin).call('POST', '/session', wish)).status).toBe(200);
  } finally {
    await server.clear();
  }
});

test('behind TLS the session is in a cookie that no other host can set, and an easily guessed passphrase opens nothing', async () => {
  const server = ownServer(CODE_PORT, { DORVEL_SECURE: '1' });
  await server.start();
  try {
    const code = /first account: (\S+)/.exec(server.output())?.[1] ?? '';
    const device = new Client(server.origin);
    const guessed = await device.call('POST', '/accounts', { ...READER, passphrase: 'passwordpassword', code });
    expect([guessed.status, await guessed.json()]).toMatchObject([
      400,
      { detail: expect.stringContaining('easily guessed') },
    ]);
    const made = await device.call('POST', '/accounts', { ...READER, code });
    // RFC 6265bis, 4.1.3.2: the prefix asks for Secure, for the path /, and for no Domain.
    const cookie = made.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/^__Host-dorvel_session=[\w-]{43}; /);
    for (const part of ['Path=/', 'HttpOnly', 'Secure', 'SameSite=Lax']) expect(cookie.split('; ')).toContain(part);
    expect(cookie).not.toMatch(/domain/i);
    expect(made.headers.get('strict-transport-security')).toMatch(/max-age=\d{7,}/);
    expect((await device.call('GET', '/session')).status).toBe(200);
    const unprefixed = new Client(server.origin, device.cookie.replace('__Host-', ''));
    expect((await unprefixed.call('GET', '/session')).status).toBe(401);
    const changed = await device.call('PUT', '/account/passphrase', {
      passphrase: READER.passphrase,
      wanted: 'readerreader',
    });
    expect(changed.status).toBe(400);
  } finally {
    await server.clear();
  }
});
