import { isOnWeb } from '@dorvel/core/address';
import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { isPushable, type Item } from '@dorvel/core/model';
import { itemKind, type Mutation, REGISTRY } from '@dorvel/core/records';
import { PUSH_LIMIT, type PushResult, restated, withinPush } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { clock, setServerTime } from '@/device/store/clock';
import type { DeviceStore, Unsent } from '@/device/store/store';
import { api } from './api';

export type News = { kind: 'already-saved'; itemId: string } | { kind: 'refused'; says: string };

/** Who is told how the exchange goes. */
interface Hears {
  doing(what: 'sending' | 'receiving'): void;
  /** What the reader should hear of. */
  tell(news: News[]): void;
}

/** Sends what waits, in the order in which it was made. @throws what api throws */
export async function send(store: DeviceStore, hears: Hears): Promise<void> {
  for (;;) {
    const waiting = withinPush(await store.outbox.orderBy('place').limit(PUSH_LIMIT).toArray());
    if (waiting.length === 0) return;
    hears.doing('sending');
    try {
      await push(store, waiting, hears);
    } catch (error) {
      if (!isOfWhatWasSent(error)) throw error;
      // It lies with one of them: each goes by itself, so that the others need not wait for it.
      for (const one of waiting) await pushOne(store, one, hears);
    }
  }
}

/**
 * True when it is said that what was sent is at fault, and not the connection, the session or the server. That it is too
 * large, something on the way may say as well; all else only the server itself: a network's sign-in page refuses everything.
 */
function isOfWhatWasSent(error: unknown): error is ServerProblem | Unreachable {
  if (error instanceof Unreachable) return error.status === 413;
  return error instanceof ServerProblem && [400, 413, 415, 422].includes(error.status);
}

async function pushOne(store: DeviceStore, waiting: Unsent, hears: Hears): Promise<void> {
  try {
    await push(store, [waiting], hears);
  } catch (error) {
    if (!isOfWhatWasSent(error)) throw error;
    await settle(store, waiting, refusalOf(waiting.mutation, error.message), hears);
  }
}

function refusalOf(mutation: Mutation, detail: string): PushResult {
  return { outcome: 'refused', mutationId: mutation.id, detail };
}

async function push(store: DeviceStore, waiting: readonly Unsent[], hears: Hears): Promise<void> {
  const askedAt = Date.now();
  const { results, now, epoch } = await api.push(waiting.map(({ mutation }) => mutation));
  setServerTime(now, askedAt);
  const known = await store.epoch();
  // What the server forgot when it was set back is sent to it again when that is fetched, and what was changed in it along with it.
  const isSetBackThere = known !== null && known !== epoch;
  const isForgotten = (result: PushResult) => isSetBackThere && result.outcome === 'refused' && result.unknown === true;
  const byId = new Map(results.map((result) => [result.mutationId, result]));
  for (const one of waiting) {
    const result = byId.get(one.mutation.id);
    if (result && !isForgotten(result)) await settle(store, one, result, hears);
  }
  await store.outbox.bulkDelete(waiting.flatMap(({ place }) => place ?? []));
}

async function settle(store: DeviceStore, waiting: Unsent, result: PushResult, hears: Hears): Promise<void> {
  const { mutation, recordId: itemId } = waiting;
  if (result.outcome === 'applied' && result.stamp !== undefined) await store.restamp(mutation, result.stamp);
  if (result.outcome === 'already-saved') {
    if (result.itemId !== itemId) hears.tell([{ kind: 'already-saved', itemId: result.itemId }]);
    await store.items
      .where('id')
      .equals(itemId)
      .modify((item: Item) => void (item.capture.duplicateOf = result.itemId));
  }
  if (result.outcome !== 'refused') return;
  if (result.unknown && (await settleErased(store, waiting))) return;
  await store.setAside(waiting, result.detail, Date.now());
  hears.tell([{ kind: 'refused', says: `A change could not be taken: ${result.detail} It is kept under “You”.` }]);
  await store.items
    .where('id')
    .equals(itemId)
    .and((item) => item.capture.page === null)
    .modify((item: Item) => {
      const cause = { code: 'refused' as const, detail: result.detail.slice(0, 500) };
      const outcome = { code: 'failed' as const, cause, copyStays: false, tries: null };
      item.capture = { ...item.capture, state: 'failed', outcome };
    });
}

