import { z } from 'zod';

/** Thousandths of a text are as fine as a strand can show. */
const STEPS = 1000;

/**
 * Parts of a text, as `[from, to)` in thousandths of its words: ascending, apart from one another. At most 500
 * of them fit, so joining them again and again never grows without end.
 */
export const Spans = z
  .array(z.tuple([z.number().int().min(0).max(STEPS), z.number().int().min(0).max(STEPS)]))
  .max(STEPS / 2)
  .refine(
    (spans) => spans.every(([from, to], index) => from < to && from > (spans[index - 1]?.[1] ?? -1)),
    'spans-out-of-order',
  );
export type Spans = z.infer<typeof Spans>;

/** A part of a text as spans. @param from, to fractions of its words, 0 to 1 */
export function spanOf(from: number, to: number): Spans {
  const [start, end] = [Math.round(from * STEPS), Math.round(to * STEPS)];
  return start < end ? [[start, end]] : [];
}

/** All that is in either. Commutative, associative and idempotent, so devices may join in any order. */
export function joinSpans(a: Spans, b: Spans): Spans {
  const joined: Spans = [];
  for (const [from, to] of [...a, ...b].sort((one, other) => one[0] - other[0])) {
    const last = joined.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else joined.push([from, to]);
  }
  return joined;
}

/** The same parts as fractions, cut off where the text has not been passed yet. */
export function spansWithin(spans: Spans, passed: number): { from: number; to: number }[] {
  return spans
    .map(([from, to]) => ({ from: from / STEPS, to: Math.min(passed, to / STEPS) }))
    .filter(({ from, to }) => from < to);
}
