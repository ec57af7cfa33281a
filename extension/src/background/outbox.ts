import type { Mutation } from '@dorvel/core/records';
import { PUSH_LIMIT, type PushResult, withinPush } from '@dorvel/core/sync';
import { isOfNow, isUnpaired, serverAt } from './server';
import { storage } from './storage';

const ALARM = 'send';

/** What became of the sending: all sent, no connection, or the pairing is no more. */
export type Sent = 'sent' | 'waits' | 'unpaired';

let last: Promise<Sent> = Promise.resolve('sent');

/** Sends what waits, in the order in which it was made. One sending at a time. Never throws. */
export function send(): Promise<Sent> {
  last = last.then(sendAll, sendAll);
  return last;
}

async function sendAll(): Promise<Sent> {
  const pairing = await storage.pairing();
  if (!pairing || pairing.revoked) return 'unpaired';
  const server = serverAt(pairing.origin, pairing.secret);
  for (;;) {
    const batch = await nextBatch(pairing.account.id);
    if (batch.length === 0) break;
    try {
      await pushAll(server, batch);
    } catch (error) {
      if (isUnpaired(error)) {
        await storage.setPairing({ ...pairing, revoked: true });
        return 'unpaired';
      }
      if (isOfNow(error)) {
        await chrome.alarms.create(ALARM, { delayInMinutes: 1 });
        return 'waits';
      }
      throw error;
    }
  }
  await chrome.alarms.clear(ALARM);
  return 'sent';
}

/** Sends changes; when the server will not have them, each by itself, so that only the one at fault is put aside. */
async function pushAll(server: ReturnType<typeof serverAt>, batch: readonly Mutation[]): Promise<void> {
  try {
    const askedAt = Date.now();
    const { results, now } = await server.push(batch);
    await storage.setServerAheadMs(Math.round(now - (askedAt + Date.now()) / 2));
    await settle(batch, results);
  } catch (error) {
    if (isUnpaired(error) || isOfNow(error)) throw error;
    const [only, ...more] = batch;
    if (only && more.length === 0) await settle(batch, [refusal(only.id, error)]);
    else for (const one of batch) await pushAll(server, [one]);
  }
}

function refusal(mutationId: string, error: unknown): PushResult {
  return { outcome: 'refused', mutationId, detail: error instanceof Error ? error.message : String(error) };
}

/** Calls back when a connection is to be tried again. */
export function sendWhenDue(): void {
  chrome.alarms.onAlarm.addListener(({ name }) => {
    if (name === ALARM) void send();
  });
  self.addEventListener('online', () => void send());
}

async function nextBatch(accountId: string): Promise<Mutation[]> {
  const batch: { mutation: Mutation }[] = [];
  for (const id of await storage.outbox.ids()) {
    const waiting = await storage.outbox.get(id);
    if (!waiting) await putAsideUnread(id);
    if (waiting?.accountId !== accountId) continue;
    batch.push(...waiting.mutations.map((mutation) => ({ mutation })));
    if (batch.length >= PUSH_LIMIT) break;
  }
  return withinPush(batch.slice(0, PUSH_LIMIT)).map(({ mutation }) => mutation);
}

/** What was written by another version and is no change to this one must not wait for ever. */
async function putAsideUnread(id: string): Promise<void> {
  await storage.addRefused([
    { address: `A change (${id})`, detail: 'It cannot be read by this version, or is too large to be sent.' },
  ]);
  await storage.outbox.remove([id]);
}

async function settle(batch: readonly Mutation[], results: readonly PushResult[]): Promise<void> {
  const refused = results.flatMap((result) => {
    if (result.outcome !== 'refused') return [];
    const mutation = batch.find(({ id }) => id === result.mutationId);
    return mutation?.type === 'save' ? [{ address: mutation.address, detail: result.detail }] : [];
  });
  if (refused.length > 0) await storage.addRefused(refused);
  await storage.outbox.remove(batch.map(({ id }) => id));
}
