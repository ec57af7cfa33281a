import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { root } from '../own-server';
import { STOP_PORT } from '../ports';

let data: string;
test.beforeEach(() => {
  data = mkdtempSync(path.join(tmpdir(), 'dorvel-stop-'));
});
test.afterEach(() => rmSync(data, { recursive: true, force: true }));

const isUp = () =>
  fetch(`http://127.0.0.1:${STOP_PORT}/readyz`).then(
    ({ ok }) => ok,
    () => false,
  );

/** The processes that have been started by one, and by those, as the system lists them. */
function below(pid: number): number[] {
  const rows = execFileSync('ps', ['-eo', 'pid=,ppid='], { encoding: 'utf8' }).trim().split('\n');
  const parents = new Map(rows.map((row) => row.trim().split(/\s+/).map(Number) as [number, number]));
  const found = [pid];
  for (const each of found) found.push(...[...parents].filter(([, parent]) => parent === each).map(([child]) => child));
  return found.slice(1);
}

const isThere = (pid: number) => {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
};

// Only the command that was started is told to stop, as a supervisor of services does.
for (const [command, signal] of [
  ['start', 'SIGTERM'],
  ['start', 'SIGINT'],
  ['demo', 'SIGTERM'],
  ['demo', 'SIGINT'],
] as const)
  test(`npm run ${command} ends with all that it started when it is sent ${signal}`, async () => {
    const child = spawn('npm', ['run', command], {
      cwd: root,
      stdio: 'ignore',
      env: {
        ...process.env,
        PORT: String(STOP_PORT),
        SMALL_WEB_PORT: String(STOP_PORT + 1),
        MAIL_PORT: String(STOP_PORT + 2),
        DORVEL_DATA: data,
        LOG_LEVEL: 'silent',
      },
    });
    const ended = new Promise((resolve) => child.once('exit', resolve));
    await expect.poll(isUp, { timeout: 60_000 }).toBe(true);
    const started = below(child.pid!);
    expect(started.length).toBeGreaterThan(1);
    child.kill(signal);
    const before = Date.now();
    await ended;
    await expect.poll(() => started.filter(isThere), { timeout: 10_000 }).toEqual([]);
    expect(Date.now() - before).toBeLessThan(10_000);
    expect(await isUp()).toBe(false);
  });
