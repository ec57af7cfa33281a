/** @jest-environment node */
import 'fake-indexeddb/auto';
import { noteText, ownNote } from '@dorvel/core/notes';
import { changeMaker } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { DeviceStore } from '../../app/src/device/store/store';
import { openHouse } from './open-house';

const HOUR_MS = 60 * 60 * 1000;

/** A device that writes the note of one item. */
function device(name: string, aheadMs = 0) {
  const store = new DeviceStore(name);
  const make = changeMaker({
    clock: createClock(name, () => Date.now() + aheadMs),
    newId: uuidv7,
    now: Date.now,
  });
  return {
    store,
    async note(itemId: string) {
      return store.notes.get(itemId);
    },
    async write(itemId: string, text: string) {
      const known = await store.notes.get(itemId);
      await store.commit(known ? make.changeNote(known, { text }) : make.note(ownNote.ofItem(itemId), { text }));
    },
  };
}

test('what two devices write in one note while apart is there on both, also when the clock of one is ahead', async () => {
  const { send, pull, close } = await openHouse();
  const [phone, tablet] = [device('phone'), device('tablet', 3 * HOUR_MS)];
  const all = [phone, tablet];
  const itemId = uuidv7();
  const meet = async () => {
    for (const { store } of all) await send(store);
    for (const { store } of all) await pull(store);
  };
  const texts = async () =>
    Promise.all(all.map(async (each) => noteText((await each.note(itemId)) ?? { versions: [] })));
  try {
    await phone.write(itemId, 'Ask the yard.\n\nRope.');
    await meet();
    await phone.write(itemId, 'Ask the yard about larch.\n\nRope.');
    await tablet.write(itemId, 'Ask the yard.\n\nRope.\n\nTar.');
    await tablet.write(itemId, 'Ask the yard.\n\nRope.\n\nTar, two tins.');
    await meet();
    const both = 'Ask the yard about larch.\n\nRope.\n\nTar, two tins.';
    expect(await texts()).toEqual([both, both]);
    await tablet.write(itemId, `${both}\n\nDone.`);
    await phone.write(itemId, `${both}\n\nNot yet.`);
    await meet();
    const readings = await texts();
    expect(readings[0]).toBe(readings[1]);
    for (const line of ['Done.', 'Not yet.', 'Tar, two tins.']) expect(readings[0]).toContain(line);
    expect(readings[0]?.match(/Rope/g)).toHaveLength(1);
  } finally {
    for (const { store } of all) await store.delete();
    close();
  }
});
