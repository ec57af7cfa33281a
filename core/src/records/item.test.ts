import fc from 'fast-check';
import {
  Activity,
  type Item,
  Item as ItemSchema,
  joinSpans,
  placeOfWord,
  spanOf,
  Spans,
  spansWithin,
  type Stage,
  Stamp,
  tagKey,
  TagName,
  tagsOf,
} from '../model';
import { createClock } from '../sync';
import { activityKind, itemKind, type ItemMutation, Mutation, newItem, withTagsOf } from '.';

const ITEM = '01900000-0000-7000-8000-000000000001';
const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const save = (savedAt = 1000, stamp = '000000001-0000-a'): Extract<ItemMutation, { type: 'save' }> => ({
  type: 'save',
  id: uuid(9),
  itemId: ITEM,
  address: 'https://example.org/a',
  savedAt,
  stamp,
});

const stamp = fc
  .tuple(fc.integer({ min: 1, max: 40 }), fc.constantFrom('a', 'b', 'c'))
  .map(([wall, device]) => `${wall.toString(36).padStart(9, '0')}-0000-${device}`);
const position = (fraction: number) => ({
  block: 0,
  char: 0,
  offset: Math.round(fraction * 1000),
  quote: 'q',
  before: '',
  fraction,
});
const mutation: fc.Arbitrary<ItemMutation> = fc.oneof(
  fc
    .record({ at: stamp, stage: fc.constantFrom<Stage>('inbox', 'queue', 'finished', 'kept', 'let-go') })
    .map(({ at, stage }) => ({
      type: 'choose' as const,
      id: uuid(1),
      itemId: ITEM,
      stamp: at,
      set: { stage },
    })),
  fc.record({ at: stamp, queueRank: fc.integer({ min: -5, max: 5 }) }).map(({ at, queueRank }) => ({
    type: 'choose' as const,
    id: uuid(2),
    itemId: ITEM,
    stamp: at,
    set: { queueRank },
  })),
  fc
    .record({
      at: stamp,
      tag: fc.constantFrom('Sea', 'boats/Repair', 'constructor', 'hasOwnProperty'),
      isOn: fc.boolean(),
    })
    .map(({ at, tag, isOn }) => ({
      type: 'tag' as const,
      id: uuid(4),
      itemId: ITEM,
      stamp: at,
      set: { [tagKey(tag)]: isOn ? tag : null },
    })),
  fc
    .record({
      at: stamp,
      furthest: fc.integer({ min: 0, max: 10 }),
      from: fc.integer({ min: 0, max: 10 }),
      to: fc.integer({ min: 0, max: 10 }),
    })
    .map(({ at, furthest, from, to }) => ({
      type: 'progress' as const,
      id: uuid(3),
      itemId: ITEM,
      stamp: at,
      furthest: furthest / 10,
      position: position(furthest / 10),
      heard: spanOf(from / 10, to / 10),
    })),
);
/** Two changes with one stamp come from one device in one instant: they are the same change. */
const history = fc.uniqueArray(mutation, { selector: (each) => each.stamp, maxLength: 12 });
const play = (mutations: readonly ItemMutation[]) =>
  mutations.reduce<Item>((item, each) => itemKind.apply(item, each) ?? item, newItem(save()));

describe('merging', () => {
  it('never loses the furthest point, though the reader went back', () => {
    fc.assert(
      fc.property(history, (changes) => {
        const furthest = Math.max(0, ...changes.map((each) => (each.type === 'progress' ? each.furthest : 0)));
        expect(play(changes).progress.furthest).toBe(furthest);
      }),
    );
  });

  it('takes what the server knows from the higher revision', () => {
    const base = newItem(save());
    const arrived: Item = {
      ...base,
      capture: {
        ...base.capture,
        revision: 7,
        state: 'arrived',
        outcome: { code: 'arrived', missingPictures: 0 },
      },
    };
    expect(itemKind.merge(base, arrived).capture).toEqual(arrived.capture);
    expect(itemKind.merge(arrived, base).capture).toEqual(arrived.capture);
  });
});

