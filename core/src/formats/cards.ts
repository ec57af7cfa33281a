import { gapParts, gapsIn, withoutGaps } from '../cards';
import { type Card, CardText } from '../model';
import { readTableRows, writeTable } from './table';

/** The columns of a table of cards. The third is ours: a sentence with gaps as it was written, so that it comes back whole. */
const COLUMNS = ['question', 'answer', 'sentence', 'source'] as const;

/** What a card program shows of one question, and what it then shows. */
export function questionAndAnswer(card: Card, gap: number): { question: string; answer: string } {
  const { front, back } = card.choices;
  if (gap === 0) return { question: front.value, answer: back.value };
  const parts = gapParts(front.value);
  return {
    question: parts.map((part) => (part.gap === gap ? '[…]' : part.text)).join(''),
    answer: [...parts.filter((part) => part.gap === gap).map(({ text }) => text), back.value]
      .filter(Boolean)
      .join(' · '),
  };
}

/**
 * Cards as a table that any card program reads: a question and its answer in the first two columns (CSV as RFC 4180 has it,
 * or the same with tabs). Each gap is a row of its own.
 *
 * @param sourceOf what a card's source is called
 */
export function cardsAsTable(cards: readonly Card[], delimiter: ',' | '\t', sourceOf: (card: Card) => string): string {
  const rows = cards.flatMap((card) => {
    const { front } = card.choices;
    const gaps = gapsIn(front.value);
    return (gaps.length > 0 ? gaps : [0]).map((gap) => {
      const { question, answer } = questionAndAnswer(card, gap);
      return [question, answer, gap === 0 ? '' : front.value, sourceOf(card)];
    });
  });
  return writeTable(COLUMNS, rows, delimiter);
}

/** What was found in a table of cards. */
interface CardTable {
  cards: { front: string; back: string }[];
  /** Rows that are not one, by their number from 1, with the reason. */
  faults: { row: number; says: string }[];
}

/**
 * Cards from a table with a question and an answer in its first two columns, whatever parts them: commas, semicolons or
 * tabs. A first row that names its columns is no card.
 */
export function readCardTable(written: string): CardTable {
  const data = readTableRows(written.replace(/^\ufeff/, ''), ['\t', ',', ';']);
  const isHead = /^(?:question|front|term)$/i.test(data[0]?.[0]?.trim() ?? '');
  const found: CardTable = { cards: [], faults: [] };
  const sentences = new Set<string>();
  data.slice(isHead ? 1 : 0).forEach((row, at) => {
    const number = at + (isHead ? 2 : 1);
    const [question = '', answer = '', sentence = ''] = row.map((cell) => cell.trim());
    const hasGaps = isHead && gapsIn(sentence).length > 0;
    // A sentence with several gaps stands in as many rows.
    if (hasGaps && sentences.has(sentence)) return;
    const [front, back] = hasGaps ? [sentence, ''] : [question, answer];
    const says = faultOf(front, back);
    if (says) found.faults.push({ row: number, says });
    else {
      found.cards.push({ front, back });
      sentences.add(sentence);
    }
  });
  return found;
}

function faultOf(front: string, back: string): string | null {
  if (withoutGaps(front) === '') return 'It has no question.';
  if (back === '' && gapsIn(front).length === 0) return 'It has no answer and no gap.';
  return CardText.safeParse(front).success && CardText.safeParse(back).success ? null : 'It is too long.';
}