/**
 * A change of what the server has erased, since it had been let go for long. When it is still let go here, or gone, there is
 * nothing to change; when the reader has brought it back meanwhile, without a connection, it is saved again.
 *
 * @returns whether that is what it was
 */
async function settleErased(store: DeviceStore, { mutation, recordId }: Unsent): Promise<boolean> {
  const kind = REGISTRY.of(mutation);
  const record = await store.records(kind).get(recordId);
  const itemId = record ? kind.itemIdOf(record) : null;
  const item = itemId === null ? undefined : await store.items.get(itemId);
  if (!item) return kind.name === itemKind.name;
  if (item.choices.stage.value === 'let-go') return true;
  // It was never in the library: its save was refused.
  if (item.capture.page === null) return false;
  const own = kind.name === itemKind.name ? {} : { [kind.plural]: [record] };
  await store.sendAfterwards(restated({ items: [item], ...own }, uuidv7));
  return true;
}

/**
 * Fetches what is new.
 *
 * @returns true when there is something to be sent because of it
 * @throws what api throws
 */
export async function receive(store: DeviceStore, hears: Hears): Promise<boolean> {
  let cursor = await store.cursor();
  for (;;) {
    const askedAt = Date.now();
    const page = await api.pull(cursor);
    setServerTime(page.now, askedAt);
    if (await isSetBack(store, page.epoch)) {
      await receiveAnew(store, page.epoch);
      return true;
    }
    if (page.records.items.length > 0) hears.doing('receiving');
    if (page.unread > 0) hears.tell([{ kind: 'refused', says: unreadWords(page.unread) }]);
    const canonicalIds = await store.receive(page);
    hears.tell(canonicalIds.map((itemId) => ({ kind: 'already-saved', itemId })));
    cursor = page.cursor;
    if (!page.more) return false;
  }
}

function unreadWords(count: number): string {
  const what = count === 1 ? 'One thing in your library was' : `${count} things in your library were`;
  return `${what} written by a newer Dorvel than this one. Load this page anew to see all of it; nothing is lost.`;
}

/** Whether the server's library is another than it was: brought back from a backup, say. */
async function isSetBack(store: DeviceStore, epoch: string): Promise<boolean> {
  const known = await store.epoch();
  if (known === null) await store.meta.put({ name: 'epoch', value: epoch });
  return known !== null && known !== epoch;
}

/**
 * The server was set back: cursors of before mean nothing, and it may have forgotten what this device knows. All of it is
 * fetched, and all that is known here is sent again; what it knows better stays as it is there.
 */
async function receiveAnew(store: DeviceStore, epoch: string): Promise<void> {
  const there = new Set<string>();
  let cursor = 0;
  for (let more = true; more;) {
    const page = await api.pull(cursor);
    for (const { id } of page.records.items) there.add(id);
    await store.receive(page);
    ({ cursor, more } = page);
  }
  const known = await store.everything();
  const mutations = restated(known, uuidv7);
  // The text of a letter or a file was nowhere but on the server.
  for (const item of known.items)
    if (!there.has(item.id) && !isOnWeb(item.address)) mutations.push(...(await givenTextOf(store, item)));
  await store.sendAfterwards(mutations);
  await store.meta.put({ name: 'epoch', value: epoch });
}

async function givenTextOf(store: DeviceStore, item: Item): Promise<Mutation[]> {
  const copy = await store.copies.get(item.capture.page?.copyId ?? '');
  if (!copy) return [];
  const { treeToHtml } = await import('@/device/formats');
  const body = treeToHtml(copy.tree);
  if (!isPushable(body)) return [];
  const given = { type: 'text/html', body, encoding: 'utf8' } as const;
  return [{ type: 'provide', id: uuidv7(), itemId: item.id, stamp: clock.next(), given }];
}