describe('applyMutation', () => {
  it('makes an item of a save, in the Inbox, waiting', () => {
    const item = itemKind.apply(undefined, save());
    expect(item).toMatchObject({
      address: 'https://example.org/a',
      choices: { stage: { value: 'inbox' } },
      capture: { state: 'waiting', addressKey: 'https://example.org/a' },
    });
  });

  it('is harmless to repeat', () => {
    const once = play([
      { type: 'choose', id: uuid(1), itemId: ITEM, stamp: '000000005-0000-a', set: { stage: 'kept' } },
    ]);
    expect(itemKind.apply(once, save())).toEqual(once);
  });

  it('does not invent an item for a change to one it does not know', () => {
    expect(
      itemKind.apply(undefined, { type: 'refetch', id: uuid(1), itemId: ITEM, stamp: '000000005-0000-a' }),
    ).toBeUndefined();
  });
});

describe('the clock', () => {
  it('never goes back, though the wall clock does', () => {
    const walls = [5000, 4000, 4000, 6000, 1];
    let at = 0;
    const clock = createClock('d1', () => walls[Math.min(at++, walls.length - 1)] ?? 0);
    const stamps = walls.map(() => clock.next());
    expect([...stamps].sort()).toEqual(stamps);
    expect(new Set(stamps).size).toBe(stamps.length);
    for (const each of stamps) expect(Stamp.safeParse(each).success).toBe(true);
  });

  it('goes on after a stamp seen from another device', () => {
    const ahead = createClock('far', () => 90_000).next();
    const clock = createClock('near', () => 10_000);
    clock.see(ahead);
    expect(clock.next() > ahead).toBe(true);
  });

  it('does not follow a device whose clock is years ahead', () => {
    const clock = createClock('near', () => 10_000);
    clock.see(createClock('far', () => 10_000 + 400 * 24 * 3600 * 1000).next());
    expect(parseInt(clock.next().slice(0, 9), 36)).toBe(10_000);
  });

  it('carries over to the next millisecond when its counter is full', () => {
    const clock = createClock('d', () => 1000, '0000000rs-zzzz-d');
    const next = clock.next();
    expect(next > '0000000rs-zzzz-d').toBe(true);
    expect(Stamp.safeParse(next).success).toBe(true);
  });
});

describe('what was heard', () => {
  const spans = fc
    .array(fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 40 })), { maxLength: 8 })
    .map((pairs) => pairs.map(([from, to]) => spanOf(from / 40, to / 40)).reduce(joinSpans, []));
  const covers = (parts: Spans, step: number) => parts.some(([from, to]) => from <= step && step < to);

  it('joins as sets of places do', () => {
    fc.assert(
      fc.property(spans, spans, spans, (a, b, c) => {
        const both = joinSpans(a, b);
        expect(Spans.parse(both)).toEqual(both);
        for (let step = 0; step < 1000; step += 5) expect(covers(both, step)).toBe(covers(a, step) || covers(b, step));
        expect(joinSpans(b, a)).toEqual(both);
        expect(joinSpans(joinSpans(a, b), c)).toEqual(joinSpans(a, joinSpans(b, c)));
        expect(joinSpans(a, a)).toEqual(a);
      }),
    );
  });

  it('is shown only as far as the text has been passed', () => {
    expect(spansWithin([...spanOf(0.1, 0.4), ...spanOf(0.5, 0.9)], 0.6)).toEqual([
      { from: 0.1, to: 0.4 },
      { from: 0.5, to: 0.6 },
    ]);
    expect(spansWithin(spanOf(0.5, 0.9), 0.5)).toEqual([]);
  });
});

describe('a sitting', () => {
  const sitting = (seconds: number, words: number) =>
    Activity.parse({
      id: uuid(1),
      itemId: ITEM,
      startedAt: 1,
      day: '2026-11-24',
      by: 'eyes',
      seconds,
      words,
    });
  it('is the longer of two states, whichever arrives first', () => {
    expect(activityKind.merge(sitting(30, 80), sitting(60, 200))).toEqual(sitting(60, 200));
    expect(activityKind.merge(sitting(60, 200), sitting(30, 80))).toEqual(sitting(60, 200));
  });
});

describe('records from before a field was thought of', () => {
  it('are read with nothing in it', () => {
    const { choices, progress, putRight: _putRight, ...rest } = newItem(save());
    const {
      comeBackOn: _comeBackOn,
      shown: _shown,
      passedOver: _passedOver,
      known: _known,
      best: _best,
      listedAs: _listedAs,
      kindSaid: _kindSaid,
      typed: _typed,
      place: _place,
      ...olderChoices
    } = choices;
    const { heard: _heard, ...olderProgress } = progress;
    const older = { ...rest, choices: olderChoices, progress: olderProgress };
    expect(ItemSchema.parse(older)).toEqual(newItem(save()));
  });
});

