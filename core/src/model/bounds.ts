import type { z } from 'zod';

/** What became of a record that was brought within its bounds. */
export type Bounded<Output> =
  /** `cut` names what had to be cut, left out or limited; empty when it fitted as it was. */
  | { ok: true; record: Output; cut: string[] }
  /** What does not fit. */
  | { ok: false; issues: Issue[] };

type Path = readonly PropertyKey[];
type Issue = z.core.$ZodIssue;

/** Each round mends what the one before could not; a record that needs more is not what it should be. */
const MAX_ROUNDS = 24;
const ADDRESS = /^(?:https?|mid|ni):/i;

/**
 * Brings a record within the bounds of its schema, so that other people's words never make a record that cannot be
 * read again: texts are cut, lists lose what is too much, numbers go to the nearest that is allowed, and what cannot
 * be mended so is left out where it may be missing. A cut address would lead elsewhere, so it is left out.
 *
 * @param mayCut says of a path whether it is other people's; the reader's own is never cut. By default all is.
 */
export function withinBounds<Schema extends z.ZodType>(
  schema: Schema,
  value: unknown,
  mayCut: (path: Path) => boolean = () => true,
): Bounded<z.output<Schema>> {
  const first = schema.safeParse(value);
  if (first.success) return { ok: true, record: first.data, cut: [] };
  const record = structuredClone(value);
  const cut = new Map<string, number>();
  let { error } = first as { error: z.core.$ZodError };
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const issues = error.issues.flatMap(innermost);
    if (!issues.every(({ path }) => mayCut(path))) break;
    // From the end, so that what is taken out of a list does not move what is still to be mended.
    for (const issue of issues.reverse()) mend(record, issue.path, issue, cut);
    const again = schema.safeParse(record);
    if (again.success) return { ok: true, record: again.data, cut: [...cut.keys()] };
    ({ error } = again as { error: z.core.$ZodError });
  }
  return { ok: false, issues: error.issues.slice(0, 3) };
}

/** A union says of each of its members why it is not that one; of those the nearest counts, which has the fewest faults. */
function innermost(issue: Issue): Issue[] {
  if (issue.code !== 'invalid_union') return [issue];
  const [nearest] = issue.errors.filter((each) => each.length > 0).sort((a, b) => a.length - b.length);
  if (!nearest) return [issue];
  return nearest.flatMap((each) => innermost({ ...each, path: [...issue.path, ...each.path] }));
}

/**
 * Mends a place in a record, each time more boldly: made to fit, then empty, then left out, then what it is part of.
 *
 * @param cut how often each place has been mended
 */
function mend(record: unknown, path: Path, issue: Issue, cut: Map<string, number>): void {
  const key = path.at(-1);
  const parent = path.slice(0, -1).reduce<unknown>((at, each) => (isObject(at) ? at[each] : undefined), record);
  if (!isObject(parent) || key === undefined) return;
  const name = path.map(String).join('.');
  const times = (cut.get(name) ?? 0) + 1;
  cut.set(name, times);
  const isItself = path.length === issue.path.length;
  if (times === 1 && isItself && issue.code !== 'invalid_key') parent[key] = fitted(parent[key], issue);
  else if (Array.isArray(parent)) parent.splice(Number(key), 1);
  else if (times <= 2 && issue.code !== 'invalid_key') parent[key] = null;
  else if (times <= 3) Reflect.deleteProperty(parent, key);
  else mend(record, path.slice(0, -1), issue, cut);
}

function fitted(value: unknown, issue: Issue): unknown {
  if (issue.code === 'too_big') {
    const most = Number(issue.maximum);
    if (typeof value === 'string') return ADDRESS.test(value) ? null : clipped(value, most);
    if (Array.isArray(value)) return value.slice(0, most);
    if (typeof value === 'number') return most;
    if (isObject(value)) return Object.fromEntries(Object.entries(value).slice(0, most));
  }
  if (issue.code === 'too_small' && typeof value === 'number') return Number(issue.minimum);
  if (issue.code === 'invalid_type' && issue.expected === 'int' && typeof value === 'number') return Math.trunc(value);
  if (issue.code === 'invalid_type' && issue.expected === 'array') return [];
  return null;
}

function isObject(value: unknown): value is Record<PropertyKey, unknown> {
  return typeof value === 'object' && value !== null;
}

/**
 * The beginning of a text, with an ellipsis where something was cut off; never half a character.
 *
 * @param most UTF-16 units, at least 1
 */
export function clipped(text: string, most: number): string {
  return text.length <= most ? text : `${wellFormed(text.slice(0, most - 1)).replace(/\uFFFD$/, '')}…`;
}

/** A text in which each half of a surrogate pair that stands alone is U+FFFD (Unicode 16, 3.9; ECMAScript toWellFormed). */
export function wellFormed(text: string): string {
  return text.replace(/\p{Surrogate}/gu, '\uFFFD');
}

/** The same for every text in a value, which is made again. */
export function wellFormedWithin<Value>(value: Value): Value {
  if (typeof value === 'string') return wellFormed(value) as Value;
  if (Array.isArray(value)) return value.map(wellFormedWithin) as Value;
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, each]) => [wellFormed(key), wellFormedWithin(each)]),
  ) as Value;
}
