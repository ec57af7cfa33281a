import type { Element, ElementContent } from 'hast';
import { toString } from 'hast-util-to-string';
import { element, figureOf } from '../tree/phrases';
import {
  announcesComments,
  announcesOthers,
  announcesSources,
  isLineOfClutter,
  isPreambleLine,
  isSignedAndDated,
  isStep,
  isTailLine,
  saysWhen,
  tellsNamesApart,
} from './lines';

export const HEADINGS: ReadonlySet<string> = new Set('h1 h2 h3 h4 h5 h6'.split(' '));

/** Last pass over the blocks of a text: pictures into figures; what leads up to it and trails off behind it out. */
export function tidyBlocks(blocks: Element[]): Element[] {
  const kept = withoutRepeatedPictures(
    withoutStrays(blocks.map((block, at) => tidyBlock(block, blocks[at - 1])).filter((block) => block !== null)),
  );
  const out = factsBehind(withoutTail(withoutPreamble(kept.filter((block) => !isInvitation(block)))));
  // A heading with nothing under it announced something that was taken out: from the end, since the one before it
  // may then have nothing under it either.
  const later: Element[] = [];
  for (const block of out.toReversed()) {
    const next = later.at(-1);
    const isBare =
      HEADINGS.has(block.tagName) &&
      (next === undefined || (HEADINGS.has(next.tagName) && Number(next.tagName[1]) < Number(block.tagName[1])));
    if (!isBare) later.push(block);
  }
  return withoutStrays(later.reverse()).filter(isNeededRule);
}

/** A picture that stood before, in another size or for another width of screen, and says nothing that is new. */
function withoutRepeatedPictures(blocks: Element[]): Element[] {
  const seen = new Map<string, Set<string>>();
  return blocks.filter((block) => {
    if (block.tagName !== 'figure') return true;
    const addresses = pictureAddresses(block);
    const [address] = addresses;
    if (address === undefined || addresses.length > 1) return true;
    const said = toString(block).trim();
    const before = seen.get(address);
    seen.set(address, new Set([...(before ?? []), said]));
    return before === undefined || (said !== '' && !before.has(said));
  });
}

function pictureAddresses(node: ElementContent): string[] {
  if (node.type !== 'element') return [];
  return node.tagName === 'img' ? [String(node.properties.src)] : node.children.flatMap(pictureAddresses);
}

/** A rule parts two blocks: at the beginning, at the end or behind another there is nothing to part. */
function isNeededRule(block: Element, at: number, all: readonly Element[]): boolean {
  return block.tagName !== 'hr' || (at > 0 && at < all.length - 1 && all[at - 1]?.tagName !== 'hr');
}

/** Pictures into figures; nothing is judged. */
export function tidyPictures(blocks: Element[]): Element[] {
  return blocks.flatMap((block) => {
    if (block.tagName === 'hr' || toString(block).trim() !== '') return [block];
    if (!holdsPicture(block)) return [];
    return [block.tagName === 'p' ? figureOf(block.children) : block];
  });
}

/** Paragraphs this long are where a text has begun. */
const PARAGRAPH = 90;

/** Takes away bylines, dates and buttons that stand before the first paragraph. */
function withoutPreamble(blocks: Element[]): Element[] {
  const first = blocks.findIndex((block) => {
    const text = toString(block).trim();
    return text.length >= PARAGRAPH && !isPreambleLine(text);
  });
  const leadsUp = (block: Element, index: number): boolean => {
    const text = toString(block).trim();
    if (index < FIRST_BLOCKS && tellsNamesApart(text) && linkedText(block) > 0) return true;
    // The first paragraph may be a standfirst, under which stands who wrote it.
    return index < first
      ? isPreambleLine(text) || (index < FIRST_BLOCKS && leadsAway(block, text))
      : index === first + 1 && isSignedAndDated(text);
  };
  return first === -1 ? blocks : blocks.filter((block, index) => !leadsUp(block, index) || holdsPicture(block));
}

/** A short line that is all link: back to the site's first page, to the part before. One that is an address is to be read. */
function leadsAway(block: Element, text: string): boolean {
  const isAllLink = text.length > 0 && text.length < 80 && linkedText(block) >= 0.9 * text.length;
  return block.tagName === 'p' && isAllLink && !/^(?:https?:|www\.)/i.test(text);
}

/** So far down a line may stand that tells names apart. */
const FIRST_BLOCKS = 4;

/** One letter or sign, of a script whose words have more. */
const STRAY = /^(?:\p{P}|\p{S}|[\p{Script=Latin}\p{Script=Cyrillic}\p{Script=Greek}])$/u;

/** What is left of a label beside a picture: one letter or sign that stands alone behind it. An initial of the next line stays. */
function withoutStrays(blocks: Element[]): Element[] {
  const kept: Element[] = [];
  for (const [index, block] of blocks.entries()) {
    const next = blocks[index + 1];
    const isStray =
      block.tagName === 'p' &&
      kept.at(-1)?.tagName === 'figure' &&
      !holdsPicture(block) &&
      STRAY.test(toString(block).trim()) &&
      !(next?.tagName === 'p' && /^\p{Ll}/u.test(toString(next).trim()));
    if (!isStray) kept.push(block);
  }
  return kept;
}

/** A text has begun where so many paragraphs follow. */
const PARAGRAPHS_AFTER = 3;

