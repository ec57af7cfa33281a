import fc from 'fast-check';
import type { Item } from '../model';
import { newItem } from '../records';
import { moveInQueue } from './order';
import { byQueueOrder } from './stages';

const uuid = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
function queued(n: number, queueRank: number): Item {
  const item = newItem({
    type: 'save',
    id: uuid(n),
    itemId: uuid(n),
    address: `https://example.org/${n}`,
    savedAt: n,
    stamp: '000000001-0000-a',
  });
  item.choices.queueRank = { value: queueRank, at: '000000001-0000-a' };
  return item;
}

/** The Queue after changes, in its own order. */
function after(queue: readonly Item[], changes: ReturnType<typeof moveInQueue>): string[] {
  return queue
    .map((item) => {
      const queueRank = changes.find(({ id }) => id === item.id)?.queueRank;
      return queueRank === undefined
        ? item
        : { ...item, choices: { ...item.choices, queueRank: { value: queueRank, at: '2' } } };
    })
    .sort(byQueueOrder)
    .map(({ id }) => id);
}

it('puts an item exactly where it was taken to, whatever the ranks were', () => {
  const ranks = fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(ranks, fc.nat(11), fc.nat(11), (all, from, to) => {
      const queue = all.map((rank, n) => queued(n, rank)).sort(byQueueOrder);
      fc.pre(from < queue.length && to < queue.length);
      const ids = queue.map(({ id }) => id);
      const [moving] = ids.splice(from, 1);
      ids.splice(to, 0, moving!);
      expect(after(queue, moveInQueue(queue, from, to))).toEqual(ids);
    }),
  );
});

it('changes one item only, where there is room', () => {
  const queue = [queued(1, 1), queued(2, 2), queued(3, 3)];
  expect(moveInQueue(queue, 2, 1)).toEqual([{ id: uuid(3), queueRank: 1.5 }]);
  expect(moveInQueue(queue, 0, 2)).toEqual([{ id: uuid(1), queueRank: 4 }]);
  expect(moveInQueue(queue, 2, 0)).toEqual([{ id: uuid(3), queueRank: 0 }]);
  expect(moveInQueue(queue, 1, 1)).toEqual([]);
});

it('goes on finding room when one place is halved again and again', () => {
  let queue = [queued(1, 0), queued(2, 1), queued(3, 2)];
  for (let n = 0; n < 80; n++) {
    const changes = moveInQueue(queue, 2, 1);
    queue = queue
      .map((item) => {
        const queueRank = changes.find(({ id }) => id === item.id)?.queueRank;
        return queueRank === undefined
          ? item
          : { ...item, choices: { ...item.choices, queueRank: { value: queueRank, at: '2' } } };
      })
      .sort(byQueueOrder);
    expect(new Set(queue.map(({ choices }) => choices.queueRank.value)).size).toBe(3);
  }
});
