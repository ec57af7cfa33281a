import { noteFrom } from '@dorvel/core/testing';
import { notesFound, type NoteThread, threadsOf } from './notes-view';

const note = (id: string, more: Parameters<typeof noteFrom>[0] = {}) => noteFrom({ id, madeAt: 1, text: id, ...more });
const shape = (threads: readonly NoteThread[]): unknown[] =>
  threads.map(({ note: { id }, replies }) => (replies.length > 0 ? [id, shape(replies)] : id));
const all = { wanted: 'all', words: '', itemId: null } as const;

it('puts notes under those that they were written on, and keeps those whose parent is gone', () => {
  const notes = [
    note('old', { madeAt: 1 }),
    note('reply', { madeAt: 5, on: { kind: 'note', id: 'old' } }),
    note('first', { madeAt: 3, on: { kind: 'note', id: 'old' } }),
    note('deeper', { madeAt: 6, on: { kind: 'note', id: 'first' } }),
    note('new', { madeAt: 9, on: { kind: 'highlight', id: 'h' } }),
    note('orphan', { madeAt: 2, on: { kind: 'note', id: 'gone' } }),
  ];
  expect(shape(threadsOf(notes, all))).toEqual(['new', 'orphan', ['old', [['first', ['deeper']], 'reply']]]);
});

it('finds a thread by the words of any note in it, and the notes of one item', () => {
  const notes = [
    note('a', { itemId: 'i' }),
    note('b', { text: 'Tar the Seam', on: { kind: 'note', id: 'a' }, itemId: 'i' }),
    note('c'),
  ];
  expect(shape(threadsOf(notes, { ...all, words: ' seam' }))).toEqual([['a', ['b']]]);
  expect(shape(threadsOf(notes, { ...all, itemId: 'i' }))).toEqual([['a', ['b']]]);
});

it('lists what is to be done by its day, what has none at the end', () => {
  const notes = [
    note('someday', { task: 'open', madeAt: 9 }),
    note('later', { task: 'open', dueOn: '2026-12-24' }),
    note('soon', { task: 'open', dueOn: '2026-12-01' }),
    note('did', { task: 'done' }),
    note('thought'),
  ];
  expect(shape(threadsOf(notes, { ...all, wanted: 'open' }))).toEqual(['soon', 'later', 'someday']);
  expect(shape(threadsOf(notes, { ...all, wanted: 'done' }))).toEqual(['did']);
});

it('finds notes of no item by the words of a query, whatever else it asks for', () => {
  const notes = [
    note('free', { text: 'Où est le bac? Ask at the pier.' }),
    note('of an item', { text: 'Ask at the pier.', itemId: 'i' }),
    note('other', { text: 'Tar the seam.' }),
  ];
  const found = (written: string) => notesFound(notes, written).map(({ id }) => id);
  expect(found('pier ask')).toEqual(['free']);
  expect(found('"ou est" tag:"old boats" -tar is:unread')).toEqual(['free']);
  expect(found('pier seam')).toEqual([]);
  expect(found('tag:pier')).toEqual([]);
  expect(found('')).toEqual([]);
});
