import { z } from 'zod';
import { Card, CardSource, CardText, Id, Instant, Recall } from '../model';
import { CHANGE, decisions, type Kind } from './kind';
import { mergeRegisters, untouched, withChanges } from './registers';

/** A card is made, or changed; only the fields named change. */
const ChangeCardMutation = z.object({
  ...CHANGE,
  type: z.literal('card'),
  cardId: Id,
  madeAt: Instant,
  source: CardSource.nullable(),
  set: z.object({ front: CardText, back: CardText, paused: z.boolean(), removed: z.boolean() }).partial(),
});

/** A card was asked and answered, or an answer is taken back. */
const RecallMutation = z.object({
  ...CHANGE,
  type: z.literal('recall'),
  cardId: Id,
  recall: Recall,
});

const CardMutation = z.discriminatedUnion('type', [ChangeCardMutation, RecallMutation]);
export type CardMutation = z.infer<typeof CardMutation>;
export type CardChanges = z.infer<typeof ChangeCardMutation>['set'];

/**
 * What a card is after a mutation: the same on a device and on the server. Pure, and harmless to repeat.
 *
 * @returns undefined when an answer names a card that is not known
 */
function applyCardMutation(card: Card | undefined, mutation: CardMutation): Card | undefined {
  if (mutation.type === 'recall')
    return card && mergeCards(card, { ...card, recalls: { [mutation.recall.id]: mutation.recall } });
  const blank: Card = {
    id: mutation.cardId,
    madeAt: mutation.madeAt,
    source: mutation.source,
    choices: {
      front: untouched(''),
      back: untouched(''),
      paused: untouched(false),
      removed: untouched(false),
    },
    recalls: {},
  };
  const known = card ?? blank;
  return mergeCards(known, { ...known, choices: withChanges(known.choices, mutation.set, mutation.stamp) });
}

/** Joins two states of one card: each choice by its latest stamp, and all answers that were given on either device. */
function mergeCards(a: Card, b: Card): Card {
  const first = a.madeAt <= b.madeAt ? a : b;
  const recalls: Record<string, Recall> = { ...a.recalls };
  for (const [id, recall] of Object.entries(b.recalls))
    // Once taken back it stays so: of two states, that is the later.
    recalls[id] = { ...recall, undone: recall.undone || (recalls[id]?.undone ?? false) };
  return { ...a, ...b, ...first, choices: mergeRegisters(a.choices, b.choices), recalls };
}

/** A question and its answer, or a sentence with gaps, made from a passage. */
export const cardKind: Kind<Card, CardMutation> = {
  name: 'card',
  plural: 'cards',
  version: 1,
  schema: Card,
  mutation: CardMutation,
  types: ['card', 'recall'],
  idOf: ({ cardId }) => cardId,
  itemIdOf: ({ source }) => source?.itemId ?? null,
  movedTo: (card, itemId) => ({ ...card, source: card.source && { ...card.source, itemId } }),
  apply: applyCardMutation,
  merge: mergeCards,
  restate: ({ id: cardId, madeAt, source, choices, recalls }, base) => [
    ...decisions(choices, (stamp, set): CardMutation => ({
      ...base(stamp),
      type: 'card',
      cardId,
      madeAt,
      source,
      set,
    })),
    ...Object.values(recalls).map((recall): CardMutation => ({ ...base(), type: 'recall', cardId, recall })),
  ],
};
