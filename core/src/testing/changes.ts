import fc from 'fast-check';
import { EVERY_DEVICE, HighlightKind, PictureKind, placeOfWord, spanOf, Stage } from '../model';
import type { Change } from '../records';
import { createClock } from '../sync';

/** A change without its id and stamp. */
export type Draft = Omit<Change, 'id' | 'stamp'>;

/** The nth id of a series: the same in every run. */
export const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;

/** When the clocks of those who make changes begin. */
export const FIRST_INSTANT = 1_790_000_000_000;
const words = fc.constantFrom('eelgrass', 'boats', 'larch or oak', '');
const day = fc.constantFrom('2026-11-27', '2026-12-24', null);
const instant = fc.integer({ min: 1, max: 9 });
const passage = { exact: 'eelgrass', prefix: '', suffix: '', start: 4, copyId: null };
const place = (fraction: number) => ({
  block: 0,
  char: 0,
  offset: Math.round(fraction * 1000),
  quote: '',
  before: '',
  fraction,
});
/** What a writer had seen: all, nothing, or all up to an instant. Whoever has seen a version has seen what its writer had. */
const seen = fc.oneof(
  fc.constantFrom({}, { sees: {} }),
  fc.nat(30).map((n) => ({ sees: { [EVERY_DEVICE]: createClock('a', () => FIRST_INSTANT + 3 * n).next() } })),
);
/** Some of the fields, at least one. */
const some = <Fields extends object>(fields: { [Field in keyof Fields]: fc.Arbitrary<Fields[Field]> }) =>
  fc.record(fields, { requiredKeys: [] }).filter((set) => Object.keys(set).length > 0);

