import { deviceOf, EVERY_DEVICE, MAX_NOTE_LENGTH, NEVER, type Seen, type TextVersion } from '../model';

/** Of what was written over, so much is kept: what two writers had both seen is looked for among it. */
const MAX_EARLIER = 12;
const MAX_EARLIER_LENGTH = 2 * MAX_NOTE_LENGTH;

/** True when the writer of one version had seen another. */
export function hasSeen({ at: own, sees }: TextVersion, { at }: TextVersion): boolean {
  const until = [sees[EVERY_DEVICE] ?? NEVER, sees[deviceOf(at)] ?? NEVER];
  return at < own && until.some((stamp) => stamp >= at);
}

/** The versions that nobody has written over, the earliest first: more than one when they were written apart. */
export function headsOf(versions: readonly TextVersion[]): TextVersion[] {
  return versions.filter((each) => !versions.some((other) => hasSeen(other, each)));
}

/** What somebody has seen who sees these versions. */
export function seenIn(versions: readonly TextVersion[]): Seen {
  return versions.reduce<Seen>(
    (seen, { at, sees }) => joined(joined(seen, withoutLater(sees, at)), { [deviceOf(at)]: at }),
    {},
  );
}

function joined(a: Seen, b: Seen): Seen {
  const both = { ...a };
  for (const [device, stamp] of Object.entries(b)) if (stamp > (both[device] ?? '')) both[device] = stamp;
  return both;
}

/** What a version had seen; nobody has seen what was written later, whatever a clock said that was ahead. */
export function withoutLater(sees: Seen, at: string): Seen {
  return Object.fromEntries(Object.entries(sees).map(([device, stamp]) => [device, stamp < at ? stamp : at]));
}

/**
 * Joins two states of a text: all versions that nobody has written over, and the latest of those that somebody has. It is
 * commutative, associative and idempotent: what is a head of both together is one of its own state, since whoever has seen a
 * version has seen all that its writer had seen; and what is too old to be kept in one state is so in both together.
 */
export function mergeVersions(a: readonly TextVersion[], b: readonly TextVersion[]): TextVersion[] {
  const all = new Map<string, TextVersion>();
  for (const version of [...a, ...b]) {
    const known = all.get(version.at);
    const both = known ? { ...known, ...version, ...same(known, version) } : version;
    all.set(version.at, { ...both, sees: withoutLater(both.sees, both.at) });
  }
  const versions = [...all.values()].sort((one, other) => (one.at < other.at ? -1 : 1));
  const heads = new Set(headsOf(versions));
  let [count, length] = [0, 0];
  const kept = versions.toReversed().filter((version) => {
    if (heads.has(version)) return true;
    count += 1;
    length += version.text.length;
    return count <= MAX_EARLIER && length <= MAX_EARLIER_LENGTH;
  });
  return kept.reverse();
}

/** One stamp stands for one writing; where a sender says otherwise of it, all come to the same. */
function same(one: TextVersion, other: TextVersion): Pick<TextVersion, 'text' | 'sees'> {
  return { text: one.text > other.text ? one.text : other.text, sees: joined(one.sees, other.sees) };
}
