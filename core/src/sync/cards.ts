import { NEVER, type Card, type CardMutation, type Recall } from '../model';
import { withChanges } from './apply';
import { mergeRegisters } from './merge';

/**
 * What a card is after a mutation: the same on a device and on the server. Pure, and harmless to repeat.
 *
 * @returns undefined when an answer names a card that is not known
 */
export function applyCardMutation(card: Card | undefined, mutation: CardMutation): Card | undefined {
  if (mutation.type === 'recall')
    return card && mergeCards(card, { ...card, recalls: { [mutation.recall.id]: mutation.recall } });
  const untouched = <Value>(value: Value) => ({ value, at: NEVER });
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
export function mergeCards(a: Card, b: Card): Card {
  const first = a.madeAt <= b.madeAt ? a : b;
  const recalls: Record<string, Recall> = { ...a.recalls };
  for (const [id, recall] of Object.entries(b.recalls))
    // Once taken back it stays so: of two states, that is the later.
    recalls[id] = { ...recall, undone: recall.undone || (recalls[id]?.undone ?? false) };
  return { ...first, choices: mergeRegisters(a.choices, b.choices), recalls };
}
