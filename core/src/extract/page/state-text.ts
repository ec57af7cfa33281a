import { parseLoosely } from '../metadata/linked-data';
import { attribute, descendants, isText, type PageDocument } from './page-tree';

/** Less than this is no article's text. */
const MIN_TEXT = 400;
const MAX_STATE = 3_000_000;
const MAX_DEPTH = 30;
const MAX_VALUES = 60_000;

/**
 * The text that a page built by script keeps in the data of its scripts: the longest prose in any JSON there, either
 * one string or a row of blocks that each hold one.
 *
 * @returns the text, which may be markup itself, or null when no script holds one
 */
export function textInState(document: PageDocument): string | null {
  let best = '';
  for (const element of descendants(document)) {
    if (element.tagName !== 'script' || /ld\+json/i.test(attribute(element, 'type') ?? '')) continue;
    const source = element.childNodes
      .filter(isText)
      .map((node) => node.value)
      .join('');
    if (source.length < MIN_TEXT || source.length > MAX_STATE) continue;
    for (const state of statesIn(source)) {
      const found = longestProse(state);
      if (found.length > best.length) best = found;
    }
  }
  return best.length >= MIN_TEXT ? best : null;
}

/** The JSON in a script: the whole of it, what a name is set to, or what `JSON.parse` is given. */
function statesIn(source: string): unknown[] {
  const trimmed = source.trim();
  const quoted = /JSON\.parse\(\s*("(?:[^"\\]|\\.)*")\s*\)/s.exec(trimmed)?.[1];
  const inner = quoted === undefined ? undefined : parseLoosely(quoted);
  if (typeof inner === 'string') return [parseLoosely(inner)];
  if (/^[[{]/.test(trimmed)) return [parseLoosely(trimmed)];
  return [...trimmed.matchAll(/[\w\])"']\s*=\s*(?=[[{])/g)]
    .slice(0, 8)
    .map(({ index, 0: lead }) => parseLoosely(balanced(trimmed, index + lead.length)));
}

/** From an opening bracket to the one that closes it, strings minded. */
function balanced(source: string, from: number): string {
  let depth = 0;
  let inString = false;
  for (let at = from; at < source.length; at++) {
    const char = source[at];
    if (inString) {
      if (char === '\\') at++;
      else if (char === '"') inString = false;
    } else if (char === '"') inString = true;
    else if (char === '{' || char === '[') depth++;
    else if ((char === '}' || char === ']') && --depth === 0) return source.slice(from, at + 1);
  }
  return '';
}

function longestProse(state: unknown): string {
  let best = '';
  let seen = 0;
  const visit = (value: unknown, depth: number) => {
    if (depth > MAX_DEPTH || ++seen > MAX_VALUES) return;
    if (typeof value === 'string') {
      if (value.length > best.length && isProse(value)) best = value;
    } else if (Array.isArray(value)) {
      const row = joinedBlocks(value);
      if (row.length > best.length && isProse(row)) best = row;
      for (const each of value as unknown[]) visit(each, depth + 1);
    } else if (typeof value === 'object' && value !== null)
      for (const each of Object.values(value)) visit(each, depth + 1);
  };
  visit(state, 0);
  return best;
}

/** `[{type: "paragraph", text: "…"}, …]`: the strings under the key that holds most of them, in their order. */
function joinedBlocks(blocks: readonly unknown[]): string {
  if (blocks.every((each) => typeof each === 'string')) return paragraphs(blocks);
  const lengths = new Map<string, number>();
  for (const block of blocks)
    if (typeof block === 'object' && block !== null)
      for (const [key, value] of Object.entries(block))
        if (typeof value === 'string') lengths.set(key, (lengths.get(key) ?? 0) + value.length);
  const key = [...lengths].sort((a, b) => b[1] - a[1])[0]?.[0];
  if (key === undefined) return '';
  return paragraphs(
    blocks.flatMap((block) => {
      const value = typeof block === 'object' && block !== null && (block as Record<string, unknown>)[key];
      return typeof value === 'string' ? [value] : [];
    }),
  );
}

function paragraphs(texts: readonly string[]): string {
  return texts.map((text) => text.trim()).join('\n');
}

/** Sentences, and no code, list of addresses or style sheet. */
function isProse(text: string): boolean {
  const words = text.match(/\p{L}{2,}/gu)?.length ?? 0;
  const marks = text.match(/[.!?。！？؟](?:\s|["”’»<]|$)/gu)?.length ?? 0;
  return words > 40 && marks >= 4 && marks * 120 > words && !/\bfunction\s*\(|[{};]\s*[{};]/.test(text);
}
