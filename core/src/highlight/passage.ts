import search from 'approx-string-match';
import { CONTEXT_LENGTH, type MarkedPassage } from '../model';

/** Where a passage stands in a text, and by what it was found: its very words, or words much like them. */
export interface Placed {
  /** Offsets in the plain text. */
  start: number;
  end: number;
  by: 'words' | 'likeness';
}

/**
 * Describes a part of a text so that it can be found again.
 *
 * @param text plain text of a copy, see core/text
 * @param copyId the copy; null for the live page, whose offsets mean nothing elsewhere
 */
export function passageAt(text: string, start: number, end: number, copyId: string | null): MarkedPassage {
  return {
    exact: text.slice(start, end),
    prefix: text.slice(Math.max(0, start - CONTEXT_LENGTH), start),
    suffix: text.slice(end, end + CONTEXT_LENGTH),
    start: copyId === null ? null : start,
    copyId,
  };
}

/** Words that stand once in a text, and this many characters of them, are the passage whatever stands around them. */
const TELLING_LENGTH = 32;
/** The same for a quotation from elsewhere, of which nobody says what stood around it. */
const TELLING_ALONE = 16;
/** How much of what stood around must still stand there, where the words alone do not tell. */
const TELLING_CONTEXT = 0.3;
/** So much of a passage may have been written otherwise. */
const MAX_ERRORS = 0.25;
/** A shorter passage is too much like others. */
const MIN_ALIKE = 24;
/** Of the numbers of a passage so many have to stand there still: rows of a table are alike but for theirs. */
const SAME_NUMBERS = 0.5;
/** By so much the likeliest place has to be ahead of the next. */
const AHEAD = 0.12;

/**
 * Finds a passage again in its text or in another copy of it: its very words first, told apart by what stands around
 * them; then words much like them (approximate string matching, Myers 1999, "A fast bit-vector algorithm").
 *
 * @returns null when no place is sure: better lost, and said so, than marked in the wrong place
 */
export function placePassage(text: string, passage: MarkedPassage): Placed | null {
  return byWords(text, passage) ?? byLikeness(text, passage);
}

function byWords(text: string, passage: MarkedPassage): Placed | null {
  const { exact } = passage;
  const places: number[] = [];
  for (let at = text.indexOf(exact); at !== -1; at = text.indexOf(exact, at + 1)) places.push(at);
  const sure = likeliest(
    places.map((start) => ({
      start,
      end: start + exact.length,
      likeness: contextAt(text, start, start + exact.length, passage),
    })),
  );
  if (!sure) {
    // Two places with the same words around them: the one where it was, if one of them is.
    const same = places.find((start) => start === passage.start);
    return same === undefined ? null : { start: same, end: same + exact.length, by: 'words' };
  }
  const isBare = passage.prefix === '' && passage.suffix === '' && passage.start === null;
  const enough = isBare ? TELLING_ALONE : TELLING_LENGTH;
  const tells = sure.likeness >= TELLING_CONTEXT || (places.length === 1 && exact.length >= enough);
  return tells ? { start: sure.start, end: sure.end, by: 'words' } : null;
}

function byLikeness(text: string, passage: MarkedPassage): Placed | null {
  const { exact } = passage;
  if (exact.length < MIN_ALIKE) return null;
  const matches = search(text, exact, Math.floor(exact.length * MAX_ERRORS));
  const places: Candidate[] = [];
  for (const { start, end, errors } of matches) {
    const likeness = 0.6 * (1 - errors / exact.length) + 0.4 * contextAt(text, start, end, passage);
    const known = places.find((each) => each.start < end && start < each.end);
    if (!known) places.push({ start, end, likeness });
    else if (likeness > known.likeness) Object.assign(known, { start, end, likeness });
  }
  const sure = likeliest(places);
  if (!sure) return null;
  const context = contextAt(text, sure.start, sure.end, passage);
  const tells = context >= TELLING_CONTEXT || exact.length >= 2 * TELLING_LENGTH;
  const place = wholeWords(text, sure.start, sure.end);
  return tells && hasNumbersOf(exact, text.slice(place.start, place.end)) ? { ...place, by: 'likeness' } : null;
}

/** Whether enough of the numbers of a passage stand in what is like it; one alone may have been put right. */
function hasNumbersOf(exact: string, like: string): boolean {
  const numbers = numbersIn(exact);
  if (numbers.length < 2) return true;
  const there = new Set(numbersIn(like));
  return numbers.filter((number) => there.has(number)).length >= SAME_NUMBERS * numbers.length;
}

const numbersIn = (text: string): string[] => text.match(/\p{N}+(?:[.,:]\p{N}+)*/gu) ?? [];

interface Candidate {
  start: number;
  end: number;
  /** 0 to 1. */
  likeness: number;
}

/** The likeliest of some places; null when there is none, or when another is nearly as likely. */
function likeliest(places: readonly Candidate[]): Candidate | null {
  const [first, second] = [...places].sort((a, b) => b.likeness - a.likeness || a.start - b.start);
  if (!first) return null;
  return second && first.likeness - second.likeness < AHEAD ? null : first;
}

/** How much of what stood around a passage stands around a place: 0 to 1. One side that stands whole counts most. */
function contextAt(text: string, start: number, end: number, { prefix, suffix }: MarkedPassage): number {
  const before = text.slice(Math.max(0, start - 2 * CONTEXT_LENGTH), start);
  const after = text.slice(end, end + 2 * CONTEXT_LENGTH);
  const sides = [
    prefix === '' ? Number(start === 0) : sharedEnd(prefix, before) / prefix.length,
    suffix === '' ? Number(end === text.length) : sharedStart(suffix, after) / suffix.length,
  ];
  return 0.7 * Math.max(...sides) + 0.3 * Math.min(...sides);
}

function sharedStart(a: string, b: string): number {
  let at = 0;
  while (at < a.length && a[at] === b[at]) at++;
  return at;
}

function sharedEnd(a: string, b: string): number {
  let at = 0;
  while (at < a.length && a[a.length - 1 - at] === b[b.length - 1 - at]) at++;
  return at;
}

/** A match that begins or ends inside a word is taken to the word's edge. */
function wholeWords(text: string, start: number, end: number): { start: number; end: number } {
  const isLetter = (at: number) => /[\p{L}\p{N}]/u.test(text[at] ?? '');
  let [from, to] = [start, end];
  while (from > 0 && isLetter(from - 1) && isLetter(from)) from--;
  while (to < text.length && isLetter(to - 1) && isLetter(to)) to++;
  return { start: from, end: to };
}
