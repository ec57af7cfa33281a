import path from 'node:path';
import { expect, test } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../../server/src/accounts/accounts';
import { openDatabase } from '../../server/src/db/open';
import { ownServer, root } from '../own-server';
import { ENTRIES_PORT } from '../ports';
import { Client } from './client';

/** Who may come in by which door: the API's own description says what it lets in, and here every door is tried by everybody. */

const PASSPHRASE = 'a long enough passphrase';
const ADA = { mail: 'ada@x.example', passphrase: PASSPHRASE };
const BO = { mail: 'bo@x.example', passphrase: PASSPHRASE };

interface Door {
  method: string;
  path: string;
  security: readonly Record<string, unknown>[];
}

/** What a door answers who is not let in. */
const SHUT = [401];
/** Whoever stands in front of these ends something of their own by knocking. */
const LAST = new Set(['delete /session']);

test('every door of the API lets in whom it says, and nobody else', async () => {
  const server = ownServer(ENTRIES_PORT);
  const database = await openDatabase(
    `file:${path.join(server.env.DORVEL_DATA ?? '', 'dorvel.db')}`,
    path.join(root, 'server/src/db/migrations'),
  );
  const accounts = accountRepository(database, Date.now);
  for (const { mail } of [ADA, BO]) await accounts.create(mail, mail.slice(0, 3), PASSPHRASE);
  database.close();
  await server.start();
  try {
    const [ada, bo] = [new Client(server.origin), new Client(server.origin)];
    expect((await ada.call('POST', '/session', ADA)).status).toBe(200);
    expect((await bo.call('POST', '/session', BO)).status).toBe(200);
    const made = async (scope: string) =>
      (await (await ada.call('POST', '/tokens', { name: scope, scope })).json()) as {
        token: { id: string };
        secret: string;
      };
    const [saving, extension, revoked] = [await made('save'), await made('extension'), await made('extension')];
    await ada.call('DELETE', `/tokens/${revoked.token.id}`);
    const itemId = await ada.save('https://x.example/harbour');
    const description = (await (await ada.call('GET', '/openapi.json')).json()) as {
      paths: Record<string, Record<string, { security: Door['security'] }>>;
    };
    const doors = Object.entries(description.paths)
      .filter(([at]) => at.startsWith('/api/'))
      .flatMap(([at, operations]) =>
        Object.entries(operations).map(([method, { security }]): Door => ({
          method,
          path: at.slice('/api'.length),
          security,
        })),
      );
    expect(doors.length).toBeGreaterThan(35);
    const by = (token: string) => ({ authorization: `Bearer ${token}` });
    const knock = async (door: Door, client: Client, headers: Record<string, string>) => {
      const at = door.path
        .replace('{id}', itemId)
        .replace('{file}', `${'a'.repeat(64)}.webp`)
        .replace('{format}', 'csv');
      const answer = await client.call(door.method.toUpperCase(), at, door.method === 'get' ? undefined : {}, headers);
      await answer.body?.cancel();
      return answer.status;
    };
    const wrong: string[] = [];
    for (const door of [...doors].sort((a, b) => Number(LAST.has(keyOf(a))) - Number(LAST.has(keyOf(b))))) {
      const opens = (by: string) => door.security.some((each) => Object.keys(each).some((name) => name === by));
      const isOpen = door.security.length === 0 || door.security.some((each) => Object.keys(each).length === 0);
      const callers: [string, Client, Record<string, string>, boolean][] = [
        ['nobody', new Client(server.origin), {}, false],
        ['a made-up session', new Client(server.origin, `dorvel_session=${'a'.repeat(43)}`), {}, false],
        ['a saving token', new Client(server.origin), by(saving.secret), false],
        ['a revoked token', new Client(server.origin), by(revoked.secret), false],
        ['an extension token', new Client(server.origin), by(extension.secret), opens('extension')],
        ['a session', ada, {}, opens('session')],
      ];
      for (const [who, client, headers, mayEnter] of callers) {
        const status = await knock(door, client, headers);
        const entered = !SHUT.includes(status);
        if (entered !== (mayEnter || isOpen)) wrong.push(`${who} at ${keyOf(door)}: ${String(status)}`);
      }
    }
    expect(wrong).toEqual([]);

    // What is somebody else's is not there.
    expect((await bo.call('GET', '/session')).status).toBe(200);
    expect(await bo.items()).toEqual([]);
    for (const [method, at] of [
      ['DELETE', `/tokens/${saving.token.id}`],
      ['GET', `/copies/${uuidv7()}`],
      ['GET', `/dossiers/${uuidv7()}/files/csv`],
    ] as const)
      expect((await bo.call(method, at)).status, `${method} ${at}`).toBe(404);
    const stamp = '0mx000000-0000-bo';
    const [answer] = await bo.push({ type: 'choose', id: uuidv7(), itemId, stamp, set: { title: 'Mine' } });
    expect(answer).toMatchObject({ outcome: 'refused' });
  } finally {
    await server.clear();
  }
});

const keyOf = ({ method, path: at }: Door) => `${method} ${at}`;
