import { cpSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { changeMaker } from '@dorvel/core/records';
import { createClock, FUTURE_TOLERANCE_MS, type HybridClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { clockOfDevice } from '../../app/src/device/store/device-clock';
import { DeviceStore } from '../../app/src/device/store/store';
import { api } from '../../app/src/device/sync/api';
import { receive, send } from '../../app/src/device/sync/exchange';
import { accountRepository } from '../../server/src/accounts/accounts';
import { copyInto, markRestored } from '../../server/src/db/backup';
import { type Database, openDatabase } from '../../server/src/db/open';
import { type Library, libraryOf } from '../../server/src/library/library';
import { takePush } from '../../server/src/library/take-mutations';
import { type Device, turn } from './turn';

/**
 * Devices with clocks of their own, a server, and a network between them that loses what it carries: the stores, the exchange
 * and the library are those of the app and of the server. One schedule of presses and rounds follows from its seed.
 */

const MIGRATIONS = path.resolve(__dirname, '../../server/src/db/migrations');
const DAY_MS = 86_400_000;
/** When each schedule begins. */
const BEGINS = Date.UTC(2026, 10, 28, 12);

/** How wrong the clocks of the devices may be, in milliseconds. */
export interface Schedule {
  seed: number;
  devices: number;
  steps: number;
  skewMs: number;
  /** In how many of the schedules the server is set back to a backup on the way, from 0 to 1. */
  restores?: number;
  /** In how many of them a device is too old for the server, until its page is loaded anew, from 0 to 1. */
  old?: number;
}

/** What went wrong in a schedule, in words; nothing when all held. */
export type Problems = string[];

/** Numbers from 0 to below 1 that follow from a seed (mulberry32, public domain). */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** A database with an account in it, made once: each schedule begins with a copy. */
let template: { folder: string; accountId: string } | null = null;

interface Server {
  folder: string;
  database: Database;
  library: Library;
}

const fileIn = (folder: string) => path.join(folder, 'library.db');
const backupIn = (folder: string) => path.join(folder, 'backup.db');

/** The server is as it was when it was backed up, and says so; what came since is only on the devices. */
async function setBack(server: Server): Promise<void> {
  const { folder, library, database } = server;
  database.close();
  for (const end of ['', '-wal', '-shm']) rmSync(`${fileIn(folder)}${end}`, { force: true });
  renameSync(backupIn(folder), fileIn(folder));
  await markRestored(fileIn(folder));
  server.database = await openDatabase(`file:${fileIn(folder)}`, MIGRATIONS);
  server.library = libraryOf(server.database, library.accountId);
}

async function fresh(): Promise<Server> {
  if (!template) {
    const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-simulation-'));
    const database = await openDatabase(`file:${fileIn(folder)}`, MIGRATIONS);
    const account = await accountRepository(database, Date.now).create('a@x.example', 'A', 'a long enough passphrase');
    if (!account) throw new Error('the account was not made');
    database.close();
    template = { folder, accountId: account.id };
  }
  const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-simulation-'));
  cpSync(template.folder, folder, { recursive: true });
  const database = await openDatabase(`file:${fileIn(folder)}`, MIGRATIONS);
  return { folder, database, library: libraryOf(database, template.accountId) };
}

/** Takes away what the schedules began with. */
export function endSimulation(): void {
  if (template) rmSync(template.folder, { recursive: true, force: true });
  template = null;
}

/** What the server answers to a device that speaks as one did before; see server/routes. */
const TOO_OLD = new ServerProblem(426, 'The server is newer than this Dorvel.');
const HEARS = { doing: () => undefined, tell: () => undefined };
const ADDRESSES = ['harbour', 'larch', 'quay'].map((slug) => `https://x.example/${slug}`);
const STAGES = ['inbox', 'queue', 'finished', 'kept'] as const;

/** Who called which item what, and what that replaced. */
interface Press {
  key: string;
  value: string;
  replaced: string | null;
}

/**
 * Runs a schedule: presses on devices in any order, rounds of sending and fetching that break at any point, time that goes on.
 * Then all devices sync until nothing is left to send, and are looked at.
 */
export async function runSchedule({
  seed,
  devices: count,
  steps,
  skewMs,
  restores = 0,
  old = 0,
}: Schedule): Promise<Problems> {
  const next = random(seed);
  const oneOf = <Value>(values: readonly Value[]) => values[Math.floor(next() * values.length)] as Value;
  const server = await fresh();
  const { folder } = server;
  turn.now = BEGINS;
  const serverClock: HybridClock = createClock('server', () => turn.now);
  const devices = Array.from({ length: count }, (_, n): Device => {
    const name = `device-${String(n)}`;
    const skew = Math.round((2 * next() - 1) * skewMs);
    const own = clockOfDevice(name, () => turn.now + skew, { read: () => 0, write: () => undefined });
    return {
      name,
      store: new DeviceStore(`simulation-${String(seed)}-${name}`),
      skewMs: skew,
      own,
      make: changeMaker({ clock: own.clock, newId: uuidv7, now: own.serverTime }),
    };
  });
  const problems: Problems = [];
  const presses: Press[] = [];
  const saved = new Set<string>();

  // Of numbers of its own, as setting back is.
  const ages = random(-seed - 1);
  let tooOld = ages() < old ? devices[0] : undefined;
  const loadedAnewAt = Math.floor(ages() * steps);
  /** What the network does to the next call. */
  let breaks: 'nothing' | 'request' | 'answer' = 'nothing';
  const carried = async <Answer>(serve: () => Promise<Answer>): Promise<Answer> => {
    const now = breaks;
    turn.now += Math.round(next() * 400);
    if (now === 'request') throw new Unreachable('The network broke.');
    if (turn.device === tooOld) throw TOO_OLD;
    const answer = await serve();
    turn.now += Math.round(next() * 400);
    if (now === 'answer') throw new Unreachable('The network broke.');
    return answer;
  };
  const says = () => ({ now: turn.now, epoch: server.database.epoch });
  const serve = {
    push: (mutations: Parameters<typeof api.push>[0]) =>
      carried(async () => ({
        ...(await takePush(server.library, { mutations }, { clock: serverClock, now: () => turn.now })),
        ...says(),
      })),
    pull: (after: number) =>
      carried(async () => {
        const { records, unread, ...head } = await server.library.changesAfter(after);
        return { ...head, records, unread, ...says() };
      }),
  };
  Object.assign(api, serve);

  const round = async (device: Device) => {
    turn.device = device;
    try {
      await send(device.store, HEARS);
      await receive(device.store, HEARS);
    } catch (error) {
      if (!(error instanceof Unreachable) && error !== TOO_OLD) throw error;
    }
  };

  const press = async (device: Device, n: number) => {
    turn.device = device;
    const items = (await device.store.items.toArray()).filter(({ capture }) => capture.duplicateOf === null);
    if (items.length === 0 || next() < 0.15) {
      const address = oneOf(ADDRESSES);
      saved.add(address);
      await device.store.commit(device.make.save({ address }));
      return;
    }
    const item = oneOf([...items].sort((a, b) => (a.id < b.id ? -1 : 1)));
    const what = oneOf(['title', 'stage', 'tag', 'progress'] as const);
    if (what === 'progress') {
      const fraction = Math.round(next() * 100) / 100;
      const position = { block: 0, char: 0, offset: n, quote: '', before: '', fraction };
      const heard = [[0, 0]].slice(1) as [];
      await device.store.commit(device.make.progress(item.id, { furthest: fraction, position, heard }, item));
      const after = await device.store.items.get(item.id);
      if (after?.progress.position?.value.offset !== n)
        problems.push(`${device.name}: the place of step ${String(n)} was not taken`);
      return;
    }
    const stage = oneOf(STAGES);
    const value = what === 'tag' ? oneOf(['boats', 'Boats', 'BOATS']) : `${device.name} ${String(n)}`;
    const change =
      what === 'tag'
        ? device.make.tag(item.id, { boats: value }, item)
        : device.make.choose(item.id, what === 'title' ? { title: value } : { stage, comeBackOn: null }, item);
    const before = registerOf(item, what);
    await device.store.commit(change);
    const after = await device.store.items.get(item.id);
    const now = after && registerOf(after, what);
    const wanted = what === 'stage' ? stage : value;
    if (now !== wanted)
      problems.push(`${device.name}: step ${String(n)} set ${what} to ${wanted}, and it is ${String(now)}`);
    // Only a title tells who gave it.
    if (what === 'title') presses.push({ key: item.id, value, replaced: before });
  };

  // Of numbers of its own: what else happens in a schedule is the same with it and without.
  const setsBack = random(-seed);
  const isSetBack = setsBack() < restores;
  const [backedUpAt, setBackAt] = [Math.floor((setsBack() * steps) / 2), Math.floor(((1 + setsBack()) * steps) / 2)];
  for (let n = 0; n < steps; n++) {
    if (n === loadedAnewAt) tooOld = undefined;
    if (isSetBack && n === backedUpAt) await copyInto(server.database, backupIn(folder));
    if (isSetBack && n === setBackAt) await setBack(server);
    turn.now += Math.round(next() * (next() < 0.1 ? DAY_MS / 2 : 60_000));
    const device = oneOf(devices);
    if (next() < 0.55) await press(device, n);
    else {
      const fault = next();
      breaks = fault < 0.15 ? 'request' : fault < 0.35 ? 'answer' : 'nothing';
      await round(device);
      breaks = 'nothing';
    }
  }
  for (let n = 0; n < 3; n++) for (const device of devices) await round(device);
  problems.push(...(await lookedAt(devices, server.library, { presses, saved })));
  for (const { store } of devices) await store.delete();
  server.database.close();
  rmSync(folder, { recursive: true, force: true });
  return problems;
}

function registerOf(item: Item, what: 'title' | 'stage' | 'tag'): string | null {
  if (what === 'tag') return item.tags.boats?.value ?? null;
  return what === 'title' ? item.choices.title.value : item.choices.stage.value;
}

/** What has to hold when all have synced. */
async function lookedAt(
  devices: readonly Device[],
  library: Library,
  { presses, saved }: { presses: readonly Press[]; saved: ReadonlySet<string> },
): Promise<Problems> {
  const problems: Problems = [];
  const { records } = await everything(library);
  const there = new Map(records.map((item) => [item.id, item]));
  const canonical = records.filter(({ capture }) => capture.duplicateOf === null);
  for (const { name, store } of devices) {
    if ((await store.outbox.count()) > 0) problems.push(`${name}: something was never sent`);
    for (const { says, mutation } of await store.aside.toArray())
      problems.push(`${name}: a change (${mutation.type}) was refused: ${says}`);
    // What another stands for is only a pointer to it; a server that was set back need not learn of it again.
    const here = (await store.items.toArray()).filter(
      ({ id, capture }) => !(there.get(id) ?? { capture }).capture.duplicateOf,
    );
    if (here.length !== canonical.length)
      problems.push(`${name}: ${String(here.length)} of ${String(canonical.length)} items`);
    for (const item of here) {
      const other = there.get(item.id);
      for (const part of ['choices', 'tags', 'progress', 'address', 'savedAt'] as const)
        if (JSON.stringify(sorted(item[part])) !== JSON.stringify(sorted(other?.[part])))
          problems.push(
            `${name}: ${part} of ${item.id} are other than the server’s: ${JSON.stringify(item[part])} and ${JSON.stringify(other?.[part])}`,
          );
    }
  }
  const addresses = new Set(canonical.map((item) => item.address));
  for (const address of saved) if (!addresses.has(address)) problems.push(`${address} was saved and is lost`);
  // What was replaced by somebody who saw it must not come back.
  for (const { id, choices } of records) {
    const now = choices.title.value;
    const later = presses.find((each) => each.key === id && each.replaced === now && now !== null);
    if (later) problems.push(`${id}: ${later.value} lost to ${String(now)}, which it had replaced`);
  }
  return problems;
}

async function everything(library: Library): Promise<{ records: Item[] }> {
  const found = new Map<string, Item>();
  for (let after = 0, more = true; more;) {
    const page = await library.changesAfter(after);
    for (const item of page.records.items) found.set(item.id, item);
    ({ cursor: after, more } = page);
  }
  return { records: [...found.values()] };
}

/** The same with its keys in order. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, each]) => [key, sorted(each)]),
  );
}

/** Clocks that are right, to within what devices that are set right differ by. */
export const TRUE_CLOCKS_MS = FUTURE_TOLERANCE_MS / 10;
export const WRONG_BY_DAYS_MS = 2 * DAY_MS;
