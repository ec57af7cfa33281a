import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { KILLED_PORT, SMALL_WEB_PORT, page } from '../ports';
import { Client } from './client';

const root = path.resolve(import.meta.dirname, '../..');
const origin = `http://127.0.0.1:${KILLED_PORT}`;

test('a server killed in the middle of 20 captures ends all of them after a restart, none twice, none lost', async () => {
  const data = mkdtempSync(path.join(tmpdir(), 'dorvel-kill-'));
  const env = {
    ...process.env,
    PORT: String(KILLED_PORT),
    DORVEL_DATA: data,
    DORVEL_DEMO: '1',
    DORVEL_ALLOW_HOSTS: `*.localhost:${SMALL_WEB_PORT}`,
    LOG_LEVEL: 'silent',
  };
  const startServer = async (): Promise<ChildProcess> => {
    const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
      cwd: root,
      env,
      stdio: 'inherit',
    });
    await expect
      .poll(
        () =>
          fetch(`${origin}/healthz`).then(
            (response) => response.ok,
            () => false,
          ),
        { timeout: 20_000 },
      )
      .toBe(true);
    return child;
  };
  let server = await startServer();
  try {
    const client = await new Client(origin).signIn();
    const ids = await Promise.all(
      Array.from({ length: 20 }, (_, n) => client.save(page('rough', `/n/${n}`))),
    );
    await expect
      .poll(async () => (await client.items()).filter((item) => item.capture.state === 'arrived').length)
      .toBeGreaterThan(2);
    server.kill('SIGKILL');
    await new Promise((resolve) => server.once('exit', resolve));
    server = await startServer();
    const items = await Promise.all(ids.map((id) => client.settled(id)));
    expect(items.map((item) => item.capture.state)).toEqual(Array(20).fill('arrived'));
    expect(items.map((item) => item.capture.page?.title).sort()).toEqual(
      Array.from({ length: 20 }, (_, n) => `Page ${n}`).sort(),
    );
    expect(await client.items()).toHaveLength(20);
    expect(await (await fetch(`${origin}/healthz`)).json()).toMatchObject({ jobsOpen: 0 });
    server.kill('SIGTERM');
    const code = await new Promise((resolve) => server.once('exit', resolve));
    expect(code).toBe(0);
    const doctor = spawnSync('npm', ['run', '--silent', 'doctor'], { cwd: root, env, encoding: 'utf8' });
    expect(doctor.stdout).toContain('All is well.');
    expect(doctor.stdout).toMatch(/sound {2}20 items/);
    expect(doctor.stdout).toMatch(/sound {2}20 copies/);
  } finally {
    server.kill('SIGKILL');
    rmSync(data, { recursive: true, force: true });
  }
});
