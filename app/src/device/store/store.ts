import {
  applyCardMutation,
  applyFeedMutation,
  applyHighlightMutation,
  applyMutation,
  applyNoteMutation,
  applySearchMutation,
  mergeActivities,
  restamped,
  mergeCards,
  mergeFeeds,
  mergeHighlights,
  mergeItems,
  mergeNotes,
  mergeSearches,
  type KnownRecords,
} from '@dorvel/core/sync';
import {
  joinSpans,
  LAST_INSTANT,
  subjectOf,
  type Activity,
  type Card,
  type Copy,
  type Feed,
  type Highlight,
  type Item,
  type Mutation,
  type SavedSearch,
  type WrittenNote,
} from '@dorvel/core/model';
import type { FieldTerms } from '@dorvel/core/search';
import type { TermProfile } from '@dorvel/core/terms';
import Dexie, { type Table } from 'dexie';

/** A copy on this device, with the room it takes. */
export interface KeptCopy extends Copy {
  /** Of the text and its pictures. */
  bytes: number;
  /** The pictures that are here too. */
  pictures: string[];
  /** True when only the text was brought ahead; the pictures come when it is opened. */
  textOnly?: 1;
}

interface KeptProfile {
  copyId: string;
  version: number;
  profile: TermProfile;
}

/** An item's terms, as the worker that finds has them. */
interface KeptTerms {
  itemId: string;
  /** Of what they were made. */
  key: string;
  fields: FieldTerms;
}

export interface Waiting {
  /** Order in which the changes were made. */
  place?: number;
  /** What the change is about: an item, or a feed. */
  itemId: string;
  mutation: Mutation;
}

/** A change that the server would not take. It is kept, so that nothing is lost and nothing waits for it. */
export interface SetAside {
  /** The change's own. */
  id: string;
  itemId: string;
  mutation: Mutation;
  /** Why, in the server's words. */
  says: string;
  at: number;
}

/** What the server sent, up to a cursor to go on from. */
interface Received extends KnownRecords {
  cursor: number;
}

/**
 * What is on this device, for one account: the app reads from here and only from here. Every change is applied
 * here at once and waits in the outbox until the server has it.
 */
export class DeviceStore extends Dexie {
  items!: Table<Item, string>;
  copies!: Table<KeptCopy, string>;
  outbox!: Table<Waiting, number>;
  aside!: Table<SetAside, string>;
  marks!: Table<{ name: string; value: string | number }, string>;
  activities!: Table<Activity, string>;
  /** What the copies here speak of, made by the worker that relates them. */
  profiles!: Table<KeptProfile, string>;
  /** The words of the items here, made by the worker that finds. */
  findables!: Table<KeptTerms, string>;
  feeds!: Table<Feed, string>;
  highlights!: Table<Highlight, string>;
  searches!: Table<SavedSearch, string>;
  notes!: Table<WrittenNote, string>;
  cards!: Table<Card, string>;
  /** Items in memory as they were read or written last, so that one can be opened without waiting. */
  readonly itemsAtHand = new Map<string, Item>();

  constructor(accountId: string) {
    super(`dorvel-${accountId}`);
    this.version(1).stores({ items: 'id', copies: 'id, itemId', outbox: '++place, itemId', marks: 'name' });
    this.version(2).stores({ copies: 'id, itemId, textOnly', activities: 'id', profiles: 'copyId' });
    this.version(3).stores({ findables: 'itemId' });
    this.version(4).stores({ feeds: 'id' });
    this.version(5).stores({ highlights: 'id, itemId', searches: 'id' });
    this.version(6).stores({ notes: 'id, itemId', cards: 'id, source.itemId' });
    this.version(7).stores({ items: 'id, capture.addressKey, choices.stage.value' });
    this.version(8)
      .stores({ aside: 'id' })
      // Instants that no calendar has were taken once, and no list can show them.
      .upgrade(async (upgrading) => {
        const real = (instant: number) => Math.min(instant, LAST_INSTANT);
        await upgrading
          .table<Item>('items')
          .toCollection()
          .modify((item) => {
            const { raisedAt, finishedAt } = item.choices;
            item.savedAt = real(item.savedAt);
            raisedAt.value = real(raisedAt.value);
            if (finishedAt.value !== null) finishedAt.value = real(finishedAt.value);
          });
      });
  }

