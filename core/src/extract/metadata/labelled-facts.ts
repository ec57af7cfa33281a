import type { Element, ElementContent, Root, RootContent } from 'hast';
import { toString } from 'hast-util-to-string';
import type { Fact, FactValue } from '../../model';
import { isoDate } from '../../text';
import { numberIn } from './numbers';

/** What is longer is no label, or no value, but a sentence. In characters. */
const MAX_LABEL = 40;
const MAX_VALUE = 160;
/** A value of several words with a full stop is a sentence that explains, as in a list of terms. */
const SENTENCE = /(?:\S+\s+){4,}\S+[.!?]$/;
/** Fewer of them in one place say nothing of a habit: “Note: the ferry is late” is prose. */
const LEAST_PAIRS = 3;
const MAX_PAIRS = 30;

/** What a page calls a fact, before its own name for it: apart from the properties of schema.org. */
const SAID = 'said.';

/**
 * Facts that stand in the words of a page as labels with values: definition lists, tables of two columns, lists of
 * “label: value”. Only where several of them stand together; what a page says once in its prose is not read as a fact.
 */
export function readLabelledFacts(tree: Root): Fact[] {
  const facts = new Map<string, Fact>();
  const visit = (node: Root | RootContent | ElementContent) => {
    if (node.type !== 'root' && node.type !== 'element') return;
    const pairs = node.type === 'element' ? pairsIn(node) : [];
    if (pairs.length < LEAST_PAIRS) {
      node.children.forEach(visit);
      return;
    }
    for (const [label, value] of pairs) {
      const key = `${SAID}${label.toLocaleLowerCase()}`;
      if (facts.size < MAX_PAIRS && !facts.has(key))
        facts.set(key, { about: 'page', of: null, key, value: valueOf(value), source: 'text' });
    }
  };
  visit(tree);
  return [...facts.values()];
}

type Pair = [label: string, value: string];

const elements = ({ children }: Element): Element[] => children.filter((child) => child.type === 'element');
const words = (element: Element): string => toString(element).replace(/\s+/g, ' ').trim();

function pairsIn(element: Element): Pair[] {
  const { tagName } = element;
  if (tagName === 'dl') return asPairs(definitions(element));
  if (tagName === 'table') return asPairs(twoColumns(element));
  if (tagName === 'ul') return asPairs(elements(element).map((each) => splitAtColon(words(each))));
  return [];
}

/** All of them have to be pairs, or it is a list of something else. */
function asPairs(found: readonly (Pair | null)[]): Pair[] {
  const pairs = found.flatMap((pair) => {
    const label = pair?.[0].replace(/\s*:$/, '') ?? '';
    const isPair =
      pair !== null &&
      /^\p{L}/u.test(label) &&
      label.length <= MAX_LABEL &&
      pair[1] !== '' &&
      pair[1].length <= MAX_VALUE &&
      !SENTENCE.test(pair[1]);
    return isPair ? [[label, pair[1]] satisfies Pair] : [];
  });
  return pairs.length === found.length ? pairs : [];
}

function definitions(list: Element): (Pair | null)[] {
  const parts = elements(list).flatMap((each) => (each.tagName === 'div' ? elements(each) : [each]));
  return parts.flatMap((part, at) => {
    const next = parts[at + 1];
    if (part.tagName !== 'dt') return [];
    return [next?.tagName === 'dd' ? ([words(part), words(next)] satisfies Pair) : null];
  });
}

function twoColumns(table: Element): (Pair | null)[] {
  const rows = elements(table).flatMap((each) =>
    each.tagName === 'tr' ? [each] : each.tagName === 'tbody' ? elements(each) : [],
  );
  const isHead = (row: Element | undefined) =>
    row !== undefined && elements(row).every((cell) => cell.tagName === 'th');
  // Under a head the first column is no label but what is told of.
  if (isHead(rows[0]) && !isHead(rows[1])) return [];
  return rows.map((row) => {
    const [label, value, ...more] = elements(row);
    return label && value && more.length === 0 ? [words(label), words(value)] : null;
  });
}

function splitAtColon(line: string): Pair | null {
  const at = line.indexOf(': ');
  return at > 0 ? [line.slice(0, at), line.slice(at + 2).trim()] : null;
}

const SIGNS: Readonly<Record<string, string>> = { '€': 'EUR', '£': 'GBP', $: 'USD', '¥': 'JPY' };

/** Money where an amount stands with its currency and with nothing else; a bare number; a date; else the words. */
function valueOf(written: string): FactValue {
  const text: FactValue = { type: 'text', text: written };
  const sign = /[€£¥$]/.exec(written)?.[0];
  const code = /\b(?:EUR|GBP|USD|CHF|SEK|NOK|DKK|JPY)\b/.exec(written)?.[0];
  const bare = written.replace(/[€£¥$]|\b[A-Z]{3}\b/g, '').trim();
  const amount = /^-?\d[\d.,\s']*$/.test(bare) ? numberIn(bare) : null;
  if (amount !== null && (sign ?? code)) {
    // A dollar may be one of many; which, only the page's own code can say.
    const currency = code ?? (sign === '$' ? '$' : (SIGNS[sign ?? ''] ?? null));
    return { type: 'money', amount, currency };
  }
  if (amount !== null && bare === written) return { type: 'number', number: amount, outOf: null };
  const date = /^\d{4}-\d{2}-\d{2}/.test(written) ? isoDate(written) : null;
  return date ? { type: 'date', date } : text;
}
