import { expect } from '@playwright/test';
import { test } from '../homes';
import { Client } from './client';

test('nothing is to be had without a session, and errors are problem details (RFC 9457)', async ({ empty }) => {
  for (const [method, path] of [
    ['GET', '/sync/pull'],
    ['POST', '/sync/push'],
    ['GET', '/copies/01900000-0000-7000-8000-000000000000'],
    ['GET', `/pictures/${'a'.repeat(64)}.webp`],
    ['GET', '/sync/events'],
    ['GET', '/session'],
  ] as const) {
    const response = await new Client(empty).call(method, path, method === 'POST' ? { mutations: [] } : undefined);
    expect(response.status, path).toBe(401);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
    expect(await response.json()).toMatchObject({
      type: '/problems/sign-in',
      status: 401,
      title: expect.any(String),
      detail: expect.any(String),
    });
  }
});

test('writes from another site are refused', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  expect((await client.call('POST', '/sync/push', { mutations: [] }, { 'sec-fetch-site': 'cross-site' })).status).toBe(
    403,
  );
  expect((await client.call('POST', '/sync/push', { mutations: [] }, { origin: 'https://evil.example' })).status).toBe(
    403,
  );
  expect((await client.call('POST', '/sync/push', { mutations: [] }, { 'content-type': 'text/plain' })).status).toBe(
    415,
  );
  expect((await client.call('POST', '/sync/push', { mutations: [] })).status).toBe(200);
});

test('the cookie is closed to script and to other sites, and the policy allows nothing inline', async ({ empty }) => {
  const response = await fetch(`${empty}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ mail: 'ines@skerrow.example', passphrase: 'the tide waits for the ferry' }),
  });
  expect(response.headers.get('set-cookie')).toMatch(/HttpOnly/);
  expect(response.headers.get('set-cookie')).toMatch(/SameSite=Lax/);
  const policy = (await fetch(`${empty}/`)).headers.get('content-security-policy') ?? '';
  expect(policy).toContain("script-src 'self'");
  expect(policy).toContain("img-src 'self' blob:;");
  expect(policy).not.toContain('unsafe');
});

test('bad input is named, and a missing file is not the app', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  const bad = await client.call('POST', '/sync/push', { nothing: true });
  expect(bad.status).toBe(400);
  expect((await bad.json()).detail).toContain('mutations');
  expect((await client.call('POST', '/sync/push', '{', {})).status).toBe(400);
  expect((await fetch(`${empty}/no-such-script.js`)).status).toBe(404);
  expect((await fetch(`${empty}/queue/anything`)).headers.get('content-type')).toContain('text/html');
  expect((await client.call('GET', '/pictures/..%2f..%2fdorvel.db')).status).toBe(400);
});

test('an account can only be made in an empty library', async ({ empty }) => {
  const response = await new Client(empty).call('POST', '/accounts', {
    code: 'any',
    mail: 'b@example.org',
    name: 'B',
    passphrase: 'a long enough passphrase',
  });
  expect(response.status).toBe(403);
});