  /** The tables that changes are made in. */
  #changing() {
    return [
      this.items,
      this.activities,
      this.feeds,
      this.highlights,
      this.searches,
      this.notes,
      this.cards,
      this.outbox,
      this.aside,
      this.marks,
    ];
  }

  /** Applies a change and puts it in the outbox, both or neither. */
  async commit(mutation: Mutation): Promise<void> {
    await this.transaction('rw', this.#changing(), async () => {
      if (mutation.type === 'activity') await this.#putActivity(mutation.activity);
      else if ('feedId' in mutation) {
        const changed = applyFeedMutation(await this.feeds.get(mutation.feedId), mutation);
        if (!changed) throw new Error(`no feed ${mutation.feedId} on this device`);
        await this.feeds.put(changed);
      } else if ('highlightId' in mutation) {
        const known = await this.highlights.get(mutation.highlightId);
        const changed = applyHighlightMutation(known, mutation);
        if (!changed) throw new Error(`no highlight ${mutation.highlightId} on this device`);
        await this.highlights.put(changed);
      } else if ('searchId' in mutation) {
        await this.searches.put(applySearchMutation(await this.searches.get(mutation.searchId), mutation));
      } else if ('noteId' in mutation) {
        await this.notes.put(applyNoteMutation(await this.notes.get(mutation.noteId), mutation));
      } else if ('cardId' in mutation) {
        const changed = applyCardMutation(await this.cards.get(mutation.cardId), mutation);
        if (!changed) throw new Error(`no card ${mutation.cardId} on this device`);
        await this.cards.put(changed);
      } else {
        const changed = applyMutation(await this.items.get(mutation.itemId), mutation);
        if (!changed) throw new Error(`no item ${mutation.itemId} on this device`);
        await this.#putItem(changed);
      }
      const toSend = await this.#standingForEarlier(mutation);
      await this.outbox.add({ itemId: subjectOf(mutation), mutation: toSend });
    });
  }

  /** The same for many changes at once: all of them or none. */
  async commitAll(mutations: readonly Mutation[]): Promise<void> {
    await this.transaction('rw', this.#changing(), async () => {
      for (const mutation of mutations) await this.commit(mutation);
    });
  }

  async #putActivity(activity: Activity): Promise<void> {
    const known = await this.activities.get(activity.id);
    await this.activities.put(known ? mergeActivities(known, activity) : activity);
  }

  async #putItem(item: Item): Promise<void> {
    await this.items.put(item);
    // Not before it is written: what is undone with its transaction was never there.
    let whole = Dexie.currentTransaction;
    while (whole.parent) whole = whole.parent;
    whole.on('complete', () => void this.itemsAtHand.set(item.id, item));
  }

  /**
   * A later state stands for an earlier one that was never sent, which leaves the outbox: of a sitting, the longer;
   * of the progress in an item, the later place with all that was heard.
   */
  async #standingForEarlier(mutation: Mutation): Promise<Mutation> {
    if (mutation.type !== 'progress' && mutation.type !== 'activity') return mutation;
    const earlier = this.outbox
      .where('itemId')
      .equals(mutation.itemId)
      .and(({ mutation: other }) =>
        mutation.type === 'activity'
          ? other.type === 'activity' && other.activity.id === mutation.activity.id
          : other.type === 'progress',
      );
    let standing = mutation;
    await earlier.each(({ mutation: other }) => {
      if (standing.type === 'progress' && other.type === 'progress')
        standing = { ...standing, heard: joinSpans(standing.heard, other.heard) };
    });
    await earlier.delete();
    return standing;
  }

  /**
   * Takes in what the server sent; changes that still wait in the outbox are part of the local state already.
   *
   * @returns ids of the items that now stand for one that this device had as an item of its own
   */
  async receive(received: Received): Promise<string[]> {
    const { items, activities, feeds, highlights, searches, notes, cards, cursor } = received;
    return this.transaction('rw', this.#changing(), async () => {
      for (const activity of activities) await this.#putActivity(activity);
      for (const feed of feeds) {
        const known = await this.feeds.get(feed.id);
        await this.feeds.put(known ? mergeFeeds(known, feed) : feed);
      }
      for (const highlight of highlights) {
        const known = await this.highlights.get(highlight.id);
        const { itemId } = highlight;
        // The server knows which item stands for the page.
        await this.highlights.put(known ? { ...mergeHighlights(known, highlight), itemId } : highlight);
      }
      for (const search of searches) {
        const known = await this.searches.get(search.id);
        await this.searches.put(known ? mergeSearches(known, search) : search);
      }
      for (const note of notes) {
        const known = await this.notes.get(note.id);
        const { itemId } = note;
        await this.notes.put(known ? { ...mergeNotes(known, note), itemId } : note);
      }
      for (const card of cards) {
        const known = await this.cards.get(card.id);
        const { source } = card;
        await this.cards.put(known ? { ...mergeCards(known, card), source } : card);
      }
      const standing: string[] = [];
      for (const item of items) {
        const known = await this.items.get(item.id);
        await this.#putItem(known ? mergeItems(known, item) : item);
        if (known?.capture.sameAs === null && item.capture.sameAs) standing.push(item.capture.sameAs);
      }
      await this.marks.put({ name: 'cursor', value: cursor });
      return standing;
    });
  }

  /** Takes a change out of the outbox and sets it aside, with the reason. */
  async setAside(waiting: Waiting, says: string, at: number): Promise<void> {
    await this.transaction('rw', [this.outbox, this.aside], async () => {
      const { itemId, mutation, place } = waiting;
      await this.aside.put({ id: mutation.id, itemId, mutation, says, at });
      if (place !== undefined) await this.outbox.delete(place);
    });
  }

  /** Has a change that was set aside sent once more. */
  async sendAgain({ id, itemId, mutation }: SetAside): Promise<void> {
    await this.transaction('rw', [this.outbox, this.aside], async () => {
      await this.outbox.add({ itemId, mutation });
      await this.aside.delete(id);
    });
  }

  /** What the server took as of another stamp has that stamp here too, or it would win here and lose there. */
  async restamp(mutation: Mutation, stamp: string): Promise<void> {
    const [table, id] = this.#recordOf(mutation);
    await this.transaction('rw', this.#changing(), async () => {
      const record: unknown = await table.get(id);
      if (record === undefined) return;
      const changed = restamped(record, mutation.stamp, stamp);
      await table.put(changed);
      if (table === this.items) this.itemsAtHand.set(id, changed as Item);
    });
  }

  #recordOf(mutation: Mutation): [Table<unknown, string>, string] {
    const at = <Kind>(table: Table<Kind, string>, id: string) =>
      [table, id] as unknown as [Table<unknown, string>, string];
    if ('feedId' in mutation) return at(this.feeds, mutation.feedId);
    if ('highlightId' in mutation) return at(this.highlights, mutation.highlightId);
    if ('searchId' in mutation) return at(this.searches, mutation.searchId);
    if ('noteId' in mutation) return at(this.notes, mutation.noteId);
    if ('cardId' in mutation) return at(this.cards, mutation.cardId);
    return at(this.items, mutation.itemId);
  }

  /** All that is here, for a server that was set back and has forgotten some of it. */
  async everything(): Promise<KnownRecords> {
    const [items, activities, feeds, highlights, searches, notes, cards] = await Promise.all([
      this.items.toArray(),
      this.activities.toArray(),
      this.feeds.toArray(),
      this.highlights.toArray(),
      this.searches.toArray(),
      this.notes.toArray(),
      this.cards.toArray(),
    ]);
    return { items, activities, feeds, highlights, searches, notes, cards };
  }

  /** Puts changes that are part of the state here already behind those that wait to be sent. */
  async sendAfterwards(mutations: readonly Mutation[]): Promise<void> {
    await this.outbox.bulkAdd(mutations.map((mutation) => ({ itemId: subjectOf(mutation), mutation })));
  }

  async epoch(): Promise<string | null> {
    const mark = await this.marks.get('epoch');
    return typeof mark?.value === 'string' ? mark.value : null;
  }

  async cursor(): Promise<number> {
    const mark = await this.marks.get('cursor');
    return typeof mark?.value === 'number' ? mark.value : 0;
  }
}
