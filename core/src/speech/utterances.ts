import type { Element, Root } from 'hast';
import { type Pronunciation, type SpeechChoices, USUAL_SPEECH } from '../listening';
import {
  baseLanguage,
  languageOf,
  partitionPoint,
  type PlainText,
  plainText,
  sentences,
  type TextBlock,
  type TextRange,
} from '../text';
import { footnotesIn, marksIn } from './footnotes';
import { spokenLanguage } from './languages';
import { dividedBy, passagesInOtherLanguages } from './other-languages';
import { type Said, say } from './say';
import { tableSaid } from './tables';

/** What a voice says in one breath: a sentence, or a line that is not one. Its range is in the plain text. */
export interface Utterance extends TextRange {
  index: number;
  /** What is said, with the way back to the plain text. It is put into words when it is first asked for, and kept. */
  said(): Said;
  kind: 'sentence' | 'heading' | 'picture' | 'table' | 'code' | 'note' | 'title';
  /** True for the first of its paragraph. */
  begins: boolean;
  /** BCP 47 tag of what is said, where it is not that of the whole text; else null. */
  language: string | null;
  /** Silence before and behind it, in milliseconds at a rate of 1. */
  leadMs: number;
  pauseMs: number;
}

/**
 * The silence behind what is said, and before a heading and around a quotation, in milliseconds; the voice's own is taken off. A
 * sentence's is longer than that of a comma, which is the voice's (about 300). Common practice of reading aloud; ours to tune.
 */
const PAUSE_MS = {
  /** Where the voice changes within a sentence. */
  within: 40,
  sentence: 420,
  listItem: 520,
  paragraph: 750,
  heading: 900,
  beforeHeading: 500,
  quotation: 600,
} as const;

const HEADING = /^h[1-6]$/;
/** A quotation in another language is told by itself from this length on. */
const ENOUGH_TO_TELL = 120;

interface Surroundings {
  block: TextBlock;
  /** From the outermost in. */
  around: readonly Element[];
}

/**
 * What a voice reads of a clean tree, with its places in the plain text (core/text/plain). Every place of the text that
 * is heard at all lies in one utterance.
 *
 * @param language BCP 47 tag of the text, or null
 */
export function utterances(tree: Root, language: string | null, choices = USUAL_SPEECH): Utterance[] {
  const plain = plainText(tree);
  const notes = footnotesIn(tree);
  const spoken: Paced[] = [];
  const blocks = withSurroundings(tree, plain);
  for (let at = 0; at < blocks.length; at++) {
    const each = blocks[at];
    if (!each) continue;
    const { block, around } = each;
    const table = around.find(({ tagName }) => tagName === 'table');
    if (table) {
      let end = at;
      while (blocks[end + 1]?.around.includes(table)) end++;
      const rows = blocks.slice(at, end + 1).map((each) => each.block);
      for (const { text, ...range } of tableSaid(rows, plain, language, choices))
        spoken.push({ ...unsaid('table', range, text, null), quotation: undefined, isListItem: false });
      at = end;
      continue;
    }
    if (!choices.footnotes && around.concat(block.element).some((each) => notes.has(each))) continue;
    const quotation = quotationOf(block.element, around);
    const isListItem = [...around, block.element].some(({ tagName }) => tagName === 'li');
    for (const said of blockSaid({ block, around }, plain, language, choices, notes))
      spoken.push({ ...said, quotation, isListItem });
  }
  return paced(spoken);
}