/** For each kind of record, by its name: what makes the nth one, and what may be changed about it. */
export const DRAFTS: Readonly<Record<string, (n: number) => { makes: Draft; changes: fc.Arbitrary<Draft> }>> = {
  item: (n) => {
    const itemId = uuid(n);
    return {
      makes: { type: 'save', itemId, address: `https://x.example/${n}`, savedAt: n } as Draft,
      changes: fc.oneof(
        some({
          stage: fc.constantFrom(...Stage.options),
          queueRank: instant,
          comeBackOn: day,
          finishedAt: fc.option(instant),
          kindSaid: fc.option(fc.constantFrom(...PictureKind.options)),
          typed: fc.option(fc.constantFrom('No boat', 'Ask at the loft')),
          place: fc.option(fc.constantFrom({ latitude: 58.981, longitude: -2.96, within: 20 })),
        }).map((set) => ({ type: 'choose', itemId, set })),
        fc
          .tuple(fc.constantFrom('sea', 'boats/repair', 'constructor', 'hasownproperty'), fc.boolean())
          .map(([tag, isOn]) => ({ type: 'tag', itemId, set: { [tag]: isOn ? tag : null } })),
        fc.tuple(fc.nat(2), fc.constantFrom('loft', '')).map(([at, is]) => ({
          type: 'put-right',
          itemId,
          set: { [placeOfWord('a'.repeat(64), at)]: { was: 'l0ft', is } },
        })),
        fc.tuple(fc.nat(10), fc.nat(10), fc.nat(10)).map(([furthest, from, to]) => ({
          type: 'progress',
          itemId,
          furthest: furthest / 10,
          heard: spanOf(from / 10, to / 10),
          position: place(furthest / 10),
        })),
      ),
    };
  },
  activity: (n) => {
    const activity = { id: uuid(90 + n), itemId: uuid(n), startedAt: 1, day: '2026-11-27', by: 'eyes' };
    const lasting = (seconds: number, passed: number) => ({
      type: 'activity',
      itemId: uuid(n),
      activity: { ...activity, seconds, words: passed },
    });
    return {
      makes: lasting(1, 3),
      changes: fc.tuple(fc.nat(90), fc.nat(90)).map(([s, w]) => lasting(s, w)),
    };
  },
  feed: (n) => {
    const feedId = uuid(20 + n);
    return {
      makes: { type: 'follow', feedId, address: `https://x.example/feed${n}`, followedAt: n } as Draft,
      changes: some({
        following: fc.boolean(),
        tag: fc.constantFrom('sea', null),
        seenUntil: instant,
        mode: fc.constantFrom('choose', 'save-all'),
      }).map((set) => ({ type: 'feed', feedId, set })),
    };
  },
  highlight: (n) => {
    const about = { itemId: uuid(n), highlightId: uuid(30 + n) };
    return {
      makes: { ...about, type: 'mark', madeAt: n, kind: 'key', passage } as Draft,
      changes: some({
        kind: fc.constantFrom(...HighlightKind.options),
        removed: fc.boolean(),
      }).map((set) => ({ ...about, type: 'change-mark', set })),
    };
  },
  search: (n) => {
    const about = { type: 'search', searchId: uuid(40 + n), madeAt: n };
    const set = (written: string, removed: boolean) => ({
      ...about,
      set: { written, scope: 'all', removed },
    });
    return {
      makes: set('tides', false),
      changes: fc.tuple(fc.constantFrom('tides', 'nets'), fc.boolean()).map(([w, removed]) => set(w, removed)),
    };
  },
  note: (n) => {
    const about = { type: 'write', noteId: uuid(50 + n), madeAt: n, noteItemId: null, on: null };
    return {
      makes: { ...about, set: { text: 'first' } } as Draft,
      changes: fc
        .tuple(
          some({
            text: words,
            task: fc.constantFrom('none', 'open', 'done'),
            dueOn: day,
            removed: fc.boolean(),
          }),
          seen,
        )
        .map(([set, sees]) => ({ ...about, set, ...sees })),
    };
  },
  card: (n) => {
    const about = { type: 'card', cardId: uuid(60 + n), madeAt: n, source: null };
    return {
      makes: { ...about, set: { front: 'q', back: 'a' } } as Draft,
      changes: fc.oneof(
        some({ front: words, paused: fc.boolean(), removed: fc.boolean() }).map((set) => ({
          ...about,
          set,
        })),
        fc.tuple(fc.nat(3), fc.boolean()).map(([m, undone]) => ({
          type: 'recall',
          cardId: uuid(60 + n),
          recall: { id: uuid(70 + m), gap: 0, at: m, grade: 3, undone },
        })),
      ),
    };
  },
  silence: (n) => {
    const about = { type: 'silence', silenceId: uuid(45 + n), madeAt: n };
    const what = n % 2 === 0 ? { kind: 'first-steps' } : { kind: 'term', key: 'old engin', form: 'old engine' };
    return {
      makes: { ...about, what, silenced: true },
      changes: fc.boolean().map((silenced) => ({ ...about, what, silenced })),
    };
  },
  pin: (n) => {
    const about = { type: 'pin', pinId: uuid(80 + n), madeAt: n, of: 'item' };
    return { makes: { ...about, pinned: true }, changes: fc.boolean().map((pinned) => ({ ...about, pinned })) };
  },
  dossier: (n) => {
    const about = { type: 'dossier', dossierId: uuid(85 + n), madeAt: n, columns: {} };
    const column = fc.record({ title: fc.constantFrom('Draught', null), hidden: fc.boolean() });
    return {
      makes: { ...about, set: { title: 'Engines' } } as Draft,
      changes: fc.oneof(
        some({
          title: fc.constantFrom('Boats', 'Engines'),
          introduction: words,
          closing: words,
          design: fc.constantFrom('quiet', 'report'),
          removed: fc.boolean(),
        }).map((set) => ({ ...about, set })),
        some({ price: column, 'own-1': column }).map((columns) => ({ ...about, set: {}, columns })),
      ),
    };
  },
  entry: (n) => {
    const part = { kind: 'item', itemId: uuid(n) };
    const about = { type: 'entry', entryId: uuid(95 + n), dossierId: uuid(86), madeAt: n, part, cells: {} };
    const cell = fc.constantFrom('12', null);
    return {
      makes: { ...about, set: { rank: 'a1' } } as Draft,
      changes: fc.oneof(
        some({
          rank: fc.constantFrom('a0', 'a0V', 'a2'),
          text: words,
          purpose: fc.constantFrom('question', 'summary'),
          nested: fc.boolean(),
          removed: fc.boolean(),
        }).map((set) => ({ ...about, set })),
        some({ price: cell, 'own-1': cell }).map((cells) => ({ ...about, set: {}, cells })),
      ),
    };
  },
};

/** Any change to one of three records of any kind; the first ones make them. */
export const anyChange: fc.Arbitrary<Draft> = fc.oneof(
  ...Object.values(DRAFTS).flatMap((of) =>
    [1, 2, 3].map((n) => {
      const { makes, changes } = of(n);
      return fc.oneof(fc.constant(makes), changes);
    }),
  ),
);
