import { spawnSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { ownServer, root } from '../own-server';
import { KILLED_PORT, page } from '../ports';
import { Client } from './client';

test('a server killed in the middle of 20 captures ends all of them after a restart, none twice, none lost', async () => {
  const server = ownServer(KILLED_PORT, { DORVEL_DEMO: '1' });
  await server.start();
  try {
    const client = await new Client(server.origin).signIn();
    const ids = await Promise.all(Array.from({ length: 20 }, (_, n) => client.save(page('rough', `/n/${n}`))));
    const arrived = async () => (await client.items()).filter((item) => item.capture.state === 'arrived').length;
    await expect.poll(arrived, { intervals: [20] }).toBeGreaterThan(2);
    expect(await arrived()).toBeLessThan(20);
    await server.end('SIGKILL');
    await server.start();
    const items = await Promise.all(ids.map((id) => client.settled(id)));
    expect(items.map((item) => item.capture.state)).toEqual(Array(20).fill('arrived'));
    expect(items.map((item) => item.capture.page?.title).sort()).toEqual(
      Array.from({ length: 20 }, (_, n) => `Page ${n}`).sort(),
    );
    expect(await client.items()).toHaveLength(20);
    expect(await (await fetch(`${server.origin}/readyz`)).json()).toMatchObject({ jobsOpen: 0 });
    expect(await server.end('SIGTERM')).toBe(0);
    const doctor = spawnSync('npm', ['run', '--silent', 'doctor'], {
      cwd: root,
      env: server.env,
      encoding: 'utf8',
    });
    expect(doctor.stdout).toContain('All is well.');
    expect(doctor.stdout).toMatch(/sound {2}20 items/);
    expect(doctor.stdout).toMatch(/sound {2}20 copies/);
  } finally {
    await server.clear();
  }
});
