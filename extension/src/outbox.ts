import { PUSH_LIMIT, type Mutation, type PushResult } from '@dorvel/core/model';
import { kept } from './kept';
import { serverAt, Unpaired, Unreachable } from './server';

/** A push carries about so much at most. */
const PUSH_CHARACTERS = 4_000_000;
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
  const pairing = await kept.pairing();
  if (!pairing || pairing.revoked) return 'unpaired';
  const server = serverAt(pairing.origin, pairing.secret);
  for (;;) {
    const batch = await nextBatch(pairing.account.id);
    if (batch.length === 0) break;
    try {
      const { results } = await server.push(batch);
      await settle(batch, results);
    } catch (error) {
      if (error instanceof Unpaired) {
        await kept.setPairing({ ...pairing, revoked: true });
        return 'unpaired';
      }
      if (error instanceof Unreachable) {
        await chrome.alarms.create(ALARM, { delayInMinutes: 1 });
        return 'waits';
      }
      // An answer that cannot be understood will not be better the next time: said, and put aside with its address.
      await settle(
        batch,
        batch.map(({ id }) => refusal(id, error)),
      );
    }
  }
  await chrome.alarms.clear(ALARM);
  return 'sent';
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
  const batch: Mutation[] = [];
  let characters = 0;
  for (const id of await kept.outbox.ids()) {
    const waiting = await kept.outbox.get(id);
    if (waiting?.accountId !== accountId) continue;
    characters += JSON.stringify(waiting.mutation).length;
    if (batch.length > 0 && characters > PUSH_CHARACTERS) break;
    batch.push(waiting.mutation);
    if (batch.length === PUSH_LIMIT) break;
  }
  return batch;
}

async function settle(batch: readonly Mutation[], results: readonly PushResult[]): Promise<void> {
  const refused = results.flatMap((result) => {
    if (result.outcome !== 'refused') return [];
    const mutation = batch.find(({ id }) => id === result.mutationId);
    return mutation?.type === 'save' ? [{ address: mutation.address, detail: result.detail }] : [];
  });
  if (refused.length > 0) await kept.addRefused(refused);
  await kept.outbox.remove(batch.map(({ id }) => id));
}
