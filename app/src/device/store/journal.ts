import { asChangesNow, Mutation } from '@dorvel/core/records';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';

const PREFIX = 'dorvel.unwritten.';
/** Longer ones are texts given by hand; the room there is has to do for all. */
const LONGEST = 200_000;

/**
 * Notes changes down at once, before they are on their way into the device's store: a page can be closed before that has
 * ended, and then the store has none of it.
 *
 * @returns what to call when they are in the store
 */
export function journalChanges(accountId: string, changes: readonly Mutation[]): () => void {
  const [first] = changes;
  const written = JSON.stringify(changes);
  if (!first || written.length > LONGEST) return () => {};
  const name = `${PREFIX}${accountId}.${first.id}`;
  try {
    localStorage.setItem(name, written);
  } catch (error) {
    // No room: the change is made all the same, only without a net.
    if (!(error instanceof DOMException)) throw error;
  }
  return () => localStorage.removeItem(name);
}

/** Changes that were made together, and what to call when they need not be kept here any longer. */
interface JournalEntry {
  changes: readonly Mutation[];
  done(): void;
}

/** What was noted down and never came into the store, in the order in which it was made. */
export function journalledChanges(accountId: string): JournalEntry[] {
  return Object.keys(localStorage)
    .filter((name) => name.startsWith(`${PREFIX}${accountId}.`))
    .sort()
    .map((name) => ({
      changes: changesIn(localStorage.getItem(name) ?? ''),
      done: () => localStorage.removeItem(name),
    }));
}

function changesIn(written: string): Mutation[] {
  const changes = z.array(z.unknown()).safeParse(fromJson(written)).data ?? [];
  return z.array(Mutation).safeParse(changes.flatMap((each) => asChangesNow(each, uuidv7))).data ?? [];
}

function fromJson(written: string): unknown {
  try {
    return JSON.parse(written);
  } catch {
    // Cut off, or written by nobody we know: no change can be read from it.
    return null;
  }
}
