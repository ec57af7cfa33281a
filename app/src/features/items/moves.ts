import type { Item, Stage } from '@dorvel/core/model';
import { moveTo, type NewRank, rankAtEnd, rankOnTop } from '@dorvel/core/queue';
import { addDays } from '@dorvel/core/reading';
import type { ItemChoices } from '@dorvel/core/records';
import { dayInWords } from '@dorvel/core/wording';
import { choose, chooseAll, readQueue } from '@/device/store/changes';
import { useNotices } from '@/ui/notices';

const SAYS: Record<Stage, string> = {
  inbox: 'Back in Inbox.',
  queue: 'Moved to Queue.',
  finished: 'Finished.',
  kept: 'Kept for reference.',
  'let-go': 'Let go. It can be brought back for 30 days.',
};

const show: ReturnType<typeof useNotices.getState>['show'] = (notice) => useNotices.getState().show(notice);

async function undoable(item: Item, changes: ItemChoices, says: string, undone?: () => void): Promise<void> {
  const before = asBefore(item, changes);
  await choose(item.id, changes);
  show({
    text: says,
    action: {
      label: 'Undo',
      press: () => {
        void choose(item.id, before);
        undone?.();
      },
    },
  });
}

/** The same for many items at once, with one undo for all. */
async function undoableAll(changes: readonly { item: Item; set: ItemChoices }[], says: string): Promise<void> {
  const before = changes.map(({ item, set }) => ({ itemId: item.id, set: asBefore(item, set) }));
  await chooseAll(changes.map(({ item, set }) => ({ itemId: item.id, set })));
  show({ text: says, action: { label: 'Undo', press: () => void chooseAll(before) } });
}

/** Moving items between stages, each move with its undo. The Queue is read when something is moved, and not before. */
export const moves = {
  /** Moves items to a stage; into the Queue in the order in which they are given. */
  async moveAll(chosen: readonly Item[], stage: Stage): Promise<void> {
    const queue = await readQueue();
    const end = rankAtEnd(queue);
    await undoableAll(
      chosen.map((item, at) => ({
        item,
        set: { ...moveTo(stage, queue, Date.now()), ...(stage === 'queue' ? { queueRank: end + at } : {}) },
      })),
      chosen.length === 1 ? SAYS[stage] : `${chosen.length}: ${SAYS[stage]}`,
    );
  },
  /** Gives items of the Queue other places. */
  async reorder(ranks: readonly NewRank[], says: string): Promise<void> {
    const queue = await readQueue();
    await undoableAll(
      ranks.flatMap(({ id, queueRank }) => {
        const item = queue.find((each) => each.id === id);
        return item ? [{ item, set: { queueRank } }] : [];
      }),
      says,
    );
  },
  comeBackAll: (chosen: readonly Item[], day: string) =>
    undoableAll(
      chosen.map((item) => ({ item, set: { comeBackOn: day } })),
      `${chosen.length === 1 ? 'It comes' : `${chosen.length} come`} back on ${dayInWords(day)}.`,
    ),
  /** Has each come back on a day of its own. */
  planAll: (plan: readonly { item: Item; day: string }[], days: number) =>
    undoableAll(
      plan.map(({ item, day }) => ({ item, set: { comeBackOn: day } })),
      `${plan.length} come back over ${days === 1 ? 'the day' : `${days} days`}.`,
    ),
  /** @param undone told when the reader takes it back */
  move: async (item: Item, stage: Stage, undone?: () => void) =>
    undoable(item, moveTo(stage, await readQueue(), Date.now()), SAYS[stage], undone),
  toTop: async (item: Item) => undoable(item, { queueRank: rankOnTop(await readQueue()) }, 'Next in the Queue.'),
  toEnd: async (item: Item) => undoable(item, { queueRank: rankAtEnd(await readQueue()) }, 'Last in the Queue.'),
  /** Passes over what was brought up: it comes up less soon. */
  passOver: (item: Item, today: string) =>
    undoable(
      item,
      { passedOver: { times: item.choices.passedOver.value.times + 1, lastOn: today } },
      'Passed over. It comes up less soon.',
    ),
  /** Promises an item for a day, or for none. */
  comeBack: (item: Item, day: string | null) =>
    undoable(
      item,
      { comeBackOn: day },
      day === null ? 'It will not come back by date.' : `It comes back on ${dayInWords(day)}.`,
    ),
  tomorrow: (item: Item, today: string) => undoable(item, { comeBackOn: addDays(today, 1) }, 'It comes back tomorrow.'),
  /** Reading is deciding: what is begun in the Inbox belongs in the Queue. */
  begin: async (item: Item) =>
    undoable(item, moveTo('queue', await readQueue(), Date.now(), 'top'), 'Begun, so it is in the Queue now.'),
};

/** What takes changes back. Only what is changed is put back: another choice made meanwhile stays. */
function asBefore(item: Item, changes: ItemChoices): ItemChoices {
  return Object.fromEntries(
    Object.keys(changes).map((field) => [field, item.choices[field as keyof ItemChoices].value]),
  );
}
