/** @jest-environment node */
import 'fake-indexeddb/auto';
import { type Change, createRegistry, type Kind, type Mutation, REGISTRY, type Stored } from '@dorvel/core/records';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { DeviceStore } from '../../app/src/device/store/store';
import { examine } from '../../server/src/library/mend';
import { openHouse } from './open-house';

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

test('a kind of record that only this test knows goes from a device over the server to another', async () => {
  const { database, send, pull, clock, close } = await openHouse(registry);
  const [one, other] = [new DeviceStore('one', registry), new DeviceStore('other', registry)];
  const tides = (store: DeviceStore) => store.records(tideKind as unknown as Kind).toArray();
  try {
    const tideId = uuidv7();
    const tide = (height: number) =>
      ({ id: uuidv7(), stamp: clock.next(), type: 'tide', tideId, height }) as unknown as Mutation;
    await one.commit(tide(412));
    expect(await send(one)).toEqual(['applied']);
    await pull(other);
    expect(await tides(other)).toEqual(await tides(one));
    expect(await tides(other)).toMatchObject([{ id: tideId, height: { value: 412 } }]);

    // Both change it while they are apart; the later one holds, on both.
    await one.commit(tide(390));
    await other.commit(tide(385));
    for (const store of [other, one]) await send(store);
    for (const store of [other, one]) await pull(store);
    expect(await tides(one)).toEqual(await tides(other));
    expect(await tides(one)).toMatchObject([{ height: { value: 385 } }]);

    // What does not fit is refused by itself; a store of before such a kind was thought of fetches all once more.
    await one.commit(tide(9000));
    expect(await send(one)).toEqual(['refused']);
    const before = new DeviceStore('before');
    await before.receive({ records: {}, cursor: 2 });
    before.close();
    const updated = new DeviceStore('before', registry);
    await pull(updated);
    expect(await tides(updated)).toHaveLength(1);
    for (const { faults } of await examine(database)) expect(faults).toEqual([]);
  } finally {
    close();
  }
});
