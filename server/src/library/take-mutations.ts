import { canonicalAddress, isLocalAddress, isOnWeb, readAddress } from '@dorvel/core/address';
import { asGivenBy, clipped, deviceOf, instantOf, type Item, NEVER } from '@dorvel/core/model';
import { saveAgain } from '@dorvel/core/queue';
import {
  type Change,
  changeMaker,
  feedKind,
  type FeedMutation,
  itemKind,
  type ItemMutation,
  type Kind,
  newItem,
} from '@dorvel/core/records';
import { FUTURE_TOLERANCE_MS, type HybridClock, type PushResult } from '@dorvel/core/sync';
import { inputWords } from '@dorvel/core/wording';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { isOfDatabase } from '../db/open';
import { FeedMemory } from './feeds';
import type { Library, LibraryWriter } from './library';
import { Unstorable } from './stored';

/** What taking a mutation into the library needs from outside. */
export interface PushTools {
  clock: HybridClock;
  now(): number;
  /** Stamps that were given anew when changes came the first time; see withPlausibleStamp. */
  restamps?: ReadonlyMap<string, string>;
}

/** Changes that a device sent, and where they go. */
interface Push {
  mutations: readonly unknown[];
  /** Why the sender may not make a change; null when it may. */
  refusal?(mutation: unknown): string | null;
}

/** So long one change of a library goes on taking: others write, too, and a server of databases ends what takes 5 s. */
const ONE_CHANGE_MS = 1500;

/**
 * Takes what a device sent into a library: as much of it in one change as time allows; but when that fails through one of them, each in a
 * change of its own, so that no change holds up what was sent with it or comes after it.
 *
 * @throws what is wrong with the database, which is wrong for all of them, and passes
 */
export async function takePush(
  library: Library,
  { mutations, refusal = () => null }: Push,
  tools: PushTools,
): Promise<{ results: PushResult[]; cursor: number }> {
  const takeThem = (some: readonly unknown[]) =>
    library.change(async (write) => {
      const [taken, begunAt]: [PushResult[], number] = [[], tools.now()];
      const restamps = await write.restampsOf(some.map(idOf).filter((id) => id !== ''));
      for (const mutation of some) {
        taken.push(await takeIfAllowed(write, mutation, refusal, { ...tools, restamps }));
        if (tools.now() - begunAt >= ONE_CHANGE_MS) break;
      }
      return { results: taken, cursor: write.sequence };
    });
  const results: PushResult[] = [];
  let cursor = 0;
  try {
    do {
      const some = await takeThem(mutations.slice(results.length));
      results.push(...some.results);
      ({ cursor } = some);
    } while (results.length < mutations.length);
    return { results, cursor };
  } catch (error) {
    if (isOfDatabase(error)) throw error;
  }
  for (const mutation of mutations.slice(results.length))
    try {
      const one = await takeThem([mutation]);
      results.push(...one.results);
      ({ cursor } = one);
    } catch (error) {
      if (isOfDatabase(error)) throw error;
      results.push(refused(mutation, `The server cannot take it: ${String(error)}`));
    }
  return { results, cursor };
}

function takeIfAllowed(
  write: LibraryWriter,
  input: unknown,
  refusal: NonNullable<Push['refusal']>,
  tools: PushTools,
): Promise<PushResult> {
  const says = refusal(input);
  return says === null ? takeMutation(write, input, tools) : Promise.resolve(refused(input, says));
}

function unknown(change: Change, what: string): PushResult {
  return { ...refused(change, `That ${what} is not in this library.`), unknown: true } as PushResult;
}

const WithId = z.object({ id: z.string() });
/** Of what may be anything. */
const idOf = (input: unknown): string => WithId.safeParse(input).data?.id ?? '';

function refused(input: unknown, says: string): PushResult {
  return { outcome: 'refused', mutationId: idOf(input), detail: clipped(says, 500) };
}

/**
 * Takes one mutation of a device into the library. Harmless to repeat. What cannot be read, or would not fit, is
 * refused by itself and in words; the rest of the push goes on.
 *
 * @returns the answer for the device
 */
export async function takeMutation(write: LibraryWriter, input: unknown, tools: PushTools): Promise<PushResult> {
  const parsed = write.registry.Mutation.safeParse(input);
  if (!parsed.success) return refused(input, inputWords(parsed.error));
  const mutation = await withPlausibleStamp(write, parsed.data, tools);
  tools.clock.see(mutation.stamp);
  try {
    const result = await take(write, mutation, tools);
    const isItsOwn = mutation.stamp === parsed.data.stamp;
    return result.outcome === 'applied' && !isItsOwn ? { stamp: mutation.stamp, ...result } : result;
  } catch (error) {
    if (!(error instanceof Unstorable)) throw error;
    return refused(input, `It does not fit: ${inputWords(error)}`);
  }
}

/** Kinds of which the server does more than keep them. */
const BEYOND_KEEPING: Readonly<
  Record<string, (write: LibraryWriter, change: never, tools: PushTools) => Promise<PushResult>>
> = { [itemKind.name]: changeItem, [feedKind.name]: changeFeed };

function take(write: LibraryWriter, change: Change, tools: PushTools): Promise<PushResult> {
  const kind = write.registry.of(change);
  const beyond = BEYOND_KEEPING[kind.name];
  return beyond ? beyond(write, change as never, tools) : changeRecord(write, kind, change);
}

