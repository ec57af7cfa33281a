import { KnownPage, MadeToken, type TokenScope } from '@dorvel/core/model';
import { liveText, ownNote } from '@dorvel/core/notes';
import { changeMaker, type Mutation } from '@dorvel/core/records';
import { createClock, PROTOCOL, PROTOCOL_HEADER, PushResponse } from '@dorvel/core/sync';
import { expect } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { test } from '../homes';
import { page } from '../ports';
import { Client } from './client';

const clock = createClock('extension', Date.now);
const make = changeMaker({ clock, newId: uuidv7, now: Date.now });
const base = (itemId: string) => ({ id: uuidv7(), itemId, stamp: clock.next() });

/** What holds only a token, and stands on an origin of its own. */
function holder(origin: string, secret: string) {
  return async (method: string, path: string, body?: unknown) =>
    fetch(`${origin}/api${path}`, {
      method,
      headers: {
        [PROTOCOL_HEADER]: String(PROTOCOL),
        authorization: `Bearer ${secret}`,
        origin: 'chrome-extension://abcdefghijklmnopabcdefghijklmnop',
        'sec-fetch-site': 'cross-site',
        'content-type': 'application/json',
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
}

async function tokenOf(client: Client, scope: TokenScope): Promise<string> {
  const made = await client.call('POST', '/tokens', { name: 'A test', scope });
  return MadeToken.parse(await made.json()).secret;
}

test('a token of the extension’s saves and looks up, and can do nothing beyond', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  const asked = holder(empty, await tokenOf(client, 'extension'));
  const [itemId, dossierId] = [uuidv7(), uuidv7()];
  const push = async (...mutations: Mutation[]) =>
    PushResponse.parse(await (await asked('POST', '/extension/push', { mutations })).json()).results.map(
      ({ outcome }) => outcome,
    );
  const address = page('rough', '/strict/token-of-extension');
  expect(await push({ ...base(itemId), type: 'save', address, savedAt: Date.now() })).toEqual(['applied']);
  const known = async () =>
    KnownPage.parse(
      await (await asked('GET', `/extension/page?${new URLSearchParams({ address }).toString()}`)).json(),
    );
  expect((await known()).item?.id).toBe(itemId);
  expect(
    await push(
      { ...base(itemId), type: 'tag', set: { boats: 'boats' } },
      { ...base(itemId), type: 'choose', set: { stage: 'queue' } },
      make.note(ownNote.ofItem(itemId), { text: 'For the winter' }),
      make.note({ itemId: null, on: { kind: 'nothing' } }, { text: 'Free' }),
      // It may change neither what was read nor what is followed.
      { ...base(itemId), type: 'choose', set: { finishedAt: Date.now() } },
      { id: uuidv7(), stamp: clock.next(), type: 'feed', feedId: uuidv7(), set: { following: false } },
      // Into a dossier it may put things; words in one, and what a dossier is, are not its to write.
      make.entry(dossierId, { kind: 'item', itemId }, { rank: 'a0' }),
      make.entry(dossierId, { kind: 'heading' }, { rank: 'a1', text: 'Mine' }),
      make.dossier({ title: 'Another' }),
    ),
  ).toEqual([
    ...['applied', 'applied', 'applied', 'refused', 'refused', 'refused'],
    ...['applied', 'refused', 'refused'],
  ]);
  const now = await known();
  expect(liveText(now.note)).toBe('For the winter');
  expect(now.item?.choices.finishedAt.value).toBeNull();
  expect(now.lastTags).toContain('boats');

  expect((await asked('GET', '/sync/pull')).status).toBe(401);
  expect((await asked('GET', '/tokens')).status).toBe(401);
  expect((await asked('POST', '/sync/push', { mutations: [] })).status).toBe(403);
});

test('nothing else lets anybody in there: no session, no token for saving only, no other origin’s cookie', async ({
  empty,
}) => {
  const client = await new Client(empty).signIn();
  const withSession = await client.call('GET', '/extension/account');
  expect(withSession.status).toBe(401);
  const saving = holder(empty, await tokenOf(client, 'save'));
  expect((await saving('GET', '/extension/account')).status).toBe(401);
  const asked = holder(empty, await tokenOf(client, 'extension'));
  const account = await asked('GET', '/extension/account');
  expect(account.status).toBe(200);
  // Any origin may ask; none may send a cookie along (Fetch, 3.3.5: `*` is not for requests with credentials).
  expect(account.headers.get('access-control-allow-origin')).toBe('*');
  expect(account.headers.get('access-control-allow-credentials')).toBeNull();
  const wrong = await asked('POST', '/extension/push', { mutations: 'all of them' });
  expect(wrong.status).toBe(400);
});