describe('words put right in pictures', () => {
  const HASH = 'a'.repeat(64);
  const word = (at: string, place: number, is: string): ItemMutation => ({
    type: 'put-right',
    id: uuid(6),
    itemId: ITEM,
    stamp: `000000002-0000-${at}`,
    set: { [placeOfWord(HASH, place)]: { was: 'l2', is } },
  });
  const wordsOf = ({ putRight }: Item) => Object.entries(putRight).map(([place, { value }]) => [place, value.is]);

  it('on two devices both stay; of one word the later', () => {
    const start = play([]);
    const [one, other] = [itemKind.apply(start, word('a', 3, '12')), itemKind.apply(start, word('b', 4, 'mm'))];
    if (!one || !other) throw new Error('not applied');
    const both = itemKind.merge(one, other);
    expect(wordsOf(both).sort()).toEqual([
      [`${HASH} 3`, '12'],
      [`${HASH} 4`, 'mm'],
    ]);
    expect(wordsOf(itemKind.apply(both, word('c', 3, '120'))!)).toContainEqual([`${HASH} 3`, '120']);
  });

  it('that were kept all in one are read, and taken from a device that still sends them so', () => {
    const all = [{ hash: HASH, place: 3, was: 'l2', is: '12' }];
    const { putRight: _none, choices, ...rest } = newItem(save());
    const before = { ...rest, choices: { ...choices, putRight: { value: all, at: '000000002-0000-a' } } };
    const now = ItemSchema.parse(before);
    expect(wordsOf(now)).toEqual([[`${HASH} 3`, '12']]);
    expect(now.choices).not.toHaveProperty('putRight');
    expect(itemKind.schema.parse(now)).toEqual(now);
    const sent = itemKind.mutation.parse({
      ...{ type: 'choose', id: uuid(7), itemId: ITEM, stamp: '000000002-0000-a' },
      set: { typed: 'No boat', putRight: all },
    });
    expect(itemKind.apply(play([]), sent)).toMatchObject({
      putRight: now.putRight,
      choices: { typed: { value: 'No boat' } },
    });
  });
});

describe('tags', () => {
  const tagged = (at: string, set: Record<string, string | null>): ItemMutation => ({
    type: 'tag',
    id: uuid(5),
    itemId: ITEM,
    stamp: `000000002-0000-${at}`,
    set,
  });

  it('given on two devices both stay, and one taken off on a third goes', () => {
    const start = play([tagged('0', { sea: 'Sea', law: 'law' })]);
    const one = itemKind.apply(start, tagged('a', { wood: 'wood' }));
    const other = itemKind.apply(start, tagged('b', { 'boats/repair': 'boats/repair' }));
    const third = itemKind.apply(start, tagged('c', { law: null }));
    if (!one || !other || !third) throw new Error('not applied');
    expect(tagsOf(itemKind.merge(itemKind.merge(one, other), third))).toEqual(['boats/repair', 'Sea', 'wood']);
  });

  it('go along when another item turns out to stand for this one', () => {
    const first = play([tagged('a', { sea: 'Sea', law: null })]);
    const second = play([tagged('b', { law: 'law', wood: 'wood' })]);
    const joined = withTagsOf(first, second);
    expect(tagsOf(joined)).toEqual(['Sea', 'wood']);
    expect(withTagsOf(joined, play([]))).toEqual(joined);
  });

  it.each([
    [' Garden / soil/ ', 'Garden/soil'],
    ['#tides', 'tides'],
    ['old,  boats', 'old boats'],
    ['e\u0301te\u0301', '\u00e9t\u00e9'],
  ])('“%s” is written “%s”', (written, tidy) => {
    expect(TagName.parse(written)).toBe(tidy);
    expect(TagName.parse(tidy)).toBe(tidy);
  });

  it.each(['', ' / ', '#', 'x'.repeat(101)])('“%s” is none', (written) => {
    expect(TagName.safeParse(written).success).toBe(false);
  });

  it('stand under their own key, or the change is refused', () => {
    expect(Mutation.safeParse(tagged('a', { sea: 'Sea' })).success).toBe(true);
    expect(Mutation.safeParse(tagged('a', { lake: 'Sea' })).success).toBe(false);
  });

  it('of records from before there were tags are none', () => {
    const { tags: _tags, ...before } = newItem(save());
    expect(tagsOf(ItemSchema.parse(before))).toEqual([]);
  });
});
