import { passageAt, placePassage } from '@dorvel/core/highlight';
import { plainText } from '@dorvel/core/text';
import { expect, test } from '@playwright/test';
import { smallWebArticles } from '../articles';

/** A piece of a text with a name of its own, so that it is known where it has gone. */
interface Piece {
  name: number;
  text: string;
}

/** Numbers that are the same in every run (mulberry32, public domain). */
function dice(seed: number) {
  let state = seed;
  const next = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { below: (most: number) => Math.floor(next() * most), chance: (part: number) => next() < part };
}

const COPY = '019a0000-0000-7000-8000-000000000001';
const RUNS = 1000;

test('after a thousand random edits, what still stands is found exactly, and nothing is marked in a wrong place', async ({
  request,
}) => {
  const texts = (await smallWebArticles(request))
    .map(({ article }) => plainText(article.tree).text)
    .filter((text) => text.length > 800);
  const roll = dice(20261125);
  const result = { stands: 0, exact: 0, wrong: 0, changed: 0, changedFound: 0, gone: 0 };
  const misses: string[] = [];
  for (let run = 0; run < RUNS; run++) {
    const text = texts[run % texts.length]!;
    const words = text.split(/(?<=\s)(?=\S)/).map((word, name): Piece => ({ name, text: word }));
    const first = roll.below(words.length - 3);
    const count = 1 + roll.below(Math.min(40, words.length - first - 1));
    const length = (pieces: readonly Piece[]) => pieces.reduce((sum, piece) => sum + piece.text.length, 0);
    const start = length(words.slice(0, first));
    const marked = words.slice(first, first + count);
    const exact = marked
      .map((piece) => piece.text)
      .join('')
      .trimEnd();
    const passage = passageAt(text, start, start + exact.length, COPY);

    const edited = edit(words, roll, texts[(run + 7) % texts.length]!);
    const after = edited.map((piece) => piece.text).join('');
    const left = edited.flatMap((piece, at) => (piece.name >= first && piece.name < first + count ? [at] : []));
    const placed = placePassage(after, passage);
    if (left.length === 0) {
      result.gone++;
      // Its words are gone; if the very same words stand elsewhere with the same around them, that is no fault.
      if (placed && after.slice(placed.start, placed.end) !== exact) result.wrong++;
      continue;
    }
    const from = length(edited.slice(0, left[0]));
    const to = length(edited.slice(0, left.at(-1)! + 1));
    const stands =
      left.length === count &&
      count - 1 === left.at(-1)! - left[0]! &&
      after.slice(from, from + exact.length) === exact;
    if (stands) {
      result.stands++;
      if (placed?.start === from && placed.end === from + exact.length) result.exact++;
      else misses.push(`${placed ? 'elsewhere' : 'lost'}: ${exact.slice(0, 60)}`);
    } else {
      result.changed++;
      if (placed) result.changedFound++;
    }
    if (placed && (placed.end <= from || placed.start >= to)) {
      result.wrong++;
      misses.push(`wrong: ${exact.slice(0, 80)} → ${after.slice(placed.start, placed.end).slice(0, 80)}`);
    }
  }
  test.info().annotations.push({ type: 'measured', description: JSON.stringify(result) });
  expect(result.stands).toBeGreaterThan(RUNS / 2);
  expect(result.exact / result.stands).toBeGreaterThanOrEqual(0.98);
  expect(result.wrong, misses.join('\n')).toBe(0);
});

/** One to twelve edits as pages see them: words changed, put in, taken out; paragraphs moved, taken out, put in. */
function edit(words: readonly Piece[], roll: ReturnType<typeof dice>, other: string): Piece[] {
  const foreign = other.split(/(?<=\s)(?=\S)/).map((text): Piece => ({ name: -1, text }));
  const some = () => {
    const at = roll.below(foreign.length - 1);
    return foreign.slice(at, at + 1 + roll.below(12));
  };
  let pieces = [...words];
  for (let edits = 1 + roll.below(12); edits > 0; edits--) {
    const at = roll.below(pieces.length);
    const kind = roll.below(6);
    if (kind === 0) pieces[at] = { ...some()[0]! };
    else if (kind === 1) pieces.splice(at, 0, ...some());
    else if (kind === 2) pieces.splice(at, 1 + roll.below(6));
    else {
      const paragraphs = inParagraphs(pieces);
      const chosen = roll.below(paragraphs.length);
      const [taken] = kind === 5 ? [] : paragraphs.splice(chosen, 1);
      if (kind === 3 && taken) paragraphs.splice(roll.below(paragraphs.length + 1), 0, taken);
      if (kind === 5) paragraphs.splice(chosen, 0, [...some(), { name: -1, text: '\n\n' }]);
      pieces = paragraphs.flat();
    }
    if (pieces.length < 5) return [...words];
  }
  return pieces;
}

function inParagraphs(pieces: readonly Piece[]): Piece[][] {
  const paragraphs: Piece[][] = [[]];
  for (const piece of pieces) {
    paragraphs.at(-1)!.push(piece);
    if (piece.text.includes('\n\n')) paragraphs.push([]);
  }
  return paragraphs.filter((paragraph) => paragraph.length > 0);
}
