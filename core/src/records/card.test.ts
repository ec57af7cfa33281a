import fc from 'fast-check';
import type { Card } from '../model';
import { DRAFTS, uuid } from '../testing';
import { cardKind, type CardMutation, noteKind, type NoteMutation } from '.';

const { makes, changes } = DRAFTS.card!(1);
const changeOf = (draft: object, n: number) =>
  ({ ...draft, id: uuid(n), stamp: `${n.toString(36).padStart(9, '0')}-0000-a` }) as CardMutation;

it('a card has all answers that were given, whichever device they were given on', () => {
  fc.assert(
    fc.property(fc.array(changes, { maxLength: 10 }), (drafts) => {
      const all = drafts.map((draft, n) => changeOf(draft, n + 2));
      const made = cardKind.apply(undefined, changeOf(makes, 1))!;
      const play = (some: readonly CardMutation[]) =>
        some.reduce<Card>((card, change) => cardKind.apply(card, change)!, made);
      const given = new Set(all.flatMap((each) => (each.type === 'recall' ? [each.recall.id] : [])));
      const joined = cardKind.merge(play(all.slice(0, 4)), play(all.slice(4)));
      expect(Object.keys(joined.recalls).sort()).toEqual([...given].sort());
    }),
  );
});

it('an answer to a card that nobody knows is refused, a note that nobody knows is made', () => {
  const recall = { id: uuid(3), gap: 0, at: 1, grade: 3, undone: false };
  expect(cardKind.apply(undefined, changeOf({ type: 'recall', cardId: uuid(9), recall }, 2))).toBeUndefined();
  const note = DRAFTS.note!(1).makes as object;
  expect(
    noteKind.apply(undefined, { ...note, id: uuid(1), stamp: '000000001-0000-a' } as NoteMutation)?.versions,
  ).toMatchObject([{ text: 'first' }]);
});
