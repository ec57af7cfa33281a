import { spawnSync } from 'node:child_process';
import { expect } from '@playwright/test';
import { test } from '../homes';
import { ownServer, root } from '../own-server';
import { ARCHIVE_KILLED_PORT } from '../ports';
import { Client } from './client';

/** What is the reader's of each item; when the server heard of it is the server's own. */
const readersOwn = async (client: Client) =>
  (await client.items())
    .filter(({ capture }) => capture.duplicateOf === null)
    .map(({ id, address, choices, tags, progress, capture }) => [id, address, choices, tags, progress, capture.page])
    .sort((a, b) => (JSON.stringify(a[0]) < JSON.stringify(b[0]) ? -1 : 1));

test('a server killed in the middle of an archive has all of it after it was brought in once more', async ({
  seeded,
}) => {
  const from = await new Client(seeded).signIn();
  const archive = Buffer.from(await (await from.call('GET', '/archive')).arrayBuffer());
  const server = ownServer(ARCHIVE_KILLED_PORT, { DORVEL_DEMO: '1' });
  await server.start();
  try {
    const zip = { 'content-type': 'application/zip' };
    const send = (cookie: string) =>
      fetch(`${server.origin}/api/archive/in`, { method: 'PUT', headers: { ...zip, cookie }, body: archive });
    const bringIn = (client: Client) => client.call('POST', '/archive/in', {});

    for (const share of [0.2, 0.6]) {
      const client = await new Client(server.origin).signIn();
      await (await send(client.cookie)).text();
      const heard = await killedAt(share, await bringIn(client), () => server.end('SIGKILL'));
      expect(heard).toMatch(/"passed"/);
      expect(heard, 'it was not at its end').not.toContain('"look"');
      await server.start();
    }
    const client = await new Client(server.origin).signIn();
    expect(await (await send(client.cookie)).text()).toContain('"look"');
    expect(await (await bringIn(client)).text()).toContain('"look"');
    expect(await readersOwn(client)).toEqual(await readersOwn(from));
    expect(await server.end('SIGTERM')).toBe(0);
    const doctor = spawnSync('npm', ['run', '--silent', 'doctor'], { cwd: root, env: server.env, encoding: 'utf8' });
    expect(doctor.stdout).toContain('All is well.');
  } finally {
    await server.clear();
  }
});

/** Ends what answers once it says that it has passed so much. @returns what it said until then */
async function killedAt(share: number, answer: Response, kill: () => Promise<unknown>): Promise<string> {
  const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
  let heard = '';
  try {
    for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
      heard += part.value;
      const [, passed, of] = /"passed":(\d+),"of":(\d+)\}\s*$/.exec(heard) ?? [];
      if (Number(passed) >= Number(of) * share) break;
    }
  } finally {
    await kill();
  }
  return heard;
}
