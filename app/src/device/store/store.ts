import {
  type Activity,
  type Card,
  type Copy,
  type Dossier,
  type DossierEntry,
  type Feed,
  type Highlight,
  type Item,
  LAST_INSTANT,
  NEVER,
  Note,
  type Pin,
  type SavedSearch,
  type Silence,
  withWordRegisters,
  withWordsApart,
} from '@dorvel/core/model';
import {
  apartFromNote,
  asChangesNow,
  type Change,
  itemKind,
  type Kind,
  type Mutation,
  type Records,
  REGISTRY,
  type Registry,
  type Stored,
} from '@dorvel/core/records';
import type { FieldTerms } from '@dorvel/core/search';
import { restamped } from '@dorvel/core/sync';
import type { TermProfile } from '@dorvel/core/terms';
import Dexie, { type Table, type Transaction } from 'dexie';
import { v7 as uuidv7 } from 'uuid';

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

/** A change that the server does not have yet. */
export interface Unsent {
  /** Order in which the changes were made. */
  place?: number;
  /** The record that it is about. */
  recordId: string;
  mutation: Mutation;
}

/** A change that the server would not take. It is kept, so that nothing is lost and nothing waits for it. */
export interface SetAside {
  /** The change's own. */
  id: string;
  recordId: string;
  mutation: Mutation;
  /** Why, in the server's words. */
  says: string;
  at: number;
}

/** The kinds of record that stores had when they began to remember which they have. */
const FIRST_KINDS = 'item 2, activity 1, feed 2, highlight 1, search 1, note 1, card 1';
const FIRST_KIND_COUNT = 7;
const FIRST_VERSION = 11;
/** When items got an index by the time of their saving: between the versions that kinds of records have brought. */
const SAVED_AT_VERSION = 15.1;

const NAMED_AT_ONCE = 50;

const UNTOUCHED = { value: null, at: NEVER };
const LATER_FIELDS: Partial<Item> = { putRight: {} };
const LATER_CHOICES = { kindSaid: UNTOUCHED, typed: UNTOUCHED, place: UNTOUCHED };

/** Items that this device has from before pictures were looked at, words put right one by one, or places kept, as they are now. */
function withLaterFields(item: Item | undefined): Item | undefined {
  // eslint-disable-next-line @typescript-eslint/no-unnecessary-condition -- see above; what is not here has none either
  if (item?.choices.place !== undefined || !item) return item;
  const known = withWordRegisters(item) as Item;
  const { page } = known.capture;
  return {
    ...LATER_FIELDS,
    ...known,
    choices: { ...LATER_CHOICES, ...known.choices },
    capture: page ? { ...known.capture, page: { ...{ pictures: [], icon: null }, ...page } } : known.capture,
  };
}

/**
 * What is on this device, for one account: the app reads from here and only from here. Every change is applied
 * here at once and waits in the outbox until the server has it.
 */
export class DeviceStore extends Dexie {
  items!: Table<Item, string>;
  copies!: Table<KeptCopy, string>;
  outbox!: Table<Unsent, number>;
  aside!: Table<SetAside, string>;
  /** About this store itself: how far it has pulled, and what. */
  meta!: Table<{ name: string; value: string | number }, string>;
  activities!: Table<Activity, string>;
  /** What the copies here speak of, made by the worker that relates them. */
  profiles!: Table<KeptProfile, string>;
  /** The words of the items here, made by the worker that finds. */
  findables!: Table<KeptTerms, string>;
  feeds!: Table<Feed, string>;
  highlights!: Table<Highlight, string>;
  searches!: Table<SavedSearch, string>;
  notes!: Table<Note, string>;
  cards!: Table<Card, string>;
  silences!: Table<Silence, string>;
  pins!: Table<Pin, string>;
  dossiers!: Table<Dossier, string>;
  entries!: Table<DossierEntry, string>;
  /** Items in memory as they were read or written last, so that one can be opened without waiting. */
  readonly itemsAtHand = new Map<string, Item>();
  #areAllAtHand = false;
  readonly #registry: Registry;

