import { COLOUR_TERMS, readColour, type WantedColour } from '../colour';
import { PictureKind, Stage } from '../model';
import { type Around, readPlace } from '../place';

/** What a reader asks for, as core/search understands it. */
export interface SearchQuery {
  /** All of them are wanted. */
  words: QueryWord[];
  filters: Filter[];
  /** What could not be understood, in words for the reader. The rest counts all the same. */
  faults: string[];
}

/** A word, or a phrase in quotation marks. */
export interface QueryWord {
  text: string;
  /** Words that begin so are meant too. */
  prefix: boolean;
  /** What has it is not wanted. */
  not: boolean;
  /** It was asked for just so, in quotation marks or as the beginning of words: nothing without it will do. */
  strict: boolean;
}

/** What is asked of an item itself, not of its words. */
export type Filter = { not: boolean } & (
  | { kind: 'tag' | 'site' | 'by' | 'lang'; value: string }
  | { kind: 'stage'; value: Stage }
  | { kind: 'is'; value: State }
  | { kind: 'colour'; wanted: WantedColour }
  | { kind: 'kind'; value: AskedKind }
  | { kind: 'near'; around: Around }
  /** From and before, in milliseconds since 1970; null is open. */
  | { kind: 'saved'; from: number | null; before: number | null }
  /** Of the reader's own minutes: what the usual ones are multiplied by, by language. */
  | { kind: 'minutes'; from: number; to: number; paces: Readonly<Record<string, number>> }
);

export const STATES = ['unread', 'reading', 'finished', 'noted', 'tagged', 'partial', 'failed', 'gone'] as const;
export type State = (typeof STATES)[number];

/** Kinds of picture that are asked for; `picture` is any. */
const ASKED_KINDS = [...PictureKind.options, 'black-and-white', 'picture'] as const;
export type AskedKind = (typeof ASKED_KINDS)[number];

interface ReadingOptions {
  /** Now, in milliseconds since 1970. */
  now: number;
  /** The reader's zone: minutes to add to UTC for their clock. */
  zoneMinutes: number;
  /** What the usual minutes are multiplied by for this reader, by ISO 639-1 code; nothing when they are not known. */
  paces?: Readonly<Record<string, number>>;
  /** The reader is typing: the last word may be the beginning of one. */
  typing?: boolean;
}

