/** @jest-environment node */
import type { Item } from '@dorvel/core/model';
import { currentCopies } from './current-copies';

const item = (id: string, copyId: string | null, changes: { stage?: string; duplicateOf?: string } = {}) =>
  ({
    id,
    choices: { stage: { value: changes.stage ?? 'queue' } },
    capture: { page: copyId === null ? null : { copyId }, duplicateOf: changes.duplicateOf ?? null },
  }) as Item;

it('relates the copies that stand for items now, and no others', () => {
  const items = [
    item('read', 'copy-1'),
    item('refetched', 'copy-3'),
    item('not here', 'copy-4'),
    item('no text', null),
    item('let go', 'copy-5', { stage: 'let-go' }),
    item('another spelling', 'copy-6', { duplicateOf: 'read' }),
  ];
  const here = ['copy-1', 'copy-2', 'copy-3', 'copy-5', 'copy-6'];
  expect([...currentCopies(items, here)]).toEqual([
    ['read', 'copy-1'],
    ['refetched', 'copy-3'],
  ]);
});
