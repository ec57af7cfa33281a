/** @jest-environment node */
import 'fake-indexeddb/auto';
import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { itemKind, type Mutation, newItem, type Records } from '@dorvel/core/records';
import { createClock, type PushResult } from '@dorvel/core/sync';
import { clock } from '@/device/store/clock';
import { DeviceStore } from '@/device/store/store';
import { api } from './api';
import { receive, send } from './exchange';

jest.mock('@/device/store/settings-storage', () => ({
  readSetting: (_name: string, _schema: unknown, otherwise: unknown) => otherwise,
  writeSetting: () => undefined,
}));

const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const save = (n: number): Extract<Mutation, { type: 'save' }> => ({
  type: 'save',
  id: uuid(n),
  itemId: uuid(1000 + n),
  address: `https://example.org/${n}`,
  savedAt: n,
  stamp: `00000000${n}-0000-a`,
});
const tag = (n: number): Mutation => ({
  type: 'tag',
  id: uuid(100 + n),
  itemId: uuid(1000 + n),
  stamp: `00000001${n}-0000-a`,
  set: { boats: 'boats' },
});

let made = 0;
let store: DeviceStore;
let told: string[];
const hears = {
  doing: () => undefined,
  tell: (news: { kind: string }[]) => void told.push(...news.map(({ kind }) => kind)),
};
/** What the server says to each change; throws as api does. */
let server: (mutations: Mutation[]) => PushResult[];
let pushes: string[][];
const applied = ({ id }: Mutation): PushResult => ({ outcome: 'applied', mutationId: id });
const NOTHING = { items: [] as Item[] } as unknown as Records;
const page = { records: NOTHING, unread: 0, more: false };

beforeEach(() => {
  store = new DeviceStore(`exchange-${String(++made)}`);
  told = [];
  pushes = [];
  server = (mutations) => mutations.map(applied);
  jest.spyOn(api, 'push').mockImplementation(async (mutations) => {
    pushes.push(mutations.map(({ id }) => id));
    return { results: server(mutations), cursor: 1, now: Date.now(), epoch: 'one' };
  });
});
afterEach(async () => {
  jest.restoreAllMocks();
  await store.delete();
});

describe('sending', () => {
  it('sets aside what the server says is too large, and sends all that stands before and behind it', async () => {
    await store.commitAll([save(1), save(2), save(3)]);
    server = (mutations) => {
      if (mutations.some(({ id }) => id === uuid(2))) throw new ServerProblem(413, 'Too large.');
      return mutations.map(applied);
    };
    await send(store, hears);
    expect(pushes).toEqual([[uuid(1), uuid(2), uuid(3)], [uuid(1)], [uuid(2)], [uuid(3)]]);
    expect(await store.outbox.count()).toBe(0);
    expect(await store.aside.toArray()).toMatchObject([{ id: uuid(2), says: 'Too large.' }]);
    // The address is kept, and the item says what became of it.
    expect(await store.items.get(uuid(1002))).toMatchObject({
      address: 'https://example.org/2',
      capture: {
        state: 'failed',
        outcome: { code: 'failed', cause: { code: 'refused', detail: 'Too large.' } },
      },
    });
    expect(told).toEqual(['refused']);
  });

  it('sends again what was set aside when the reader wants it', async () => {
    await store.commitAll([save(1), tag(1)]);
    server = (mutations) =>
      mutations.map((mutation) =>
        mutation.type === 'tag'
          ? { outcome: 'refused', mutationId: mutation.id, detail: 'Too many tags.' }
          : applied(mutation),
      );
    await send(store, hears);
    const [aside] = await store.aside.toArray();
    expect(aside).toMatchObject({ mutation: tag(1), says: 'Too many tags.' });
    server = (mutations) => mutations.map(applied);
    await store.sendAgain(aside!);
    await send(store, hears);
    expect(pushes.at(-1)).toEqual([uuid(101)]);
    expect([await store.aside.count(), await store.outbox.count()]).toEqual([0, 0]);
  });

  it.each([401, 429, 500, 503])('keeps everything waiting when the server answers %d', async (status) => {
    await store.commitAll([save(1)]);
    server = () => {
      throw new ServerProblem(status, 'Not now.');
    };
    await expect(send(store, hears)).rejects.toThrow('Not now.');
    expect([await store.aside.count(), await store.outbox.count()]).toEqual([0, 1]);
  });

  it('keeps everything waiting when something on the way refuses it in the server’s place', async () => {
    await store.commitAll([save(1)]);
    server = () => {
      throw new Unreachable('Something else answered (400).', 400);
    };
    await expect(send(store, hears)).rejects.toThrow('400');
    expect([await store.aside.count(), await store.outbox.count()]).toEqual([0, 1]);
  });

  it('counts bytes: two texts that are too large together go one after the other', async () => {
    const provide = (n: number): Mutation => ({
      type: 'provide',
      id: uuid(200 + n),
      itemId: uuid(1000 + n),
      stamp: `00000002${n}-0000-a`,
      // Three bytes each in UTF-8.
      given: { type: 'text/plain', body: '海'.repeat(1_500_000), encoding: 'utf8' },
    });
    await store.commitAll([save(1), save(2), provide(1), provide(2)]);
    await send(store, hears);
    expect(pushes.map((push) => push.length)).toEqual([3, 1]);
  });

  it('takes over the stamp of the server where its own was too far ahead', async () => {
    const stamp = '0mj000000-0000-server';
    await store.commitAll([save(1), tag(1)]);
    server = (mutations) =>
      mutations.map((mutation) => ({
        ...applied(mutation),
        ...(mutation.type === 'tag' ? { stamp } : {}),
      }));
    await send(store, hears);
    expect((await store.items.get(uuid(1001)))?.tags.boats).toEqual({ value: 'boats', at: stamp });
  });
});

