/** @jest-environment node */
import 'fake-indexeddb/auto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  type Change,
  createRegistry,
  type Kind,
  type Mutation,
  REGISTRY,
  type Stored,
} from '@dorvel/core/records';
import { createClock, pullResponse, PushResponse } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { DeviceStore } from '../../app/src/device/store/store';
import { accountRepository } from '../../server/src/accounts/accounts';
import { openDatabase } from '../../server/src/db/open';
import { type Library, libraryOf } from '../../server/src/library/library';
import { examine } from '../../server/src/library/mend';
import { takePush } from '../../server/src/library/take-mutations';

/** A kind of record that Dorvel does not have: how high the water stood, in centimetres. */
interface Tide extends Stored {
  height: { value: number; at: string };
}
interface TideChange extends Change {
  type: 'tide';
  tideId: string;
  height: number;
}
const Height = z.object({ value: z.number().max(2000), at: z.string() });
const tideKind: Kind<Tide, TideChange> = {
  name: 'tide',
  plural: 'tides',
  version: 1,
  schema: z.object({ id: z.uuid(), height: Height }),
  mutation: z.object({
    id: z.uuid(),
    stamp: z.string(),
    type: z.literal('tide'),
    tideId: z.uuid(),
    height: z.number(),
  }),
  types: ['tide'],
  idOf: ({ tideId }) => tideId,
  itemIdOf: () => null,
  apply: (known, { tideId, height, stamp }) => {
    const made = { id: tideId, height: { value: height, at: stamp } };
    return known ? tideKind.merge(known, made) : made;
  },
  merge: (a, b) => (a.height.at >= b.height.at ? a : b),
  restate: ({ id, height }, base) => [{ ...base(height.at), type: 'tide', tideId: id, height: height.value }],
};
const registry = createRegistry([...REGISTRY.kinds, tideKind]);

const clock = createClock('kinds', Date.now);
const tools = { clock, now: Date.now };

/** Sends what a device has not sent, over JSON as it would go. */
async function send(store: DeviceStore, library: Library): Promise<string[]> {
  const unsent = await store.outbox.orderBy('place').toArray();
  const mutations = JSON.parse(JSON.stringify(unsent.map(({ mutation }) => mutation))) as unknown[];
  const taken = await takePush(library, { mutations }, tools);
  await store.outbox.bulkDelete(unsent.map(({ place }) => place!));
  return PushResponse.parse({ ...taken, now: Date.now(), epoch: 'one' }).results.map(
    ({ outcome }) => outcome,
  );
}

async function pull(store: DeviceStore, library: Library): Promise<void> {
  const { records, ...head } = await library.changesAfter(await store.cursor());
  const answer = JSON.stringify({ ...records, ...head, now: Date.now(), epoch: 'one' });
  await store.receive(pullResponse(registry).parse(JSON.parse(answer)));
}

test('a kind of record that only this test knows goes from a device over the server to another', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-kinds-'));
  const database = await openDatabase(
    `file:${path.join(folder, 'test.db')}`,
    path.join(__dirname, '../../server/src/db/migrations'),
  );
  const account = await accountRepository(database, Date.now).create(
    'a@example.org',
    'A',
    'a long enough passphrase',
  );
  const library = libraryOf(database, account!.id, registry);
  const [one, other] = [new DeviceStore('one', registry), new DeviceStore('other', registry)];
  const tides = (store: DeviceStore) => store.records(tideKind as unknown as Kind).toArray();
  try {
    const tideId = uuidv7();
    const tide = (height: number) =>
      ({ id: uuidv7(), stamp: clock.next(), type: 'tide', tideId, height }) as unknown as Mutation;
    await one.commit(tide(412));
    expect(await send(one, library)).toEqual(['applied']);
    await pull(other, library);
    expect(await tides(other)).toEqual(await tides(one));
    expect(await tides(other)).toMatchObject([{ id: tideId, height: { value: 412 } }]);

    // Both change it while they are apart; the later one holds, on both.
    await one.commit(tide(390));
    await other.commit(tide(385));
    for (const store of [other, one]) await send(store, library);
    for (const store of [other, one]) await pull(store, library);
    expect(await tides(one)).toEqual(await tides(other));
    expect(await tides(one)).toMatchObject([{ height: { value: 385 } }]);

    // What does not fit is refused by itself; a store of before such a kind was thought of fetches all once more.
    await one.commit(tide(9000));
    expect(await send(one, library)).toEqual(['refused']);
    const before = new DeviceStore('before');
    await before.receive({ records: {}, cursor: 2 });
    before.close();
    const updated = new DeviceStore('before', registry);
    await pull(updated, library);
    expect(await tides(updated)).toHaveLength(1);
    for (const { faults } of await examine(database)) expect(faults).toEqual([]);
  } finally {
    database.close();
    rmSync(folder, { recursive: true, force: true });
  }
});
