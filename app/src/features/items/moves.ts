import type { Item, Stage } from '@dorvel/core/model';
import { inStage, moveTo, type NewRank, rankAtEnd, rankOnTop } from '@dorvel/core/queue';
import { addDays } from '@dorvel/core/reading';
import type { ItemChoices } from '@dorvel/core/records';
import { dayInWords } from '@dorvel/core/wording';
import { choose, chooseAll } from '@/device/store/changes';
import { useItems } from '@/device/store/library';
import { useNotices } from '@/ui/notices';

const SAYS: Record<Stage, string> = {
  inbox: 'Back in Inbox.',
  queue: 'Moved to Queue.',
  finished: 'Finished.',
  kept: 'Kept for reference.',
  'let-go': 'Let go. It can be brought back for 30 days.',
};

/** Moving items between stages, each move with its undo. */
export function useMoves() {
  const items = useItems() ?? [];
  const show = useNotices((state) => state.show);
  const queue = items.filter((item) => inStage(item, 'queue'));

  const undoable = async (item: Item, changes: ItemChoices, says: string, undone?: () => void) => {
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
  };
  /** The same for many items at once, with one undo for all. */
  const undoableAll = async (changes: readonly { item: Item; set: ItemChoices }[], says: string) => {
    const before = changes.map(({ item, set }) => ({
      itemId: item.id,
      set: asBefore(item, set),
    }));
    await chooseAll(changes.map(({ item, set }) => ({ itemId: item.id, set })));
    show({ text: says, action: { label: 'Undo', press: () => void chooseAll(before) } });
  };
  return {
    /** Moves items to a stage; into the Queue in the order in which they are given. */
    moveAll: (chosen: readonly Item[], stage: Stage) => {
      const end = rankAtEnd(queue);
      return undoableAll(
        chosen.map((item, at) => ({
          item,
          set: { ...moveTo(stage, queue, Date.now()), ...(stage === 'queue' ? { queueRank: end + at } : {}) },
        })),
        chosen.length === 1 ? SAYS[stage] : `${chosen.length}: ${SAYS[stage]}`,
      );
    },
    /** Gives items of the Queue other places. */
    reorder: (ranks: readonly NewRank[], says: string) =>
      undoableAll(
        ranks.flatMap(({ id, queueRank }) => {
          const item = queue.find((each) => each.id === id);
          return item ? [{ item, set: { queueRank } }] : [];
        }),
        says,
      ),
    comeBackAll: (chosen: readonly Item[], day: string) =>
      undoableAll(
        chosen.map((item) => ({ item, set: { comeBackOn: day } })),
        `${chosen.length === 1 ? 'It comes' : `${chosen.length} come`} back on ${dayInWords(day)}.`,
      ),
    /** @param undone told when the reader takes it back */
    move: (item: Item, stage: Stage, undone?: () => void) =>
      undoable(item, moveTo(stage, queue, Date.now()), SAYS[stage], undone),
    toTop: (item: Item) => undoable(item, { queueRank: rankOnTop(queue) }, 'Next in the Queue.'),
    toEnd: (item: Item) => undoable(item, { queueRank: rankAtEnd(queue) }, 'Last in the Queue.'),
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
    tomorrow: (item: Item, today: string) =>
      undoable(item, { comeBackOn: addDays(today, 1) }, 'It comes back tomorrow.'),
    /** Reading is deciding: what is begun in the Inbox belongs in the Queue. */
    begin: (item: Item) =>
      undoable(item, moveTo('queue', queue, Date.now(), 'top'), 'Begun, so it is in the Queue now.'),
  };
}

/** What takes changes back. Only what is changed is put back: another choice made meanwhile stays. */
function asBefore(item: Item, changes: ItemChoices): ItemChoices {
  return Object.fromEntries(
    Object.keys(changes).map((field) => [field, item.choices[field as keyof ItemChoices].value]),
  );
}
