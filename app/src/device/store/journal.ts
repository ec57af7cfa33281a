import { asChangesNow, Mutation } from '@dorvel/core/records';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';

const UNWRITTEN = 'dorvel.unwritten.';
const UNSENT = 'dorvel.unsent.';
/** Longer ones are texts given by hand; the room there is has to do for all. */
const LONGEST = 200_000;
/** So many are kept until they are sent, and none longer: together they take less than half the room, and settings need some, too. */
const MOST_UNSENT = 500;
const LONGEST_UNSENT = 4000;

/** Changes that were noted down. */
interface Noted {
  /** They are in the store now: they stay noted until they are sent, since a store can be lost. */
  written(): void;
  /** They need not be kept here any longer. */
  done(): void;
}

/** Changes that were made together. */
export interface JournalEntry extends Noted {
  changes: readonly Mutation[];
}

/**
 * Notes changes down at once, before they are on their way into the device's store: a page can be closed before that has
 * ended, and then the store has none of it.
 */
export function journalChanges(accountId: string, changes: readonly Mutation[]): Noted {
  const [first] = changes;
  const written = JSON.stringify(changes);
  if (!first || written.length > LONGEST) return { written: () => {}, done: () => {} };
  const key = `${accountId}.${first.id}`;
  note(UNWRITTEN + key, written);
  return noted(key);
}

function noted(key: string): Noted {
  return {
    written() {
      const changes = localStorage.getItem(UNWRITTEN + key);
      const isShort = changes !== null && changes.length <= LONGEST_UNSENT;
      if (isShort && namesOf(UNSENT).length < MOST_UNSENT) note(UNSENT + key, changes);
      localStorage.removeItem(UNWRITTEN + key);
    },
    done() {
      localStorage.removeItem(UNWRITTEN + key);
      localStorage.removeItem(UNSENT + key);
    },
  };
}

function note(name: string, changes: string): void {
  try {
    localStorage.setItem(name, changes);
  } catch (error) {
    // No room: the change is made all the same, only without a net.
    if (!(error instanceof DOMException)) throw error;
  }
}

const namesOf = (prefix: string) => Object.keys(localStorage).filter((name) => name.startsWith(prefix));

function entriesOf(prefix: string, accountId: string): JournalEntry[] {
  return namesOf(`${prefix}${accountId}.`)
    .sort()
    .map((name) => ({
      changes: changesIn(localStorage.getItem(name) ?? ''),
      ...noted(name.slice(prefix.length)),
    }));
}

/** What was noted down and never came into the store, in the order in which it was made. */
export const journalledChanges = (accountId: string) => entriesOf(UNWRITTEN, accountId);

/** What came into the store, and was not sent yet as far as is known here, in the order in which it was made. */
export const unsentChanges = (accountId: string) => entriesOf(UNSENT, accountId);

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
