import { type GivenText, type HowMuch, type Item, MAX_NOTE_LENGTH, tagKey, TagName } from '@dorvel/core/model';
import { liveText, ownNote } from '@dorvel/core/notes';
import { type ChangeMaker, changeMaker, itemKind, type ItemMutation, noteKind } from '@dorvel/core/records';
import { v7 as uuidv7 } from 'uuid';
import type { LibraryWriter } from './library';
import { type PushTools, takeMutation } from './take-mutations';

/** What is to be saved for a reader who is not at one of their devices just now. */
interface SaveRequest {
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
export async function saveFor(write: LibraryWriter, wish: SaveRequest, tools: PushTools): Promise<SavedFor> {
  const make = changeMaker({ ...tools, newId: uuidv7 });
  const save = make.save(wish);
  const result = await takeMutation(write, save, tools);
  if (result.outcome === 'refused') return { ok: false, says: result.detail };
  const wasThere = result.outcome === 'already-saved';
  const itemId = wasThere ? result.itemId : save.itemId;
  const before = await write.item(itemId);
  if (wish.given && before?.capture.page?.cameThrough.verdict !== 'whole')
    await provide(write, make.provide(itemId, wish.given), tools.now());
  const tags = (wish.tags ?? []).flatMap((tag) => TagName.safeParse(tag).data ?? []);
  if (tags.length > 0) {
    const set = Object.fromEntries(tags.map((tag) => [tagKey(tag), tag]));
    await takeMutation(write, make.tag(itemId, set, before), tools);
  }
  if (wish.note) await addNote(write, itemId, wish.note, make, tools);
  const item = await write.item(itemId);
  return item ? { ok: true, item, wasThere } : { ok: false, says: 'It could not be saved.' };
}

/** Puts words behind those that the item's own note has, where they are not among them. */
async function addNote(
  write: LibraryWriter,
  itemId: string,
  words: string,
  make: ChangeMaker,
  tools: PushTools,
): Promise<void> {
  const note = await write.record(noteKind, itemId);
  const written = liveText(note);
  if (written.includes(words)) return;
  const text = [written, words].filter(Boolean).join('\n\n').slice(0, MAX_NOTE_LENGTH);
  const change = note ? make.changeNote(note, { text, removed: false }) : make.note(ownNote.ofItem(itemId), { text });
  await takeMutation(write, change, tools);
}

/** As a device gives a text by hand; but what comes by mail may be larger than what a device may send. */
async function provide(write: LibraryWriter, change: ItemMutation, now: number): Promise<void> {
  const item = itemKind.apply(await write.item(change.itemId), change);
  if (!item || change.type !== 'provide') return;
  await write.enqueueCapture(item.id, now, change.given);
  await write.put({ ...item, capture: { ...item.capture, revision: write.sequence } });
}
