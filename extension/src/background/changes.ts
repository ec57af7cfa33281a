import {
  isPushable,
  type GivenText,
  type HighlightKind,
  type HowMuch,
  type MarkedPassage,
} from '@dorvel/core/model';
import type { ItemChoices, Mutation } from '@dorvel/core/records';
import { createClock, type HybridClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { kept, type Pairing } from './storage';

let clock: HybridClock | undefined;
let aheadMs = 0;

/** By the server's clock, as on all devices of the reader. */
async function nextStamp(): Promise<string> {
  aheadMs = await kept.serverAheadMs();
  clock ??= createClock(await kept.device(), () => Date.now() + aheadMs, await kept.lastStamp());
  return clock.next();
}

/** What is to be saved. */
export interface Wish {
  address: string;
  howMuch: HowMuch;
  /** The page, or the part of it, as the browser shows it. */
  given?: GivenText;
  /** By key, as in a change of tags. */
  tags?: Record<string, string>;
  title?: string;
  note?: string;
}

/** Writes a save down, to be sent. @returns the new item's id */
export async function keepSave(pairing: Pairing, wish: Wish): Promise<string> {
  const itemId = uuidv7();
  const { address, howMuch, given, tags, title, note } = wish;
  const base = async () => ({ id: uuidv7(), itemId, stamp: await nextStamp() });
  const mutations: Mutation[] = [{ ...(await base()), type: 'save', address, savedAt: Date.now(), howMuch }];
  // What cannot be sent is fetched by the server, as far as it can.
  if (given && isPushable(given.body)) mutations.push({ ...(await base()), type: 'provide', given });
  if (title !== undefined || note !== undefined)
    mutations.push({
      ...(await base()),
      type: 'choose',
      set: { ...(title === undefined ? {} : { title }), ...(note === undefined ? {} : { note }) },
    });
  if (tags) mutations.push({ ...(await base()), type: 'tag', set: tags });
  await kept.outbox.add(pairing.account.id, mutations);
  return itemId;
}

/** Writes down what the reader decided about an item. */
export async function keepChoice(pairing: Pairing, itemId: string, set: ItemChoices): Promise<void> {
  await kept.outbox.add(pairing.account.id, [
    { type: 'choose', id: uuidv7(), itemId, stamp: await nextStamp(), set },
  ]);
}

/** Writes down tags put on, or taken off as null. */
export async function keepTags(
  pairing: Pairing,
  itemId: string,
  set: Record<string, string | null>,
): Promise<void> {
  await kept.outbox.add(pairing.account.id, [
    { type: 'tag', id: uuidv7(), itemId, stamp: await nextStamp(), set },
  ]);
}

/** Writes down that another amount is to be kept, with the page anew where it is here. */
export async function keepHowMuch(
  pairing: Pairing,
  itemId: string,
  howMuch: HowMuch,
  given: GivenText | undefined,
): Promise<void> {
  const base = async () => ({ id: uuidv7(), itemId, stamp: await nextStamp() });
  await kept.outbox.add(pairing.account.id, [
    { ...(await base()), type: 'choose', set: { howMuch } },
    given && isPushable(given.body)
      ? { ...(await base()), type: 'provide', given }
      : { ...(await base()), type: 'refetch' },
  ]);
}

/** Writes down that a passage was marked. @returns the highlight's id */
export async function keepMark(
  pairing: Pairing,
  itemId: string,
  kind: HighlightKind,
  passage: MarkedPassage,
): Promise<string> {
  const highlightId = uuidv7();
  await kept.outbox.add(pairing.account.id, [
    {
      type: 'mark',
      id: uuidv7(),
      itemId,
      highlightId,
      madeAt: Date.now(),
      kind,
      passage,
      stamp: await nextStamp(),
    },
  ]);
  return highlightId;
}