/** A box of facts that stands before the first paragraph goes behind the text: it is looked up, and not read on the way. */
function factsBehind(blocks: Element[]): Element[] {
  const isParagraph = (block: Element) => block.tagName === 'p' && toString(block).trim().length >= PARAGRAPH;
  const first = blocks.findIndex(isParagraph);
  if (blocks.slice(first + 1).filter(isParagraph).length < PARAGRAPHS_AFTER) return blocks;
  const facts = blocks.slice(0, first).filter(isFacts);
  return [...blocks.filter((block) => !facts.includes(block)), ...facts];
}

const MAX_FACT = 160;

/** True for a table whose rows are a name and what it is, under one heading perhaps. */
function isFacts(block: Element): boolean {
  if (block.tagName !== 'table') return false;
  const rows = block.children.flatMap(rowsIn);
  const cells = rows.map((row) => row.children.filter((cell) => cell.type === 'element'));
  const pairs = cells.filter((row) => row.length === 2 && row.every((cell) => toString(cell).length <= MAX_FACT));
  return pairs.length >= 3 && pairs.length >= rows.length - 2 && cells.every((row) => row.length <= 2);
}

const rowsIn = (node: ElementContent): Element[] =>
  node.type !== 'element' ? [] : node.tagName === 'tr' ? [node] : node.children.flatMap(rowsIn);

/** A line between paragraphs that is all link and asks for the text to be handed on: it ends nothing. */
function isInvitation(block: Element): boolean {
  const text = toString(block).trim();
  return block.tagName === 'p' && INVITES.test(text) && text.length < 60 && linkedText(block) >= 0.9 * text.length;
}

const INVITES = /^(?:share|tweet|forward|subscribe|sign up|leave a comment|teilen|weitersagen|partager|compartir)\b/i;

/** A tail is short beside the text: what is longer belongs to it, whatever stands above. */
const TAIL_FROM = 0.75;

/** Cuts off what follows a heading that announces other articles, when the text itself is over. */
function withoutTail(blocks: Element[]): Element[] {
  const lengths = blocks.map((block) => toString(block).length);
  const total = lengths.reduce((sum, length) => sum + length, 0);
  let before = 0;
  for (const [index, block] of blocks.entries()) {
    const text = toString(block).trim();
    // Readers' comments can be longer than the text: they are known by their dates, too.
    if (
      announcesComments(text) &&
      before > 400 &&
      blocks.slice(index).filter((each) => saysWhen(toString(each))).length >= 2
    )
      return blocks.slice(0, index);
    const announces = (HEADINGS.has(block.tagName) || text.length < 50) && announcesOthers(text);
    if (announces && before > TAIL_FROM * total) return blocks.slice(0, index);
    before += lengths[index] ?? 0;
  }
  return withoutLastLines(blocks);
}

/** Labels behind the last paragraph. */
function withoutLastLines(blocks: Element[]): Element[] {
  let end = blocks.length;
  while (end > 1) {
    const last = blocks[end - 1];
    if (last?.tagName !== 'p' || holdsPicture(last)) break;
    const text = toString(last).trim();
    if (!isTailLine(text) && !(isStep(text) && leadsAway(last, text))) break;
    end--;
  }
  // A poem or a list of names is all short lines: then they are the text.
  return toString(blocks[end - 1] ?? element('p', [])).length >= PARAGRAPH ? blocks.slice(0, end) : blocks;
}

function tidyBlock(block: Element, before: Element | undefined): Element | null {
  const text = toString(block).trim();
  if (block.tagName === 'hr') return block;
  if (text === '') {
    if (!holdsPicture(block)) return null;
    return block.tagName === 'p' ? figureOf(block.children) : block;
  }
  // What is left of a label beside a picture.
  if (block.tagName === 'p' && STRAY.test(text) && holdsPicture(block))
    return figureOf(block.children.filter((child) => child.type === 'element'));
  if (block.tagName !== 'pre' && isLineOfClutter(text)) return null;
  if (block.tagName === 'pre' && isNumbering(text)) return null;
  const isOfSources = before !== undefined && HEADINGS.has(before.tagName) && announcesSources(toString(before));
  const isList = block.tagName === 'ul' || block.tagName === 'ol';
  if (isList && !isOfSources && (isLinkList(block, text) || isListOfSteps(block))) return null;
  return block;
}

/** The numbers of lines, beside code whose lines they are. */
function isNumbering(text: string): boolean {
  const lines = text.split(/\s+/);
  return lines.length >= 3 && lines.every((line, at) => Number(line) === Number(lines[0]) + at);
}

/** A list whose every entry is one link, and little more: a menu or "related" list that had no telling name. */
function isLinkList(list: Element, text: string): boolean {
  const linked = linkedText(list);
  return list.children.length >= 3 && linked > 0.9 * text.length && text.length / list.children.length < 30;
}

/** "Previous message: …", "Next message: …": where to go from here. */
function isListOfSteps(list: Element): boolean {
  const entries = list.children.filter((child) => child.type === 'element');
  const steps = entries.filter((entry) => linkedText(entry) > 0 && isStep(toString(entry)));
  return entries.length >= 2 && steps.length > 0.5 * entries.length;
}

function linkedText(node: Element): number {
  return node.children.reduce(
    (sum, child) =>
      sum + (child.type !== 'element' ? 0 : child.tagName === 'a' ? toString(child).length : linkedText(child)),
    0,
  );
}

/** True for a picture or a card, and for what has one in it. */
export function holdsPicture(node: ElementContent): boolean {
  return (
    node.type === 'element' &&
    (node.tagName === 'img' || node.properties.dataCard !== undefined || node.children.some(holdsPicture))
  );
}
