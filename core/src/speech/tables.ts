import type { SpeechChoices } from '../listening';
import type { PlainText, TextBlock, TextRange } from '../text';
import { spokenLanguage } from './languages';
import type { CountWords, SpokenLanguage } from './languages/language';
import { say } from './say';

/** A part of a table with what is said for it. */
interface TablePart extends TextRange {
  text: string;
}

/**
 * What is said of a table: its size and the names of its columns, or these and each row with the names, or nothing.
 *
 * @param rows its rows as leaf blocks, a tab between their cells, with its caption before them where it has one
 */
export function tableSaid(
  rows: readonly TextBlock[],
  { text }: PlainText,
  language: string | null,
  { tables, own }: Pick<SpeechChoices, 'tables' | 'own'>,
): TablePart[] {
  const [first] = rows;
  const last = rows.at(-1);
  if (!first || !last || tables === 'nothing') return [];
  const caption = first.element.tagName === 'caption' ? first : undefined;
  const body = caption ? rows.slice(1) : rows;
  const head = body[0] && isHead(body[0]) ? body[0] : undefined;
  const values = (row: TextBlock | undefined) =>
    row
      ? text
          .slice(row.start, row.end)
          .split('\t')
          .map((value) => value.trim())
      : [];
  const named = values(head);
  const counted = head ? body.slice(1) : body;
  const columns = Math.max(0, ...body.map((row) => values(row).length));
  const summary = [
    sizeSaid(caption ? text.slice(caption.start, caption.end) : '', columns, counted.length, language),
    named.length > 0 ? say(`${named.filter(Boolean).join(', ')}.`, language, own).text : '',
  ]
    .filter(Boolean)
    .join(' ');
  if (tables === 'summary') return [{ start: first.start, end: last.end, text: summary }];
  const untilRows = (head ?? caption)?.end ?? first.start;
  return [
    { start: first.start, end: untilRows, text: summary },
    ...counted.flatMap((row) => {
      const line = values(row)
        .map((value, at) => (value === '' || !named[at] ? value : `${named[at]}: ${value}`))
        .filter(Boolean)
        .join('; ');
      return line === '' ? [] : [{ start: row.start, end: row.end, text: `${say(line, language, own).text}.` }];
    }),
  ];
}

const isHead = ({ element }: TextBlock): boolean =>
  element.children.every((cell) => cell.type !== 'element' || cell.tagName === 'th');

function sizeSaid(caption: string, columns: number, rows: number, language: string | null): string {
  const table = spokenLanguage(language);
  const title = caption.replace(/\.$/, '');
  if (!table) return title;
  const { frame } = table;
  return `${frame.table}${title ? `: ${title}` : ''}. ${counting(table, columns, frame.columns)}, ${counting(table, rows, frame.rows)}.`;
}

const counting = (table: SpokenLanguage, count: number, words: CountWords): string =>
  `${table.counting(count, words[0])} ${words[count === 1 ? 0 : 1]}`;
