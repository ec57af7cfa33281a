import type { ChoiceChanges, Item, Stage } from '@dorvel/core/model';
import { inStage, moveTo, rankOnTop } from '@dorvel/core/queue';
import { choose } from '@/device/changes';
import { useItems } from '@/device/library';
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

  const undoable = async (item: Item, changes: ChoiceChanges, says: string) => {
    const { stage, queueRank, finishedAt } = item.choices;
    await choose(item.id, changes);
    show({
      text: says,
      action: {
        label: 'Undo',
        press: () =>
          void choose(item.id, {
            stage: stage.value,
            queueRank: queueRank.value,
            finishedAt: finishedAt.value,
          }),
      },
    });
  };
  return {
    move: (item: Item, stage: Stage) => undoable(item, moveTo(stage, queue, Date.now()), SAYS[stage]),
    toTop: (item: Item) => undoable(item, { queueRank: rankOnTop(queue) }, 'Moved to the top of the Queue.'),
    /** Reading is deciding: what is begun in the Inbox belongs in the Queue. */
    begin: (item: Item) =>
      undoable(item, moveTo('queue', queue, Date.now(), 'top'), 'Begun, so it is in the Queue now.'),
  };
}
