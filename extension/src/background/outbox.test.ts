import type { Mutation } from '@dorvel/core/records';
import type { PushResult } from '@dorvel/core/sync';
import { ACCOUNT, pairedBrowser } from './fake-browser.test-data';
import { send } from './outbox';
import { storage } from './storage';

const OTHER = '019a0000-0000-7000-8000-000000000002';

/** What every answer tells of the server. */
const SAYS = { cursor: 1, now: Date.now(), epoch: 'one' };
const id = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const save = (n: number): Mutation => ({
  type: 'save',
  id: id(n),
  itemId: id(1000 + n),
  stamp: '0mhz0000a-0000-abc',
  address: `https://example.org/${n}`,
  savedAt: 1,
});

let pushed: { mutations: { id: string }[] }[];
/** Answers a push; throws as a network that is not there does. */
let answer: (mutations: { id: string }[]) => { status: number; body: unknown };

beforeEach(async () => {
  pushed = [];
  answer = (mutations) => ({
    status: 200,
    body: {
      results: mutations.map((each): PushResult => ({ outcome: 'applied', mutationId: each.id })),
      ...SAYS,
    },
  });
  globalThis.fetch = (async (_address: string, { body }: { body: string }) => {
    const sent = JSON.parse(body) as { mutations: { id: string }[] };
    const { status, body: answered } = answer(sent.mutations);
    pushed.push(sent);
    return new Response(JSON.stringify(answered), { status });
  }) as unknown as typeof fetch;
});

it('sends what waits in the order in which it was made, and forgets it', async () => {
  const { stored } = await pairedBrowser();
  await Promise.all([storage.outbox.add(ACCOUNT.id, [save(1), save(2)]), storage.outbox.add(ACCOUNT.id, [save(3)])]);
  expect(await send()).toBe('sent');
  expect(pushed.flatMap(({ mutations }) => mutations.map((each) => each.id))).toEqual([id(1), id(2), id(3)]);
  expect(await storage.outbox.ids()).toEqual([]);
  expect([...stored.keys()].filter((key) => key.startsWith('out:'))).toEqual([]);
});

it('keeps all of it without a connection, and asks to be woken', async () => {
  const { alarms } = await pairedBrowser();
  await storage.outbox.add(ACCOUNT.id, [save(1)]);
  answer = () => {
    throw new TypeError('Failed to fetch');
  };
  expect(await send()).toBe('waits');
  expect(alarms.has('send')).toBe(true);
  expect(await storage.outbox.ids()).toEqual([id(1)]);
});

it.each([200, 302, 401, 404, 511])(
  'keeps all of it when something else answers in the server’s place, with %d',
  async (status) => {
    await pairedBrowser();
    await storage.outbox.add(ACCOUNT.id, [save(1)]);
    answer = () => ({ status, body: 'Welcome aboard. Sign in to go online.' });
    expect(await send()).toBe('waits');
    expect(await storage.outbox.ids()).toEqual([id(1)]);
    expect((await storage.pairing())?.revoked).toBe(false);
  },
);

it('keeps all of it when the pairing was revoked, and asks no more', async () => {
  await pairedBrowser();
  await storage.outbox.add(ACCOUNT.id, [save(1)]);
  answer = () => ({
    status: 401,
    body: { type: '/problems/token', title: 'Not paired', status: 401, detail: 'x' },
  });
  expect(await send()).toBe('unpaired');
  expect((await storage.pairing())?.revoked).toBe(true);
  expect(await send()).toBe('unpaired');
  expect(pushed).toHaveLength(1);
  expect(await storage.outbox.ids()).toEqual([id(1)]);
});

it('sends nothing that was saved for another account', async () => {
  await pairedBrowser();
  await storage.outbox.add(OTHER, [save(1)]);
  await storage.outbox.add(ACCOUNT.id, [save(2)]);
  expect(await send()).toBe('sent');
  expect(pushed.flatMap(({ mutations }) => mutations.map((each) => each.id))).toEqual([id(2)]);
  expect(await storage.outbox.ids()).toEqual([id(1)]);
});

it('puts aside what the server will not take, with its address and the reason', async () => {
  await pairedBrowser();
  await storage.outbox.add(ACCOUNT.id, [save(1), save(2)]);
  answer = (mutations) => ({
    status: 200,
    body: {
      results: mutations.map((each): PushResult =>
        each.id === id(1)
          ? { outcome: 'refused', mutationId: each.id, detail: 'No such place.' }
          : { outcome: 'applied', mutationId: each.id },
      ),
      ...SAYS,
    },
  });
  expect(await send()).toBe('sent');
  expect(await storage.refused()).toEqual([{ address: 'https://example.org/1', detail: 'No such place.' }]);
  expect(await storage.outbox.ids()).toEqual([]);
});

it('puts aside the one change that is too large, and sends what stands beside it', async () => {
  await pairedBrowser();
  await storage.outbox.add(ACCOUNT.id, [save(1), save(2), save(3)]);
  const problem = { type: '/problems/too-large', title: 'Too large', status: 413, detail: 'Too large.' };
  answer = (mutations) =>
    mutations.some((each) => each.id === id(2))
      ? { status: 413, body: problem }
      : {
          status: 200,
          body: {
            results: mutations.map((each): PushResult => ({ outcome: 'applied', mutationId: each.id })),
            ...SAYS,
          },
        };
  expect(await send()).toBe('sent');
  expect(await storage.refused()).toEqual([{ address: 'https://example.org/2', detail: 'Too large.' }]);
  expect(await storage.outbox.ids()).toEqual([]);
});