  constructor(accountId: string, registry = REGISTRY) {
    super(`dorvel-${accountId}`);
    this.#registry = registry;
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
    this.version(9)
      .stores({ outbox: '++place, recordId', meta: 'name', copies: 'id, itemId, textOnly, bytes' })
      .upgrade(async (upgrading) => {
        const meta = upgrading.table('meta');
        await meta.bulkPut(await upgrading.table('marks').toArray());
        await meta.put({ name: 'kinds', value: FIRST_KINDS });
        // As this version has them: they are used as they are read.
        for (const { plural, schema } of REGISTRY.kinds.slice(0, FIRST_KIND_COUNT))
          await upgrading
            .table(plural)
            .toCollection()
            .modify((record, at: { value: unknown }) => {
              const parsed = schema.safeParse(record);
              if (parsed.success) at.value = parsed.data;
            });
        for (const name of ['outbox', 'aside'])
          await upgrading
            .table<Unsent & { itemId?: string }>(name)
            .toCollection()
            .modify((row) => {
              row.recordId = REGISTRY.of(row.mutation).idOf(row.mutation);
              delete row.itemId;
            });
      });
    this.version(10).stores({ marks: null });
    this.version(FIRST_VERSION)
      .stores({ notes: 'id, itemId' })
      .upgrade((upgrading) => setNotesApart(upgrading));
    // Each kind that came later has a table of its own, and the store a version with it.
    registry.kinds.slice(FIRST_KIND_COUNT).forEach(({ plural }, n) => {
      this.version(FIRST_VERSION + 1 + n).stores({ [plural]: 'id' });
    });
    this.version(SAVED_AT_VERSION).stores({ items: 'id, capture.addressKey, choices.stage.value, savedAt' });
    this.items.hook('reading', withLaterFields);
    this.dossiers.hook('reading', (dossier) => withWordsApart(dossier) as Dossier);
  }

  /**
   * Has these items in memory, and no others.
   *
   * @param areAll whether they are all there are
   * @param changed ids of those that are not as they were laid at hand last; null when that may be any
   */
  layAtHand(items: ReadonlyMap<string, Item>, areAll: boolean, changed: ReadonlySet<string> | null = null): void {
    if (!changed) for (const id of this.itemsAtHand.keys()) if (!items.has(id)) this.itemsAtHand.delete(id);
    for (const id of (changed ?? items).keys()) {
      const item = items.get(id);
      if (item) this.itemsAtHand.set(id, item);
      else this.itemsAtHand.delete(id);
    }
    this.#areAllAtHand = areAll;
  }

  /** All items: from memory where they are there already, for reading thousands of them holds up the page. */
  async allItems(): Promise<Item[]> {
    return this.#areAllAtHand ? [...this.itemsAtHand.values()] : this.items.toArray();
  }

  /** What is marked in an item. */
  async highlightsOf(itemId: string): Promise<Highlight[]> {
    const all = await this.highlights.where('itemId').equals(itemId).toArray();
    return all.filter(({ choices }) => !choices.removed.value);
  }

  /** The records of a kind. */
  records(kind: Kind): Table<Stored, string> {
    return this.table(kind.plural);
  }

  /** The tables that changes are made in. */
  #changing() {
    return [...this.#registry.kinds.map((kind) => this.records(kind)), this.outbox, this.aside, this.meta];
  }

