import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openWorkshop, type Workshop } from './workshop';

/** What a workshop's process says, with the guard that watches over it; and tasks that go wrong in every way. */
const CHILD = `
import { Worker } from 'node:worker_threads';
new Worker(${JSON.stringify(path.join(__dirname, 'guard.mjs'))}, { workerData: { mostBytes: Number(process.argv[2]) }, execArgv: [] }).unref();
const held = [];
const tasks = {
  pid: () => process.pid,
  echo: (input) => input,
  env: () => Object.keys(process.env),
  never: () => { for (;;); },
  slowly: (ms) => new Promise((resolve) => setTimeout(resolve, ms, 'done')),
  grow: () => { for (;;) held.push(new Array(1e5).fill(Math.random())); },
  buffers: () => { for (;;) held.push(Buffer.alloc(16e6, 1)); },
  exit: () => process.exit(3),
  throws: () => { throw new Error('as it must'); },
};
process.on('disconnect', () => process.exit(0));
process.on('message', ({ task, input }) => Promise.resolve().then(() => tasks[task](input)).then(
  (value) => process.send({ is: 'done', value, bytes: process.memoryUsage.rss() }),
  (error) => process.send({ is: 'thrown', message: error.message, bytes: process.memoryUsage.rss() })));
process.send({ is: 'ready' });
`;

let folder: string;
let workshop: Workshop;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  const entry = path.join(folder, 'child.mjs');
  writeFileSync(entry, CHILD);
  workshop = openWorkshop({ entry, mostBytes: 150_000_000, idleMs: 60_000 });
});
afterEach(async () => {
  await workshop.close();
  rmSync(folder, { recursive: true, force: true });
});
const pid = async () => Number(await workshop.run('pid', null, 5000));
const isAlive = (of: number) =>
  existsSync(`/proc/${of}`) && !/^State:\s+Z/m.test(readFileSync(`/proc/${of}/status`, 'utf8'));

describe('a workshop', () => {
  it('does one piece of work after the other in one process, bytes and all', async () => {
    const first = await pid();
    expect(await workshop.run('echo', { bytes: Buffer.from([1, 2]), text: 'é' }, 5000)).toEqual({
      bytes: Buffer.from([1, 2]),
      text: 'é',
    });
    await expect(workshop.run('throws', null, 5000)).rejects.toThrow('as it must');
    expect(await pid()).toBe(first);
  });

  it.each([
    ['never ends', 'never', 'time'],
    ['fills the engine’s memory', 'grow', 'memory'],
    ['fills memory beside the engine’s', 'buffers', 'memory'],
    ['ends its process', 'exit', 'ended'],
  ])('gives up what %s, and goes on with the next', async (_what, task, why) => {
    const first = await pid();
    await expect(workshop.run(task, null, task === 'never' ? 300 : 20_000)).rejects.toMatchObject({ why });
    expect(isAlive(first)).toBe(false);
    expect(await workshop.run('echo', 'still here', 5000)).toBe('still here');
  });

  it('counts the time of running, not that of waiting', async () => {
    const all = await Promise.all([1, 2, 3, 4].map(() => workshop.run('slowly', 250, 600)));
    expect(all).toEqual(Array(4).fill('done'));
  });

  it('tells its process nothing of the server', async () => {
    process.env.DATABASE_URL = 'file:secret';
    const names = await workshop.run('env', null, 5000);
    delete process.env.DATABASE_URL;
    expect(names).not.toContain('DATABASE_URL');
    expect(names).not.toContain('HOME');
  });

  it('leaves no process behind when it is closed, and begins nothing more', async () => {
    const first = await pid();
    await workshop.close();
    expect(isAlive(first)).toBe(false);
    await expect(workshop.run('pid', null, 5000)).rejects.toMatchObject({ why: 'ended' });
  });
});