const applied = ({ id }: Change): PushResult => ({ outcome: 'applied', mutationId: id });

async function changeRecord(write: LibraryWriter, kind: Kind, change: Change): Promise<PushResult> {
  const changed = kind.apply(await write.record(kind, kind.idOf(change)), change);
  const itemId = changed && kind.itemIdOf(changed);
  const item = itemId ? await write.item(itemId) : undefined;
  if (!changed || (kind.needsItem && !item)) return unknown(change, kind.name);
  // It belongs to the item that stands for the page.
  const canonicalId = item?.capture.duplicateOf;
  await write.putRecord(kind, canonicalId && kind.movedTo ? kind.movedTo(changed, canonicalId) : changed);
  return applied(change);
}

async function changeItem(write: LibraryWriter, mutation: ItemMutation, tools: PushTools): Promise<PushResult> {
  const item = await write.item(mutation.itemId);
  if (mutation.type === 'save') return save(write, mutation, item, tools);
  const canonical = item?.capture.duplicateOf ? await write.item(item.capture.duplicateOf) : item;
  if (mutation.type === 'refetch' && canonical && !isOnWeb(canonical.address))
    return refused(mutation, 'A letter or a file cannot be fetched again.');
  const changed = itemKind.apply(canonical, mutation);
  if (!changed) return unknown(mutation, 'item');
  if (mutation.type === 'refetch' || mutation.type === 'provide') {
    changed.capture = { ...changed.capture, revision: write.sequence };
    await write.enqueueCapture(changed.id, tools.now(), mutation.type === 'provide' ? mutation.given : null);
  }
  await write.put(changed);
  return applied(mutation);
}

async function save(
  write: LibraryWriter,
  mutation: Extract<ItemMutation, { type: 'save' }>,
  known: Item | undefined,
  tools: PushTools,
): Promise<PushResult> {
  const mutationId = mutation.id;
  if (known) {
    // Sent again, as the answer was lost: what became of its choices stands here, by whatever stamp they were given the first
    // time, and is fetched next. The stamps that the device gave them are nothing any more.
    return known.capture.duplicateOf
      ? { outcome: 'already-saved', mutationId, itemId: known.capture.duplicateOf }
      : { outcome: 'applied', mutationId, stamp: NEVER };
  }
  const reading = isLocalAddress(mutation.address)
    ? { ok: true as const, address: mutation.address }
    : readAddress(mutation.address);
  if (!reading.ok) return refused(mutation, reading.says);
  const item = newItem({ ...mutation, address: reading.address });
  item.capture.revision = write.sequence;
  const first = await write.itemAt(canonicalAddress(reading.address), item.id);
  if (!first) {
    await write.put(item);
    // A part of a page, a letter or a file is given, in a change of its own.
    if (mutation.howMuch !== 'selected-part' && isOnWeb(reading.address))
      await write.enqueueCapture(item.id, tools.now());
    return { outcome: 'applied', mutationId };
  }
  // Kept as a pointer, so that repeating the save and later changes to this id find the item that stands for it.
  await write.put({
    ...item,
    capture: { ...item.capture, state: 'arrived', outcome: { code: 'already-saved' }, duplicateOf: first.id },
  });
  const make = changeMaker({ ...tools, newId: uuidv7 });
  const raised = itemKind.apply(
    first,
    make.choose(first.id, saveAgain(first, await write.inQueue(), tools.now()), first),
  );
  if (raised) await write.put(raised);
  return { outcome: 'already-saved', mutationId, itemId: first.id };
}

/** A feed that is newly followed, or that the reader asks for, is looked at at once. */
async function changeFeed(write: LibraryWriter, mutation: FeedMutation, tools: PushTools): Promise<PushResult> {
  const mutationId = mutation.id;
  const reading = mutation.type === 'follow' ? readAddress(mutation.address) : null;
  if (reading && !reading.ok) return refused(mutation, reading.says);
  const known = await write.feed(mutation.feedId);
  // As it was read, not as it was sent: one address that is not one would hold up the looks at all feeds.
  const change = mutation.type === 'follow' && reading ? { ...mutation, address: reading.address } : mutation;
  const feed = feedKind.apply(known?.feed, change);
  if (!feed) return unknown(mutation, 'feed');
  if (!known) feed.state.revision = write.sequence;
  const asks = mutation.type === 'follow' || mutation.set.following === true || mutation.set.askedAt !== undefined;
  const isFollowed = feed.choices.following.value;
  await write.putFeed(
    feed,
    known?.memory ?? FeedMemory.parse({}),
    !isFollowed ? null : asks || !known ? tools.now() : known.dueAt,
  );
  return { outcome: 'applied', mutationId };
}

/**
 * A device whose clock is ahead would win every merge until then: its stamps are taken as of now. When the answer was lost and the
 * change comes again, it has the stamp that it was given the first time, also when its own is plausible by then: what was made
 * after it, by who saw it, has a later one.
 */
async function withPlausibleStamp(
  write: LibraryWriter,
  mutation: Change,
  { clock, now, restamps }: PushTools,
): Promise<Change> {
  const before = restamps?.get(mutation.id);
  if (before !== undefined) return { ...mutation, stamp: before };
  if (instantOf(mutation.stamp) <= now() + FUTURE_TOLERANCE_MS) return mutation;
  const make = () => asGivenBy(deviceOf(mutation.stamp), clock.next());
  return { ...mutation, stamp: await write.restamped(mutation.id, make, now()) };
}
