import { TZDate } from '@date-fns/tz';
import type { ComeBackEntry, ComeBackInFeed, ComeBackPart } from '@dorvel/core/formats';
import type { Item } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import {
  asCandidate,
  type DayOf,
  dueToday,
  latelyFinished,
  resurfaceable,
  resurfaceToday,
  toGoOnWith,
} from '@dorvel/core/queue';
import { addDays, minutesLeft } from '@dorvel/core/reading';
import { changeMaker, noteKind } from '@dorvel/core/records';
import { dayInWords, dueInWords, inMinutes, reasonInWords, sourceOf, titleOf } from '@dorvel/core/wording';
import { lightFormat } from 'date-fns';
import { v7 as uuidv7 } from 'uuid';
import type { Database } from '../db/open';
import { eachItemChanged } from '../library/changed-items';
import type { Library } from '../library/library';
import { recordsIn } from '../library/records';
import type { RelatedLibrary } from '../library/related';
import { type PushTools, takeMutation } from '../library/take-mutations';

/** The feed tells what came back in so many days. */
const DAYS_IN_FEED = 14;
/** The hour of a day at which a feed says that something came back: it is worked out for days, not for hours. */
const FEED_HOUR = 6;

/** Whose items, and where and when their reader is. */
export interface Reader {
  library: Library;
  related: RelatedLibrary;
  tools: PushTools;
  /** IANA name. */
  zone: string;
  origin: string;
}

export const dayIn =
  (zone: string): DayOf =>
  (instant) =>
    lightFormat(new TZDate(instant, zone), 'yyyy-MM-dd');

/** What comes back to a reader today, as on Now; that it was shown is noted, as there: the next day brings others. */
export async function comeBackToday(
  database: Database,
  { library, related, tools, zone, origin }: Reader,
): Promise<{ parts: ComeBackPart[]; tasks: string[] }> {
  const dayOf = dayIn(zone);
  const today = dayOf(tools.now());
  const all = await itemsThere(database, library.accountId);
  const goOn = toGoOnWith(all);
  const due = dueToday(all, today, dayOf);
  const waiting = resurfaceable(all, new Set([...goOn, ...due].map(({ id }) => id)));
  const close = new Map(
    (
      await related.closeness(
        waiting.map(({ id }) => id),
        latelyFinished(all, tools.now()),
      )
    ).map((each) => [each.id, each]),
  );
  const byId = new Map(waiting.map((item) => [item.id, item]));
  const lifted = resurfaceToday(
    waiting.map((item) => asCandidate(item, close.get(item.id), dayOf)),
    today,
  ).flatMap(({ id, reasons }) => {
    const item = byId.get(id);
    return item ? [{ item, reason: reasonInWords(reasons) }] : [];
  });
  await noteShown(
    library,
    lifted.map(({ item }) => item),
    today,
    tools,
  );
  const entry = (item: Item, reason: string) => entryOf(item, reason, origin);
  return {
    parts: [
      {
        heading: 'Come back',
        entries: [
          ...due.map((item) => entry(item, dueInWords(item, today))),
          ...lifted.map(({ item, reason }) => entry(item, reason)),
        ],
      },
      { heading: 'Go on with', entries: goOn.map((item) => entry(item, 'begun')) },
    ],
    tasks: (await recordsIn(database.read, library.accountId, noteKind))
      .filter(({ choices }) => choices.task.value === 'open' && !choices.removed.value)
      .filter(({ choices: { dueOn } }) => dueOn.value !== null && dueOn.value <= today)
      .map(noteText),
  };
}

/** What came back in the last days, today's first. */
export async function cameBack(database: Database, reader: Reader): Promise<ComeBackInFeed[]> {
  const { library, tools, zone, origin } = reader;
  const { parts } = await comeBackToday(database, reader);
  const today = dayIn(zone)(tools.now());
  const reasons = new Map(parts.flatMap(({ entries }) => entries.map(({ itemId, reason }) => [itemId, reason])));
  const since = addDays(today, 1 - DAYS_IN_FEED);
  return (await itemsThere(database, library.accountId))
    .flatMap((item) => {
      // By itself, or because the reader wanted it back on that day.
      const days = [item.choices.shown.value.lastOn, item.choices.comeBackOn.value];
      const day =
        days
          .filter((each) => each !== null && since <= each && each <= today)
          .sort()
          .at(-1) ?? null;
      if (day === null) return [];
      const reason = (day === today ? reasons.get(item.id) : undefined) ?? `came back on ${dayInWords(day, today)}`;
      const at = new TZDate(`${day}T00:00:00`, zone).setHours(FEED_HOUR);
      return [{ ...entryOf(item, reason, origin), day, at: Math.min(at, tools.now()) }];
    })
    .sort((a, b) => (a.day === b.day ? a.title.localeCompare(b.title) : a.day < b.day ? 1 : -1));
}

/** All that was not let go. */
async function itemsThere(database: Database, accountId: string): Promise<Item[]> {
  const there: Item[] = [];
  await eachItemChanged(database, accountId, 0, (item) => {
    if (item.capture.duplicateOf === null && item.choices.stage.value !== 'let-go') there.push(item);
  });
  return there;
}

async function noteShown(library: Library, shown: readonly Item[], today: string, tools: PushTools): Promise<void> {
  const fresh = shown.filter(({ choices }) => choices.shown.value.lastOn !== today);
  if (fresh.length === 0) return;
  const make = changeMaker({ ...tools, newId: uuidv7 });
  await library.change(async (write) => {
    for (const { id, choices } of fresh) {
      const times = choices.shown.value.times + 1;
      await takeMutation(write, make.choose(id, { shown: { times, lastOn: today } }), tools);
    }
  });
}

function entryOf(item: Item, reason: string, origin: string): ComeBackEntry {
  const stage = item.choices.stage.value;
  const tab = stage === 'inbox' || stage === 'queue' ? stage : 'library';
  return {
    itemId: item.id,
    title: titleOf(item),
    source: sourceOf(item),
    reason,
    length: inMinutes(minutesLeft(item)),
    href: `${origin}/${tab}/${item.id}`,
  };
}