const MAX_ASKED = 32;
const PART = /(-?)(?:([\p{L}]+):)?(?:["“”„]([^"“”„]*)["“”]?|(\S+))/gu;

/**
 * Reads a query: `eelgrass "brown water" -dredging bar* tag:tides saved:2026-03.. minutes:<10 is:unread`.
 * Never fails: what is not understood is said in `faults`.
 */
export function readQuery(written: string, options: ReadingOptions): SearchQuery {
  const query: SearchQuery = { words: [], filters: [], faults: [] };
  const parts = [...written.matchAll(PART)];
  parts.forEach(([whole, minus, field = '', quoted, bare = '']) => {
    const not = minus === '-';
    const value = quoted ?? bare;
    const name = SAME_FIELD[field.toLowerCase()] ?? field.toLowerCase();
    const unfilled = name === '' && bare.endsWith(':') ? bare.slice(0, -1).toLowerCase() : '';
    if (isField(unfilled) || (isField(name) && value === '')) {
      query.faults.push(`Say what comes after ${unfilled || name}:`);
      return;
    }
    if (isField(name)) {
      readFilter(name, value, not, query, options);
      return;
    }
    const text = name === '' ? value : `${field}:${value}`;
    if (!/[\p{L}\p{N}]/u.test(text)) return;
    const prefix = quoted === undefined && whole.endsWith('*');
    query.words.push({ text: text.replace(/\*+$/, ''), prefix, not, strict: prefix || quoted !== undefined });
  });
  const last = query.words.at(-1);
  const lastPart = parts.at(-1);
  if (options.typing && last && !last.not && lastPart?.[3] === undefined && written.endsWith(last.text))
    last.prefix = last.prefix || last.text.length > 1;
  if (query.words.length > MAX_ASKED) {
    query.words.length = MAX_ASKED;
    query.faults.push(`Only the first ${MAX_ASKED} words are looked for.`);
  }
  return query;
}

const FIELDS = ['tag', 'site', 'by', 'lang', 'stage', 'is', 'saved', 'minutes', 'colour', 'kind', 'near'] as const;
type Field = (typeof FIELDS)[number];
const isField = (name: string): name is Field => (FIELDS as readonly string[]).includes(name);
/** Written otherwise in other countries. */
const SAME_FIELD: Readonly<Record<string, string>> = { color: 'colour' };

function readFilter(field: Field, value: string, not: boolean, query: SearchQuery, options: ReadingOptions): void {
  switch (field) {
    case 'tag':
    case 'site':
    case 'by':
    case 'lang':
      query.filters.push({ kind: field, value: value.normalize('NFC').toLowerCase(), not });
      return;
    case 'stage': {
      const stage = Stage.safeParse(value.toLowerCase().replace(/^letgo$/, 'let-go'));
      if (stage.success) query.filters.push({ kind: 'stage', value: stage.data, not });
      else query.faults.push(`stage: takes ${Stage.options.join(', ')}.`);
      return;
    }
    case 'is': {
      const state = STATES.find((each) => each === value.toLowerCase());
      if (state) query.filters.push({ kind: 'is', value: state, not });
      else query.faults.push(`is: takes ${STATES.join(', ')}.`);
      return;
    }
    case 'colour': {
      const wanted = readColour(value);
      if (wanted) query.filters.push({ kind: 'colour', wanted, not });
      else query.faults.push(`colour: takes ${COLOUR_TERMS.join(', ')}, with light or dark, or another colour’s name.`);
      return;
    }
    case 'kind': {
      const asked = value.toLowerCase().replace(/[\s_]+/g, '-');
      const kind = ASKED_KINDS.find((each) => each === asked);
      if (kind) query.filters.push({ kind: 'kind', value: kind, not });
      else query.faults.push(`kind: takes ${ASKED_KINDS.join(', ')}.`);
      return;
    }
    case 'near': {
      const around = readPlace(value);
      if (around) query.filters.push({ kind: 'near', around, not });
      else query.faults.push('near: takes a place in degrees, as in near:58.981,-2.96 or near:58.981,-2.96,5km');
      return;
    }
    case 'saved': {
      const span = readDays(value, options);
      if (span) query.filters.push({ kind: 'saved', ...span, not });
      else query.faults.push('saved: takes a day, a month or a year, as in saved:2026-03 or saved:2026-03.. ');
      return;
    }
    case 'minutes': {
      const span = readRange(value);
      if (span) query.filters.push({ kind: 'minutes', ...span, paces: options.paces ?? {}, not });
      else query.faults.push('minutes: takes a number or a span, as in minutes:<10 or minutes:5..15');
    }
  }
}

const DAY_MS = 86_400_000;

function readDays(value: string, { now, zoneMinutes }: ReadingOptions) {
  const zone = zoneMinutes * 60_000;
  const today = Math.floor((now + zone) / DAY_MS) * DAY_MS - zone;
  const back = /^(\d{1,4})d$/.exec(value)?.[1];
  if (value === 'today') return { from: today, before: today + DAY_MS };
  if (value === 'yesterday') return { from: today - DAY_MS, before: today };
  if (back) return { from: today - (Number(back) - 1) * DAY_MS, before: null };
  const [first = '', second] = value.split('..');
  const from = first === '' ? null : readPeriod(first, zone);
  const to = second === undefined ? from : second === '' ? null : readPeriod(second, zone);
  if (from === undefined || to === undefined || (from === null && to === null)) return null;
  return { from: from?.from ?? null, before: to?.before ?? null };
}

/** @returns undefined when it is not one */
function readPeriod(value: string, zone: number): { from: number; before: number } | undefined {
  const [, year, month, day] = /^(\d{4})(?:-(\d{1,2}))?(?:-(\d{1,2}))?$/.exec(value) ?? [];
  if (year === undefined) return undefined;
  const [y, m, d] = [Number(year), month ? Number(month) : null, day ? Number(day) : null];
  if (m !== null && (m < 1 || m > 12)) return undefined;
  if (d !== null && (d < 1 || d > 31)) return undefined;
  const from = Date.UTC(y, (m ?? 1) - 1, d ?? 1);
  const before = m === null ? Date.UTC(y + 1, 0) : d === null ? Date.UTC(y, m) : Date.UTC(y, m - 1, d + 1);
  return { from: from - zone, before: before - zone };
}

function readRange(value: string): { from: number; to: number } | null {
  const [, sign, number] = /^([<>]=?)?(\d{1,5}(?:\.\d+)?)$/.exec(value) ?? [];
  if (number !== undefined) {
    const at = Number(number);
    if (sign?.startsWith('<')) return { from: 0, to: at };
    if (sign?.startsWith('>')) return { from: at, to: Infinity };
    return { from: at - 0.5, to: at + 0.5 };
  }
  const [, from, to] = /^(\d{0,5})\.\.(\d{0,5})$/.exec(value) ?? [];
  if (from === undefined || to === undefined || (from === '' && to === '')) return null;
  return { from: from === '' ? 0 : Number(from), to: to === '' ? Infinity : Number(to) };
}
