import { joinSpans, LONGEST_NOTE, type Activity, type Item, type Progress, type Tags } from '../model';

/**
 * Joins two states of one item. Commutative, associative and idempotent, so that devices may send and
 * receive in any order and as often as they like, and end up alike:
 * each choice and each tag by its latest stamp, furthest progress by the larger, position by its latest stamp, what was heard
 * on either, what the server knows by the higher revision.
 */
export function mergeItems(a: Item, b: Item): Item {
  const first = a.savedAt < b.savedAt || (a.savedAt === b.savedAt && a.address <= b.address) ? a : b;
  return {
    id: a.id,
    address: first.address,
    savedAt: first.savedAt,
    choices: mergeRegisters(a.choices, b.choices),
    tags: mergeTags(a.tags, b.tags),
    progress: mergeProgress(a.progress, b.progress),
    capture: a.capture.revision >= b.capture.revision ? a.capture : b.capture,
  };
}

function mergeTags(a: Tags, b: Tags): Tags {
  const joined = { ...a };
  for (const [key, register] of Object.entries(b))
    joined[key] = Object.hasOwn(a, key) ? latest(a[key] ?? register, register) : register;
  return joined;
}

/**
 * An item with the reader's marks of another that it stands for from now on: its tags, where the two do not differ about
 * one, and its note behind the note there is.
 *
 * @param stamp of this change
 */
export function withMarksOf(standing: Item, other: Item, stamp: string): Item {
  const [before, added] = [standing.choices.note.value, other.choices.note.value];
  const note = [before, added].filter(Boolean).join('\n\n').slice(0, LONGEST_NOTE);
  return {
    ...standing,
    tags: { ...other.tags, ...standing.tags },
    choices:
      added === '' || added === before
        ? standing.choices
        : { ...standing.choices, note: { value: note, at: stamp } },
  };
}

function mergeProgress(a: Progress, b: Progress): Progress {
  return {
    furthest: Math.max(a.furthest, b.furthest),
    position: a.position && b.position ? latest(a.position, b.position) : (a.position ?? b.position),
    heard: joinSpans(a.heard, b.heard),
  };
}

/** Joins two states of a set of registers: each field by its latest stamp. */
export function mergeRegisters<Registers extends object>(a: Registers, b: Registers): Registers {
  const joined = Object.keys(a).map((field) => {
    const [one, other] = [a[field as keyof Registers], b[field as keyof Registers]] as [
      { at: string },
      { at: string },
    ];
    return [field, latest(one, other)];
  });
  return Object.fromEntries(joined) as Registers;
}

/** Of two states of a register, the later one. */
function latest<Register extends { at: string }>(a: Register, b: Register): Register {
  return a.at >= b.at ? a : b;
}

/** Joins two states of one sitting: the longer one holds. */
export function mergeActivities(a: Activity, b: Activity): Activity {
  const longer = a.seconds > b.seconds || (a.seconds === b.seconds && a.words >= b.words) ? a : b;
  return { ...longer, words: Math.max(a.words, b.words) };
}