describe('receiving', () => {
  it('says when there are records of which this version can make nothing', async () => {
    jest
      .spyOn(api, 'pull')
      .mockImplementation(async () => ({ ...page, unread: 3, cursor: 1, now: Date.now(), epoch: 'one' }));
    await receive(store, hears);
    expect(told).toEqual(['refused']);
  });

  it('goes by the server’s clock from then on', async () => {
    const ahead = 40 * 60 * 1000;
    jest
      .spyOn(api, 'pull')
      .mockImplementation(async () => ({ ...page, cursor: 1, now: Date.now() + ahead, epoch: 'one' }));
    await receive(store, hears);
    const wall = parseInt(clock.next().slice(0, 9), 36);
    expect(Math.abs(wall - (Date.now() + ahead))).toBeLessThan(2000);
  });

  it('begins anew with a server that was set back, and tells it all that is known here', async () => {
    await store.commitAll([save(1), tag(1), save(2)]);
    await send(store, hears);
    const pulled: number[] = [];
    let epoch = 'one';
    jest.spyOn(api, 'pull').mockImplementation(async (after) => {
      pulled.push(after);
      return { ...page, cursor: epoch === 'one' ? 90 : 12, now: Date.now(), epoch };
    });
    expect(await receive(store, hears)).toBe(false);
    epoch = 'two';
    expect(await receive(store, hears)).toBe(true);
    // It asked with the cursor of before, and then from the beginning.
    expect(pulled).toEqual([0, 90, 0]);
    expect(await store.cursor()).toBe(12);

    // An empty server that takes what is sent knows the same as this device does.
    const there = new Map<string, ReturnType<typeof newItem>>();
    server = (mutations) =>
      mutations.map((mutation) => {
        if (mutation.type === 'save' || mutation.type === 'choose' || mutation.type === 'tag') {
          const changed = itemKind.apply(there.get(mutation.itemId), mutation);
          if (changed) there.set(mutation.itemId, changed);
        }
        return applied(mutation);
      });
    await send(store, hears);
    expect([...there.values()]).toEqual(await store.items.toArray());
    expect(await receive(store, hears)).toBe(false);
  });
});

it('what is done here wins over what it replaces, however far ahead that was', () => {
  const far = createClock('far', () => Date.now() + 5 * 24 * 3600 * 1000).next();
  const mine = clock.next(far);
  expect(mine > far).toBe(true);
  // And the clock itself is not dragged along.
  expect(clock.next() < far).toBe(true);
});
