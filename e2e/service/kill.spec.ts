import { spawnSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { printOf } from '../../demo/small-web/prints';
import { ownServer, root } from '../own-server';
import { KILLED_PORT, page } from '../ports';
import { Client } from './client';

const PRINTS = ['minutes-1', 'catalogue-page', 'harbour-at-dusk', 'minutes-2', 'passengers-by-month', 'notice'];

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

test('a server killed while it looks at pictures has looked at all of them after a restart, at none twice', async () => {
  test.slow();
  const server = ownServer(KILLED_PORT, { DORVEL_DEMO: '1' });
  await server.start();
  try {
    const client = await new Client(server.origin).signIn();
    const ids = await Promise.all(
      PRINTS.map((name) => client.save(page('slipway', `/prints/${name}.${printOf(name)?.format ?? ''}`))),
    );
    const words = async () =>
      (await client.items()).map((item) => item.capture.page?.pictures[0]?.seen?.wordCount ?? null);
    const looked = async () => (await words()).filter((count) => count !== null).length;
    await expect.poll(looked, { intervals: [50], timeout: 120_000 }).toBeGreaterThan(0);
    expect(await looked()).toBeLessThan(ids.length);
    await server.end('SIGKILL');
    await server.start();
    await expect.poll(looked, { timeout: 90_000 }).toBe(ids.length);
    expect((await words()).filter((count) => count !== null && count > 20).length).toBeGreaterThanOrEqual(3);
    await expect.poll(async () => (await fetch(`${server.origin}/readyz`)).json()).toMatchObject({ jobsOpen: 0 });
    // What was read before the end was not read into its text again.
    const minutes = (await client.items()).find(({ address }) => address.includes('minutes-1'));
    const copy = await client.call('GET', `/copies/${minutes?.capture.page?.copyId ?? ''}`);
    expect((await copy.text()).match(/on the ninth of March/g)).toHaveLength(1);
  } finally {
    await server.clear();
  }
});
