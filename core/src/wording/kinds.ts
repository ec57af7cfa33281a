import { type CardFault, MAX_CARD_WORDS, MAX_GAPS_AT_ONCE } from '../cards';
import type { HighlightKind } from '../model';

/** What a highlight is for, in a word. */
export const HIGHLIGHT_KIND_WORDS: Readonly<Record<HighlightKind, string>> = {
  key: 'Key',
  question: 'Question',
  quote: 'Quote',
  'to-do': 'To do',
  doubt: 'Doubt',
};

/** What speaks against a card, and what to do about it. */
export const CARD_FAULT_WORDS: Readonly<Record<CardFault, string>> = {
  nothing: 'Write a question, or a sentence with a gap in it.',
  'no answer': 'Write an answer, or make a gap in the sentence.',
  long: `It has more than ${MAX_CARD_WORDS} words. Shorten it to the one thing that you want to know.`,
  'several facts': 'It has more than one sentence in it. Make a card of each fact.',
  'a list': 'It asks for a list. One gap for each entry is easier to recall.',
  'many gaps': `It has more than ${MAX_GAPS_AT_ONCE} gaps. Make several cards of it.`,
};
