import type { EntryPart, Highlight, Item } from '@dorvel/core/model';
import { daysBetween } from '@dorvel/core/reading';
import { trailOf, trailOfPassage, type TrailPoint } from '@dorvel/core/trail';
import { dayInWords, happeningInWords } from '@dorvel/core/wording';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { dayOf } from '@/device/store/day';
import type { DeviceStore } from '@/device/store/store';
import { namedList } from '@/ui/named-list';

/** What happened to an item and what came of it: drawn on one line, and told day by day. */
export function Trail({ item }: { item: Item }) {
  const store = useAccount((state) => state.store);
  const came = useLiveQuery(async () => {
    const [activities, highlights, notes, cards, collected] = await Promise.all([
      store?.activities.filter(({ itemId }) => itemId === item.id).toArray(),
      store?.highlights.where('itemId').equals(item.id).toArray(),
      store?.notes.where('itemId').equals(item.id).toArray(),
      store?.cards.where('source.itemId').equals(item.id).toArray(),
      collectedIn(store, (part) => 'itemId' in part && part.itemId === item.id),
    ]);
    return {
      ...{ activities: activities ?? [], highlights: highlights ?? [], notes: notes ?? [], cards: cards ?? [] },
      collected,
    };
  }, [store, item.id]);
  const points = useMemo(() => (came ? trailOf(item, came, dayOf) : []), [item, came]);
  return <TrailByDay points={points} />;
}

/**
 * What came of a passage, as it was when this was opened: it stands amid fields that keep what is written in them when they are
 * left, and what grew then would move what is just being pressed. Nothing while it was only marked.
 */
export function PassageTrail({ highlight }: { highlight: Highlight }) {
  const store = useAccount((state) => state.store);
  const [opened] = useState(highlight);
  const { id, itemId } = opened;
  const [points, setPoints] = useState<readonly TrailPoint[]>([]);
  useEffect(() => {
    let wanted = true;
    void Promise.all([
      store?.notes.where('itemId').equals(itemId).toArray(),
      store?.cards.where('source.itemId').equals(itemId).toArray(),
      collectedIn(store, (part) => part.kind === 'passage' && part.highlightId === id),
    ]).then(([notes, cards, collected]) => {
      if (wanted) setPoints(trailOfPassage(opened, { notes: notes ?? [], cards: cards ?? [], collected }, dayOf));
    });
    return () => void (wanted = false);
  }, [store, itemId, id, opened]);
  const isOnlyMarked = points.every(({ happenings }) => happenings.every(({ kind }) => kind === 'marked'));
  return isOnlyMarked ? null : <TrailByDay points={points} />;
}

/** Into which dossiers something went, and when. */
async function collectedIn(
  store: DeviceStore | null,
  isIt: (part: EntryPart) => boolean,
): Promise<{ madeAt: number; into: string }[]> {
  const entries =
    (await store?.entries.filter(({ part, choices }) => !choices.removed.value && isIt(part)).toArray()) ?? [];
  const dossiers = (await store?.dossiers.bulkGet(entries.map(({ dossierId }) => dossierId))) ?? [];
  return entries.flatMap(({ madeAt }, at) => {
    const choices = dossiers[at]?.choices;
    return choices && !choices.removed.value ? [{ madeAt, into: choices.title.value }] : [];
  });
}

function TrailByDay({ points }: { points: readonly TrailPoint[] }) {
  if (points.length === 0) return null;
  return (
    <View role="region" aria-label="Trail" className="gap-[8px]">
      <TrailLine points={points} />
      <View {...namedList('Trail, by day', points.length)}>
        {points.map(({ on, happenings }) => (
          <Text key={on} role="listitem" className="py-[2px] font-ui text-small text-soft">
            <Text className="text-ink">{dayInWords(on)}</Text>: {happenings.map(happeningInWords).join(', ')}
          </Text>
        ))}
      </View>
    </View>
  );
}

/** So far from either end stands a point, so that it is seen whole. */
const EDGE = 2;

/** A line from the first day to the last, with a knot for each day; what came of the item makes a knot larger. */
function TrailLine({ points }: { points: readonly TrailPoint[] }) {
  const first = points[0]?.on ?? '';
  const span = Math.max(1, daysBetween(first, points.at(-1)?.on ?? first));
  return (
    <View aria-hidden className="h-[20px] justify-center">
      <View className="h-[2px] rounded-[1px] bg-soft" />
      {points.map(({ on, happenings }) => {
        const isMade = happenings.some(
          ({ kind }) => kind === 'marked' || kind === 'noted' || kind === 'carded' || kind === 'collected',
        );
        const size = isMade ? 14 : 9;
        // Days lie closer together the longer ago everything began: the square root keeps the early ones apart.
        const part = Math.sqrt(daysBetween(first, on) / span);
        return (
          <View
            key={on}
            className={`absolute rounded-full border-[2px] ${isMade ? 'border-ochre bg-ochre' : 'border-accent bg-ground'}`}
            style={{ width: size, height: size, left: `${EDGE + part * (100 - 2 * EDGE)}%`, marginLeft: -size / 2 }}
          />
        );
      })}
    </View>
  );
}
