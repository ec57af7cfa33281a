import { highlightFrom, noteFrom, uuid } from '../testing';
import { entriesOfItem } from '.';

it('an item goes with what was marked in it in the order of the text, and with what was written on each', () => {
  const itemId = uuid(1);
  const later = highlightFrom({ id: uuid(2), itemId, passage: { start: 90 } });
  const earlier = highlightFrom({ id: uuid(3), itemId, passage: { start: 5 } });
  const gone = highlightFrom({ id: uuid(4), itemId, removed: true });
  const notes = [
    noteFrom({ id: uuid(5), itemId, text: 'On the passage', on: { kind: 'highlight', id: later.id } }),
    noteFrom({ id: itemId, itemId, text: 'On the whole', on: { kind: 'item' } }),
    noteFrom({ id: uuid(6), itemId, text: 'Taken back', removed: true, on: { kind: 'item' } }),
    noteFrom({ id: uuid(7), itemId, text: '', on: { kind: 'highlight', id: earlier.id } }),
  ];
  expect(entriesOfItem(itemId, [later, gone, earlier], notes)).toEqual([
    { kind: 'item', itemId },
    { kind: 'note', noteId: itemId },
    { kind: 'passage', itemId, highlightId: earlier.id },
    { kind: 'passage', itemId, highlightId: later.id },
    { kind: 'note', noteId: uuid(5) },
  ]);
});
