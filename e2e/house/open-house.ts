import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { REGISTRY, type Registry } from '@dorvel/core/records';
import { createClock, pullResponse, PushResponse } from '@dorvel/core/sync';
import type { DeviceStore } from '../../app/src/device/store/store';
import { accountRepository } from '../../server/src/accounts/accounts';
import { openDatabase } from '../../server/src/db/open';
import { libraryOf } from '../../server/src/library/library';
import { takePush } from '../../server/src/library/take-mutations';

/** A server's library and the ways to it from devices, without a network: what goes over it goes as the JSON that it would be. */
export async function openHouse(registry: Registry = REGISTRY) {
  const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-house-'));
  const database = await openDatabase(
    `file:${path.join(folder, 'test.db')}`,
    path.join(__dirname, '../../server/src/db/migrations'),
  );
  const account = await accountRepository(database, Date.now).create('a@example.org', 'A', 'a long enough passphrase');
  const library = libraryOf(database, account!.id, registry);
  const clock = createClock('house', Date.now);
  return {
    database,
    clock,
    /** Sends what a device has not sent. @returns what became of each change */
    async send(store: DeviceStore): Promise<string[]> {
      const unsent = await store.outbox.orderBy('place').toArray();
      const mutations = JSON.parse(JSON.stringify(unsent.map(({ mutation }) => mutation))) as unknown[];
      const taken = await takePush(library, { mutations }, { clock, now: Date.now });
      await store.outbox.bulkDelete(unsent.map(({ place }) => place!));
      const { results } = PushResponse.parse({ ...taken, now: Date.now(), epoch: 'one' });
      for (const [n, result] of results.entries())
        if (result.outcome === 'applied' && result.stamp) await store.restamp(unsent[n]!.mutation, result.stamp);
      return results.map(({ outcome }) => outcome);
    },
    async pull(store: DeviceStore): Promise<void> {
      const { records, ...head } = await library.changesAfter(await store.cursor());
      const answer = JSON.stringify({ ...records, ...head, now: Date.now(), epoch: 'one' });
      await store.receive(pullResponse(registry).parse(JSON.parse(answer)));
    },
    close() {
      database.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