  /** Applies a change and puts it in the outbox, both or neither. @throws Error when it is about a record that is not here */
  async commit(mutation: Mutation): Promise<void> {
    await this.transaction('rw', this.#changing(), async () => {
      const kind = this.#registry.of(mutation);
      const recordId = kind.idOf(mutation);
      const changed = kind.apply(await this.records(kind).get(recordId), mutation);
      if (!changed) throw new Error(`no ${kind.name} ${recordId} on this device`);
      await this.#put(kind, changed);
      const toSend = await this.#withUnsent(kind, recordId, mutation);
      await this.outbox.add({ recordId, mutation: toSend as Mutation });
    });
  }

  /** The same for many changes at once: all of them or none. */
  async commitAll(mutations: readonly Mutation[]): Promise<void> {
    await this.transaction('rw', this.#changing(), async () => {
      for (const mutation of mutations) await this.commit(mutation);
    });
  }

  async #put(kind: Kind, ...records: readonly Stored[]): Promise<void> {
    // Of more than so many at once Dexie no longer says which they were, and all would be read again.
    for (let at = 0; at < records.length; at += NAMED_AT_ONCE)
      await this.records(kind).bulkPut(records.slice(at, at + NAMED_AT_ONCE));
    if (kind.name !== itemKind.name) return;
    // Not before it is written: what is undone with its transaction was never there.
    let whole = Dexie.currentTransaction;
    while (whole.parent) whole = whole.parent;
    whole.on('complete', () => {
      for (const record of records) this.itemsAtHand.set(record.id, record as Item);
    });
  }

  /** A change that stands for those before it that were never sent, which leave the outbox. */
  async #withUnsent(kind: Kind, recordId: string, mutation: Change): Promise<Change> {
    if (!kind.combine) return mutation;
    let combined = mutation;
    const replaced: number[] = [];
    for (const { place, mutation: earlier } of await this.outbox.where('recordId').equals(recordId).toArray()) {
      if (this.#registry.of(earlier) !== kind) continue;
      const both = kind.combine(earlier, combined);
      if (both === null || place === undefined) continue;
      combined = both;
      replaced.push(place);
    }
    await this.outbox.bulkDelete(replaced);
    return combined;
  }

  /**
   * Takes in what the server sent.
   *
   * @returns ids of items that turned out to stand for others which were saved on this device
   */
  async receive({ records, cursor }: { records: Partial<Records>; cursor: number }): Promise<string[]> {
    return this.transaction('rw', this.#changing(), async () => {
      const canonicalIds: string[] = [];
      for (const kind of this.#registry.kinds) {
        const sent = records[kind.plural] ?? [];
        const known = await this.records(kind).bulkGet(sent.map(({ id }) => id));
        const merged = sent.map((record, n) => {
          const before = known[n];
          const standsFor = duplicateOfRecord(kind, record);
          if (before && standsFor && !duplicateOfRecord(kind, before)) canonicalIds.push(standsFor);
          return before ? mergedWith(kind, before, record) : record;
        });
        await this.#put(kind, ...merged);
      }
      await this.meta.bulkPut([
        { name: 'cursor', value: cursor },
        { name: 'kinds', value: this.#registry.fingerprint },
      ]);
      return canonicalIds;
    });
  }

  /** Takes a change out of the outbox and sets it aside, with the reason. */
  async setAside({ recordId, mutation, place }: Unsent, says: string, at: number): Promise<void> {
    await this.transaction('rw', [this.outbox, this.aside], async () => {
      await this.aside.put({ id: mutation.id, recordId, mutation, says, at });
      if (place !== undefined) await this.outbox.delete(place);
    });
  }

  /** Has a change that was set aside sent once more. */
  async sendAgain({ id, recordId, mutation }: SetAside): Promise<void> {
    await this.transaction('rw', [this.outbox, this.aside], async () => {
      await this.outbox.add({ recordId, mutation });
      await this.aside.delete(id);
    });
  }

  /** What the server took as of another stamp has that stamp here too, or it would win here and lose there. */
  async restamp(mutation: Mutation, stamp: string): Promise<void> {
    const kind = this.#registry.of(mutation);
    await this.transaction('rw', this.#changing(), async () => {
      const record = await this.records(kind).get(kind.idOf(mutation));
      if (record) await this.#put(kind, restamped(record, mutation.stamp, stamp));
    });
  }

  /** All that is here, for a server that was set back and has forgotten some of it. */
  async everything(): Promise<Records> {
    const all = this.#registry.kinds.map(async (kind) => [kind.plural, await this.records(kind).toArray()] as const);
    return Object.fromEntries(await Promise.all(all)) as unknown as Records;
  }

  /** Puts changes that are part of the state here already behind those that wait to be sent. */
  async sendAfterwards(mutations: readonly Mutation[]): Promise<void> {
    await this.outbox.bulkAdd(
      mutations.map((mutation) => ({ recordId: this.#registry.of(mutation).idOf(mutation), mutation })),
    );
  }

  async epoch(): Promise<string | null> {
    const known = await this.meta.get('epoch');
    return typeof known?.value === 'string' ? known.value : null;
  }

  /** Where to go on pulling. At the beginning, when what was pulled so far was pulled without kinds of record that there are. */
  async cursor(): Promise<number> {
    const [cursor, kinds] = await this.meta.bulkGet(['cursor', 'kinds']);
    return typeof cursor?.value === 'number' && kinds?.value === this.#registry.fingerprint ? cursor.value : 0;
  }
}

/** Makes records of the notes that items and highlights had within them, and the changes that they are now of those that wait. */
async function setNotesApart(upgrading: Transaction): Promise<void> {
  const notes = upgrading.table<Note>('notes');
  const found: Note[] = [];
  await notes.toCollection().modify((record, at: { value: unknown }) => {
    at.value = Note.safeParse(record).data ?? record;
  });
  for (const name of ['items', 'highlights'])
    await upgrading
      .table(name)
      .toCollection()
      .modify((record, at: { value: unknown }) => {
        const { record: without, note } = apartFromNote(record);
        at.value = without;
        if (note) found.push(note);
      });
  await notes.bulkPut(found);
  for (const name of ['outbox', 'aside']) {
    const table = upgrading.table<Unsent & { id?: string }>(name);
    for (const row of await table.toArray()) {
      const [last, ...before] = (asChangesNow(row.mutation, uuidv7) as Mutation[]).reverse();
      if (!last || last === row.mutation) continue;
      const rowFor = (mutation: Mutation) => ({ mutation, recordId: REGISTRY.of(mutation).idOf(mutation) });
      await table.put({ ...row, ...rowFor(last) });
      const { place: _own, ...rest } = row;
      for (const mutation of before)
        await table.add({
          ...rest,
          ...rowFor(mutation),
          ...(row.id === undefined ? {} : { id: mutation.id }),
        });
    }
  }
}

/** Two states of a record joined; to which item it belongs, the server knows. */
function mergedWith(kind: Kind, here: Stored, sent: Stored): Stored {
  const merged = kind.merge(here, sent);
  const itemId = kind.itemIdOf(sent);
  return kind.movedTo && itemId !== null ? kind.movedTo(merged, itemId) : merged;
}

function duplicateOfRecord(kind: Kind, record: Stored): string | null {
  return kind.name === itemKind.name ? (record as Item).capture.duplicateOf : null;
}