/** One block's utterances, before what stands around it is known. */
function blockSaid(
  { block, around }: Surroundings,
  plain: PlainText,
  language: string | null,
  choices: SpeechChoices,
  notes: ReadonlySet<Element>,
): Utterance[] {
  const { tagName } = block.element;
  const own = languageOfBlock(block, around, plain, language);
  const words = spokenLanguage(own ?? language)?.frame;
  if (tagName === 'pre') return [unsaid('code', block, words?.code ?? 'Code.', own)];
  const hidden = marksIn(block);
  const kind = HEADING.test(tagName)
    ? 'heading'
    : tagName === 'figcaption'
      ? 'picture'
      : around.concat(block.element).some((each) => notes.has(each))
        ? 'note'
        : 'sentence';
  const lead =
    kind === 'heading' && choices.headings
      ? `${words?.heading ?? ''}: `
      : kind === 'picture'
        ? `${words?.picture ?? ''}: `
        : numberOf(block.element, around, own ?? language);
  const text = masked(plain.text.slice(block.start, block.end), hidden, block.start);
  const made: Utterance[] = [];
  const foreign = passagesInOtherLanguages(block, own ?? language);
  const ranges = sentences(text, own ?? language).flatMap((each) =>
    dividedBy(foreign, each, block.start).map((part, at, parts) => ({ ...part, isLast: at === parts.length - 1 })),
  );
  for (const range of ranges) {
    const { start, end } = { start: block.start + range.start, end: block.start + range.end };
    const written = plain.text.slice(start, end);
    if (!/[\p{L}\p{N}]/u.test(written)) continue;
    const spokenIn = range.language ?? own;
    const before = made.length === 0 && lead.trim() !== ':' ? lead : '';
    made.push({
      said: once(() => shifted(withoutMarks(hidden, start, written, spokenIn ?? language, choices.own), start, before)),
      index: 0,
      kind,
      begins: made.length === 0,
      language: spokenIn,
      start,
      end,
      leadMs: 0,
      pauseMs: range.isLast ? PAUSE_MS.sentence : PAUSE_MS.within,
    });
  }
  // A line that is no sentence falls at its end as one does.
  const last = made.at(-1);
  if (last && (kind === 'heading' || kind === 'picture')) last.said = once(withFullStop(last.said));
  return made;
}

