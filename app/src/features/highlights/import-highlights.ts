import { canonicalAddress, readAddress } from '@dorvel/core/address';
import type { ForeignHighlight } from '@dorvel/core/bring-in';
import { CONTEXT_LENGTH, type Item, type MarkedPassage } from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import { titleOf } from '@dorvel/core/wording';
import { useAccount } from '@/device/store/account';
import {
  addHighlight,
  changeHighlight,
  changeNote,
  choose,
  saveAddress,
  writeNote,
  writeOwnNote,
} from '@/device/store/changes';
import { useSavingSettings } from '@/features/settings/saving-settings-store';

/** What became of highlights that were brought in. */
export interface Imported {
  /** On items that were in the library. */
  matched: number;
  /** On pages that were saved for it. */
  saved: number;
  /** Whose source nobody knows: kept as notes. */
  noted: number;
  takeBack(): Promise<void>;
}

/**
 * Brings in highlights made elsewhere: each goes to the item at its address or with its title; where there is none, its page
 * is saved; and what names no page is kept as a note. None is dropped.
 */
export async function importHighlights(highlights: readonly ForeignHighlight[]): Promise<Imported> {
  const { store } = useAccount.getState();
  const items = (await store?.items.toArray())?.filter((item) => item.capture.duplicateOf === null) ?? [];
  const find = finderOf(items);
  const undo: (() => Promise<unknown>)[] = [];
  const brought = { matched: 0, saved: 0, noted: 0 };
  for (const highlight of highlights) {
    let itemId = find(highlight)?.id;
    if (itemId) brought.matched += 1;
    else {
      const reading = highlight.address ? readAddress(highlight.address) : null;
      if (reading?.ok) {
        const outcome = await saveAddress(reading, useSavingSettings.getState().howMuch);
        if (outcome.kind === 'already-saved') {
          itemId = outcome.item.id;
          brought.matched += 1;
        } else {
          const savedId = outcome.itemId;
          itemId = savedId;
          undo.push(() => choose(savedId, { stage: 'let-go' }));
          brought.saved += 1;
        }
      }
    }
    if (itemId) {
      const markId = await addHighlight(itemId, highlight.kind, passageOf(highlight), madeAt(highlight));
      undo.push(() => changeHighlight(markId, { removed: true }));
      if (highlight.note !== '') {
        const subject = ownNote.ofHighlight({ id: markId, itemId });
        const note = await writeOwnNote(subject, null, highlight.note);
        if (note) undo.push(() => changeNote(note, { removed: true }));
      }
    } else {
      const noteId = await writeNote(
        { itemId: null, on: { kind: 'nothing' } },
        { text: asNote(highlight) },
        madeAt(highlight),
      );
      undo.push(async () => {
        const note = await store?.notes.get(noteId);
        if (note) await changeNote(note, { removed: true });
      });
      brought.noted += 1;
    }
  }
  return {
    ...brought,
    async takeBack() {
      for (const step of undo.reverse()) await step();
    },
  };
}

/** Finds the item that a highlight belongs to: by its address, else by a title that only one item has. */
function finderOf(items: readonly Item[]): (highlight: ForeignHighlight) => Item | undefined {
  const byAddress = new Map(items.map((item) => [item.capture.addressKey, item]));
  const byTitle = new Map<string, Item | null>();
  for (const item of items) {
    const title = titleKey(titleOf(item));
    byTitle.set(title, byTitle.has(title) ? null : item);
  }
  return ({ address, title }) => {
    const reading = address ? readAddress(address) : null;
    const atAddress = reading?.ok ? byAddress.get(canonicalAddress(reading.address)) : undefined;
    // E-book readers write the author behind the title.
    const titles = title ? [title, title.replace(/\s*\([^()]*\)$/, '')] : [];
    return atAddress ?? titles.map((each) => byTitle.get(titleKey(each))).find(Boolean) ?? undefined;
  };
}

function passageOf({ quotation, prefix, suffix }: ForeignHighlight): MarkedPassage {
  return {
    exact: quotation,
    prefix: prefix.slice(-CONTEXT_LENGTH),
    suffix: suffix.slice(0, CONTEXT_LENGTH),
    start: null,
    copyId: null,
  };
}

/** A day that is still to come is a slip of some clock. */
const madeAt = (highlight: ForeignHighlight): number | undefined =>
  highlight.madeAt !== null && highlight.madeAt <= Date.now() ? highlight.madeAt : undefined;

function asNote({ quotation, note, title, place }: ForeignHighlight): string {
  const quoted = quotation
    .split('\n')
    .map((line) => `> ${line}`)
    .join('\n');
  return [quoted, [title, place].filter(Boolean).join(', '), note].filter(Boolean).join('\n\n');
}

const titleKey = (words: string): string =>
  words
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
    .toLowerCase();

/** What happened, in words. */
export function importedInWords(
  { matched, saved, noted }: Omit<Imported, 'takeBack'>,
  faults: readonly string[],
): string {
  const parts = [
    matched > 0 && `${matched} placed on items that you have`,
    saved > 0 && `${saved} on pages that are saved for it`,
    noted > 0 && `${noted} kept as notes, since they name no page`,
  ].filter(Boolean);
  const done = parts.length > 0 ? `${parts.join(', ')}.` : 'Nothing was brought in.';
  return faults.length > 0 ? `${done} Left out: ${faults.slice(0, 3).join(' ')}` : done;
}
