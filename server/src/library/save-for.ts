import { LONGEST_NOTE, tagKey, TagName, type GivenText, type HowMuch, type Item } from '@dorvel/core/model';
import { itemKind } from '@dorvel/core/records';
import type { HybridClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import type { LibraryWriter } from './library';
import { takeMutation } from './take-mutations';

/** What is to be saved for a reader who is not at one of their devices just now. */
interface Wish {
  address: string;
  howMuch?: HowMuch;
  /** The page as the reader's own browser shows it, or what came with a letter. */
  given?: GivenText;
  tags?: readonly string[];
  note?: string;
}

export type SavedFor = { ok: true; item: Item; wasThere: boolean } | { ok: false; says: string };

/**
 * Saves as a device of the reader's would: what the library has already is brought up, and gets what is new of tags
 * and note. A text that is given is taken where there is none yet that came through whole.
 */
export async function saveFor(
  write: LibraryWriter,
  wish: Wish,
  tools: { clock: HybridClock; now(): number },
): Promise<SavedFor> {
  const made = uuidv7();
  const base = (itemId: string) => ({ id: uuidv7(), itemId, stamp: tools.clock.next() });
  const result = await takeMutation(
    write,
    {
      ...base(made),
      type: 'save',
      address: wish.address,
      savedAt: tools.now(),
      ...(wish.howMuch ? { howMuch: wish.howMuch } : {}),
    },
    tools,
  );
  if (result.outcome === 'refused') return { ok: false, says: result.detail };
  const wasThere = result.outcome === 'already-saved';
  const itemId = wasThere ? result.itemId : made;
  const before = await write.item(itemId);
  if (wish.given && before?.capture.page?.cameThrough.verdict !== 'whole')
    await provide(write, itemId, wish.given, tools);
  const tags = (wish.tags ?? []).flatMap((tag) => TagName.safeParse(tag).data ?? []);
  if (tags.length > 0) {
    const set = Object.fromEntries(tags.map((tag) => [tagKey(tag), tag]));
    await takeMutation(write, { ...base(itemId), type: 'tag', set }, tools);
  }
  const known = before?.choices.note.value ?? '';
  if (wish.note && !known.includes(wish.note)) {
    const note = [known, wish.note].filter(Boolean).join('\n\n').slice(0, LONGEST_NOTE);
    await takeMutation(write, { ...base(itemId), type: 'choose', set: { note } }, tools);
  }
  const item = await write.item(itemId);
  return item ? { ok: true, item, wasThere } : { ok: false, says: 'It could not be saved.' };
}

/** As a device gives a text by hand; but what comes by mail may be larger than what a device may send. */
async function provide(
  write: LibraryWriter,
  itemId: string,
  given: GivenText,
  { clock, now }: { clock: HybridClock; now(): number },
): Promise<void> {
  const base = { id: uuidv7(), itemId, stamp: clock.next() };
  const item = itemKind.apply(await write.item(itemId), { ...base, type: 'provide', given });
  if (!item) return;
  await write.enqueueCapture(itemId, now(), given);
  await write.put({ ...item, capture: { ...item.capture, revision: write.sequence } });
}
