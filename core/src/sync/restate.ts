import {
  NEVER,
  type Activity,
  type Card,
  type Feed,
  type Highlight,
  type Item,
  type Mutation,
  type SavedSearch,
  type WrittenNote,
} from '../model';

/** All that a device knows of a library. */
export interface KnownRecords {
  items: readonly Item[];
  activities: readonly Activity[];
  feeds: readonly Feed[];
  highlights: readonly Highlight[];
  searches: readonly SavedSearch[];
  notes: readonly WrittenNote[];
  cards: readonly Card[];
}

type Register = { value: unknown; at: string };

/**
 * Records as the changes that make them: what a device sends to a server that was set back, so that it learns again what
 * it has forgotten. Each value goes with the stamp that it has, so that what the server knows better stays as it is there.
 *
 * Without the records that only point at another, and without what the server alone writes.
 *
 * @param newId gives ids for the changes
 */
export function restated(known: KnownRecords, newId: () => string): Mutation[] {
  const base = (stamp = NEVER) => ({ id: newId(), stamp });
  /** Registers by their stamps: what was decided in one change goes in one change. */
  const decided = (registers: Readonly<Record<string, Register>>) => {
    const byStamp = new Map<string, Record<string, unknown>>();
    for (const [field, { value, at }] of Object.entries(registers))
      if (at !== NEVER) byStamp.set(at, { ...byStamp.get(at), [field]: value });
    return [...byStamp];
  };
  const changes = <Made>(registers: object, make: (stamp: string, set: never) => Made): Made[] =>
    decided(registers as Record<string, Register>).map(([stamp, set]) => make(stamp, set as never));
  return [
    ...known.items
      .filter(({ capture }) => capture.sameAs === null)
      .flatMap((item): Mutation[] => {
        const itemId = item.id;
        const { position, furthest, heard } = item.progress;
        return [
          { ...base(), type: 'save', itemId, address: item.address, savedAt: item.savedAt },
          ...changes(item.choices, (stamp, set): Mutation => ({
            ...base(stamp),
            type: 'choose',
            itemId,
            set,
          })),
          ...changes(item.tags, (stamp, set): Mutation => ({ ...base(stamp), type: 'tag', itemId, set })),
          ...(position
            ? [
                {
                  ...base(position.at),
                  type: 'progress' as const,
                  itemId,
                  furthest,
                  position: position.value,
                  heard,
                },
              ]
            : []),
        ];
      }),
    ...known.activities.map((activity): Mutation => ({
      ...base(),
      type: 'activity',
      itemId: activity.itemId,
      activity,
    })),
    ...known.feeds.flatMap((feed): Mutation[] => {
      const feedId = feed.id;
      return [
        { ...base(), type: 'follow', feedId, address: feed.address, followedAt: feed.followedAt },
        ...changes(feed.choices, (stamp, set): Mutation => ({ ...base(stamp), type: 'feed', feedId, set })),
      ];
    }),
    ...known.highlights.flatMap(({ id: highlightId, itemId, madeAt, choices }): Mutation[] => [
      {
        ...base(choices.passage.at),
        type: 'mark',
        itemId,
        highlightId,
        madeAt,
        kind: choices.kind.value,
        passage: choices.passage.value,
      },
      ...changes(choices, (stamp, set): Mutation => ({
        ...base(stamp),
        type: 'change-mark',
        itemId,
        highlightId,
        set,
      })),
    ]),
    ...known.searches.map(({ id: searchId, madeAt, choices }): Mutation => {
      const { written, scope, removed } = choices;
      const set = { written: written.value, scope: scope.value, removed: removed.value };
      return { ...base(removed.at), type: 'search', searchId, madeAt, set };
    }),
    ...known.notes.flatMap(({ id: noteId, madeAt, itemId: noteItemId, on, choices }) =>
      changes(choices, (stamp, set): Mutation => ({
        ...base(stamp),
        type: 'write',
        noteId,
        madeAt,
        noteItemId,
        on,
        set,
      })),
    ),
    ...known.cards.flatMap(({ id: cardId, madeAt, source, choices, recalls }): Mutation[] => [
      ...changes(choices, (stamp, set): Mutation => ({
        ...base(stamp),
        type: 'card',
        cardId,
        madeAt,
        source,
        set,
      })),
      ...Object.values(recalls).map((recall): Mutation => ({ ...base(), type: 'recall', cardId, recall })),
    ]),
  ];
}

/**
 * A record in which one stamp has become another: that of a change which the server took as of its own time.
 *
 * @returns the record itself when nothing in it has that stamp
 */
export function restamped<Record>(record: Record, from: string, to: string): Record {
  if (typeof record !== 'object' || record === null) return record;
  const parts = Object.entries(record).map(([name, value]: [string, unknown]) => {
    const made = name === 'at' && value === from ? to : restamped(value, from, to);
    return [name, made, made !== value] as const;
  });
  if (!parts.some(([, , isChanged]) => isChanged)) return record;
  return (
    Array.isArray(record)
      ? parts.map(([, value]) => value)
      : Object.fromEntries(parts.map(([name, value]) => [name, value]))
  ) as Record;
}
