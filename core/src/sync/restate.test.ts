import fc from 'fast-check';
import type { Activity, Card, Feed, Highlight, Item, Mutation, SavedSearch, WrittenNote } from '../model';
import {
  applyCardMutation,
  applyFeedMutation,
  applyHighlightMutation,
  applyMutation,
  applyNoteMutation,
  applySearchMutation,
  createClock,
  restamped,
  restated,
  type KnownRecords,
} from '.';

const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;

/** A library as maps, to which changes are applied as a server does. */
function library() {
  const kinds = {
    items: new Map<string, Item>(),
    feeds: new Map<string, Feed>(),
    highlights: new Map<string, Highlight>(),
    searches: new Map<string, SavedSearch>(),
    notes: new Map<string, WrittenNote>(),
    cards: new Map<string, Card>(),
    activities: new Map<string, Activity>(),
  };
  function change<Kind>(
    into: Map<string, Kind>,
    id: string,
    make: (known: Kind | undefined) => Kind | undefined,
  ) {
    const made = make(into.get(id));
    if (made) into.set(id, made);
  }
  return {
    take(mutation: Mutation) {
      if (mutation.type === 'activity') kinds.activities.set(mutation.activity.id, mutation.activity);
      else if ('feedId' in mutation) change(kinds.feeds, mutation.feedId, (known) => applyFeedMutation(known, mutation));
      else if ('highlightId' in mutation) change(kinds.highlights, mutation.highlightId, (known) => applyHighlightMutation(known, mutation));
      else if ('searchId' in mutation) change(kinds.searches, mutation.searchId, (known) => applySearchMutation(known, mutation));
      else if ('noteId' in mutation) change(kinds.notes, mutation.noteId, (known) => applyNoteMutation(known, mutation));
      else if ('cardId' in mutation) change(kinds.cards, mutation.cardId, (known) => applyCardMutation(known, mutation));
      else change(kinds.items, mutation.itemId, (known) => applyMutation(known, mutation));
    }, // prettier-ignore
    known: (): KnownRecords => ({
      items: [...kinds.items.values()],
      feeds: [...kinds.feeds.values()],
      highlights: [...kinds.highlights.values()],
      searches: [...kinds.searches.values()],
      notes: [...kinds.notes.values()],
      cards: [...kinds.cards.values()],
      activities: [...kinds.activities.values()],
    }),
  };
}

const passage = { exact: 'eelgrass', prefix: '', suffix: '', start: 4, copyId: null };
const which = fc.integer({ min: 1, max: 3 });
/** A change without its id and stamp. */
const change = fc.oneof(
  which.map((n) => ({ type: 'save', itemId: uuid(n), address: `https://x.example/${n}`, savedAt: n, howMuch: 'words-only' })),
  fc.tuple(which, fc.constantFrom('kept', 'queue'), fc.boolean()).map(([n, stage, noted]) => ({ type: 'choose', itemId: uuid(n), set: noted ? { stage, note: 'mine' } : { stage } })),
  fc.tuple(which, fc.constantFrom('boats', 'sea'), fc.boolean()).map(([n, key, on]) => ({ type: 'tag', itemId: uuid(n), set: { [key]: on ? key : null } })),
  fc.tuple(which, fc.integer({ min: 0, max: 10 })).map(([n, tenth]) => ({ type: 'progress', itemId: uuid(n), furthest: tenth / 10, heard: [], position: { block: 0, char: 0, offset: 0, quote: '', before: '', fraction: tenth / 10 } })),
  which.map((n) => ({ type: 'activity', itemId: uuid(n), activity: { id: uuid(90 + n), itemId: uuid(n), startedAt: 1, day: '2026-11-27', by: 'eyes', seconds: 5, words: 9 } })),
  which.map((n) => ({ type: 'follow', feedId: uuid(20 + n), address: `https://x.example/feed${n}`, followedAt: n })),
  fc.tuple(which, fc.boolean()).map(([n, following]) => ({ type: 'feed', feedId: uuid(20 + n), set: { following, tag: 'sea' } })),
  which.map((n) => ({ type: 'mark', itemId: uuid(n), highlightId: uuid(30 + n), madeAt: n, kind: 'key', passage })),
  fc.tuple(which, fc.boolean()).map(([n, removed]) => ({ type: 'change-mark', itemId: uuid(n), highlightId: uuid(30 + n), set: { removed, note: 'why' } })),
  fc.tuple(which, fc.boolean()).map(([n, removed]) => ({ type: 'search', searchId: uuid(40 + n), madeAt: n, set: { written: 'tides', scope: 'all', removed } })),
  fc.tuple(which, fc.boolean()).map(([n, done]) => ({ type: 'write', noteId: uuid(50 + n), madeAt: n, noteItemId: null, on: null, set: done ? { task: 'done' } : { text: 'words' } })),
  which.map((n) => ({ type: 'card', cardId: uuid(60 + n), madeAt: n, source: null, set: { front: 'q', back: 'a' } })),
  fc.tuple(which, which).map(([n, m]) => ({ type: 'recall', cardId: uuid(60 + n), recall: { id: uuid(70 + m), gap: 0, at: m, grade: 3, undone: false } })),
); // prettier-ignore

describe('records as the changes that make them', () => {
  it('make the same records where there are none, and change nothing where they are', () => {
    fc.assert(
      fc.property(fc.array(change, { maxLength: 40 }), (changes) => {
        let now = 1_790_000_000_000;
        const clock = createClock('a', () => (now += 7));
        const device = library();
        let n = 1000;
        for (const each of changes) device.take({ ...each, id: uuid(n++), stamp: clock.next() } as Mutation);
        const server = library();
        const sent = restated(device.known(), () => uuid(n++));
        for (const each of sent) server.take(each);
        const sorted = (known: KnownRecords) =>
          Object.fromEntries(
            Object.entries(known).map(([kind, all]) => [
              kind,
              [...(all as { id: string }[])].sort((a, b) => (a.id < b.id ? -1 : 1)),
            ]),
          );
        // What the server alone decides is not told; furthest follows a place that was recorded.
        expect(sorted(server.known())).toEqual(sorted(device.known()));
        for (const each of sent) device.take(each);
        expect(sorted(device.known())).toEqual(sorted(server.known()));
        expect(new Set(sent.map(({ id }) => id)).size).toBe(sent.length);
      }),
    );
  });
});

it('a stamp that became another is another everywhere in its record, and nothing else is', () => {
  const record = { a: { value: 'x', at: 'old' }, b: { value: 'old', at: 'other' }, list: [{ at: 'old' }] };
  expect(restamped(record, 'old', 'new')).toEqual({
    a: { value: 'x', at: 'new' },
    b: { value: 'old', at: 'other' },
    list: [{ at: 'new' }],
  });
  expect(restamped(record, 'none', 'new')).toBe(record);
});