function withFullStop(said: () => Said): () => Said {
  return () => {
    const { text, pieces } = said();
    return { text: /[.!?…:]["”’»)]*$/u.test(text) ? text : `${text}.`, pieces };
  };
}

/** Worked out at the first call, and kept: most of a long text is never heard in one go. */
function once<Made>(make: () => Made): () => Made {
  let made: { value: Made } | undefined;
  return () => (made ??= { value: make() }).value;
}

/** Blank where the marks stand: a sentence ends before its footnote's mark, not behind it. */
function masked(text: string, hidden: readonly TextRange[], start: number): string {
  let left = text;
  for (const range of hidden)
    left = left.slice(0, range.start - start) + ' '.repeat(range.end - range.start) + left.slice(range.end - start);
  return left;
}

/** Says nothing of a part of the text but that it is there. */
function unsaid(kind: 'code' | 'table', range: TextRange, text: string, language: string | null): Utterance {
  const { start, end } = range;
  const said = { text, pieces: [] };
  return {
    index: 0,
    kind,
    begins: true,
    language,
    start,
    end,
    said: () => said,
    leadMs: 0,
    pauseMs: PAUSE_MS.paragraph,
  };
}

/** The sentences' own pieces are counted from their start; an utterance's are places of the whole text. */
function shifted({ text, pieces }: Said, start: number, before: string): Said {
  return {
    text: before + text,
    pieces: pieces.map((piece) => ({
      ...piece,
      said: piece.said + before.length,
      start: piece.start + start,
      end: piece.end + start,
    })),
  };
}

/** Footnote marks are no part of the sentence: what is said is put together from what stands between them. */
function withoutMarks(
  hidden: readonly TextRange[],
  start: number,
  written: string,
  language: string | null,
  own: readonly Pronunciation[],
): Said {
  const inside = hidden
    .map((range) => ({ start: range.start - start, end: range.end - start }))
    .filter((range) => range.end > 0 && range.start < written.length);
  if (inside.length === 0) return say(written, language, own);
  let [text, at] = ['', 0];
  const pieces: Said['pieces'][number][] = [];
  for (const range of [...inside, { start: written.length, end: written.length }]) {
    const part = say(written.slice(at, Math.max(at, range.start)), language, own);
    for (const piece of part.pieces)
      pieces.push({ ...piece, said: piece.said + text.length, start: piece.start + at, end: piece.end + at });
    text += part.text;
    at = Math.max(at, range.end);
  }
  return { text, pieces };
}

function withSurroundings(tree: Root, { blocks }: PlainText): Surroundings[] {
  const byElement = new Map(blocks.map((block) => [block.element, block]));
  const found: Surroundings[] = [];
  const visit = (node: Root | Element, around: readonly Element[]) => {
    for (const child of node.children) {
      if (child.type !== 'element') continue;
      const block = byElement.get(child);
      if (block) found.push({ block, around });
      else visit(child, [...around, child]);
    }
  };
  visit(tree, []);
  return found;
}

/** The number of an entry of a numbered list, as it is said before it. */
function numberOf(element: Element, around: readonly Element[], language: string | null): string {
  const chain = [...around, element];
  const at = chain.findLastIndex(({ tagName }) => tagName === 'li');
  const [entry, list] = [chain[at], chain[at - 1]];
  if (!entry || list?.tagName !== 'ol') return '';
  // Only the first block of an entry carries its number.
  if (entry !== element && firstLeaf(entry) !== element) return '';
  const entries = list.children.filter((child) => child.type === 'element' && child.tagName === 'li');
  const start = typeof list.properties.start === 'number' ? list.properties.start : 1;
  const number = start + entries.indexOf(entry);
  return `${spokenLanguage(language)?.cardinal(number) ?? number}: `;
}

function firstLeaf(element: Element): Element {
  const inner = element.children.find(
    (child): child is Element =>
      child.type === 'element' && /^(?:p|h[1-6]|pre|ul|ol|li|blockquote|div)$/.test(child.tagName),
  );
  return inner ? firstLeaf(inner) : element;
}

/** The language that a block says it is in, or plainly is in; null when that is the text's own. */
function languageOfBlock(
  block: TextBlock,
  around: readonly Element[],
  { text }: PlainText,
  language: string | null,
): string | null {
  const stated = [...around, block.element].findLast(({ properties }) => typeof properties.lang === 'string')
    ?.properties.lang;
  const seen =
    (typeof stated === 'string' ? stated : null) ??
    (block.end - block.start >= ENOUGH_TO_TELL ? languageOf(text.slice(block.start, block.end), language) : language);
  return seen && baseLanguage(seen) !== baseLanguage(language) ? seen : null;
}

/** An utterance with what its pauses follow from. */
interface Paced extends Utterance {
  quotation: Element | undefined;
  isListItem: boolean;
}

/** Numbers the utterances and gives them the silence that belongs between them. */
function paced(spoken: readonly Paced[]): Utterance[] {
  let before: Element | undefined;
  return spoken.map(({ quotation, isListItem, ...each }, index) => {
    const next = spoken[index + 1];
    const turns = quotation !== before;
    before = quotation;
    const leadMs =
      index === 0 || !each.begins
        ? 0
        : turns
          ? PAUSE_MS.quotation
          : each.kind === 'heading'
            ? PAUSE_MS.beforeHeading
            : 0;
    const closing = each.kind === 'heading' ? PAUSE_MS.heading : isListItem ? PAUSE_MS.listItem : PAUSE_MS.paragraph;
    return { ...each, index, leadMs, pauseMs: !next || next.begins ? closing : each.pauseMs };
  });
}

const quotationOf = (element: Element, around: readonly Element[]): Element | undefined =>
  [...around, element].find(({ tagName }) => tagName === 'blockquote');

/** What is said before an article when several are heard one behind the other. */
export function titleUtterance(title: string, source: string, minutes: string, language: string | null): Utterance {
  const text = [title.replace(/[.!?…]*$/u, ''), source, minutes].filter(Boolean).join('. ');
  const said = say(`${text}.`, language);
  return {
    ...unsaid('table', { start: 0, end: 0 }, said.text, null),
    kind: 'title',
    leadMs: PAUSE_MS.quotation,
    pauseMs: PAUSE_MS.heading,
  };
}

/** The utterance that holds a place, or the next one behind it; the last one for a place behind all. */
export function utteranceAt(spoken: readonly Utterance[], offset: number): Utterance | undefined {
  const found = partitionPoint(spoken.length, (at) => (spoken[at]?.end ?? 0) > offset);
  return spoken[Math.min(found, spoken.length - 1)];
}

/** The utterance at which the next paragraph begins, or this one or the one before it, as a listener steps back. */
export function paragraphFrom(spoken: readonly Utterance[], index: number, by: 1 | -1): number {
  if (by === 1) {
    const next = spoken.findIndex((each, at) => at > index && each.begins);
    return next === -1 ? spoken.length - 1 : next;
  }
  const begins = (to: number) =>
    Math.max(
      0,
      spoken.slice(0, to + 1).findLastIndex(({ begins: first }) => first),
    );
  const own = begins(index);
  return own < index ? own : begins(Math.max(0, own - 1));
}
