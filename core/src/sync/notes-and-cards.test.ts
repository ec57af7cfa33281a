import fc from 'fast-check';
import type { Card, CardMutation, NoteMutation, RecallGrade, WrittenNote } from '../model';
import { applyCardMutation, applyNoteMutation, mergeCards, mergeNotes } from '.';

const id = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const stampOf = (n: number) => `${n.toString(36).padStart(9, '0')}-0000-a`;

const noteChange: fc.Arbitrary<NoteMutation> = fc
  .tuple(fc.integer({ min: 1, max: 999 }), fc.constantFrom('a', 'b', 'c'), fc.constantFrom('none', 'open', 'done'), fc.boolean(), fc.nat(3))
  .map(([at, text, task, removed, which]) => ({
    type: 'write',
    id: id(at),
    noteId: id(1),
    madeAt: 5,
    noteItemId: null,
    on: null,
    stamp: stampOf(at),
    set: [{ text }, { task }, { removed }, { text, dueOn: '2026-12-24' }][which] ?? {},
  })); // prettier-ignore
const cardChange: fc.Arbitrary<CardMutation> = fc
  .tuple(fc.integer({ min: 1, max: 999 }), fc.constantFrom('a?', 'b?'), fc.nat(2), fc.boolean())
  .map(([at, front, which, undone]) => {
    const base = { id: id(at), stamp: stampOf(at), cardId: id(1) };
    return which === 0
      ? { ...base, type: 'recall', recall: { id: id(at % 7), gap: 0, at: at % 7, grade: ((at % 7) % 4 + 1) as RecallGrade, undone } }
      : { ...base, type: 'card', madeAt: 5, source: null, set: which === 1 ? { front } : { paused: undone } };
  }); // prettier-ignore

const madeNote: NoteMutation = {
  type: 'write',
  id: id(2000),
  noteId: id(1),
  madeAt: 5,
  noteItemId: null,
  on: null,
  stamp: stampOf(1),
  set: { text: 'first' },
};
const madeCard: CardMutation = {
  type: 'card',
  id: id(2000),
  cardId: id(1),
  madeAt: 5,
  source: null,
  stamp: stampOf(1),
  set: { front: 'first?', back: 'yes' },
};
const noteAfter = (changes: readonly NoteMutation[]) =>
  changes.reduce<WrittenNote>(applyNoteMutation, applyNoteMutation(undefined, madeNote));
const cardAfter = (changes: readonly CardMutation[]) =>
  changes.reduce<Card | undefined>(applyCardMutation, applyCardMutation(undefined, madeCard))!;

describe('devices that were apart come to the same', () => {
  it('note, in whatever order they learn of each other’s changes, and however often', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(noteChange, { selector: ({ stamp }) => stamp, maxLength: 10 }),
        (changes) => {
          const one = noteAfter(changes);
          expect(noteAfter([...changes].reverse())).toEqual(one);
          expect(noteAfter([...changes, ...changes])).toEqual(one);
          const [left, right] = [noteAfter(changes.slice(0, 4)), noteAfter(changes.slice(4))];
          expect(mergeNotes(left, right)).toEqual(one);
          expect(mergeNotes(right, left)).toEqual(one);
        },
      ),
    );
  });

  it('card, with all answers that were given on any of them', () => {
    fc.assert(
      fc.property(fc.uniqueArray(cardChange, { selector: ({ stamp }) => stamp, maxLength: 10 }), (changes) => {
        const one = cardAfter(changes);
        expect(cardAfter([...changes].reverse())).toEqual(one);
        expect(cardAfter([...changes, ...changes])).toEqual(one);
        expect(mergeCards(cardAfter(changes.slice(0, 4)), cardAfter(changes.slice(4)))).toEqual(one);
        const given = new Set(changes.flatMap((change) => (change.type === 'recall' ? [change.recall.id] : [])));
        expect(Object.keys(one.recalls).sort()).toEqual([...given].sort());
      }),
    ); // prettier-ignore
  });
});

it('an answer to a card that nobody knows is refused, a note that nobody knows is made', () => {
  const recall = { id: id(3), gap: 0, at: 1, grade: 3 as const, undone: false };
  expect(
    applyCardMutation(undefined, { type: 'recall', id: id(4), stamp: stampOf(2), cardId: id(9), recall }),
  ).toBeUndefined();
  expect(applyNoteMutation(undefined, madeNote).choices.text.value).toBe('first');
});
