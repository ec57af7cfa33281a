import type { Choices, Item, Progress } from '../model';

/**
 * Joins two states of one item. Commutative, associative and idempotent, so that devices may send and
 * receive in any order and as often as they like, and end up alike:
 * each choice by its latest stamp, furthest progress by the larger, position by its latest stamp, what the
 * server knows by the higher revision.
 */
export function mergeItems(a: Item, b: Item): Item {
  const first = a.savedAt < b.savedAt || (a.savedAt === b.savedAt && a.address <= b.address) ? a : b;
  return {
    id: a.id,
    address: first.address,
    savedAt: first.savedAt,
    choices: mergeChoices(a.choices, b.choices),
    progress: mergeProgress(a.progress, b.progress),
    capture: a.capture.revision >= b.capture.revision ? a.capture : b.capture,
  };
}

function mergeChoices(a: Choices, b: Choices): Choices {
  return {
    stage: latest(a.stage, b.stage),
    title: latest(a.title, b.title),
    queueRank: latest(a.queueRank, b.queueRank),
    raisedAt: latest(a.raisedAt, b.raisedAt),
    finishedAt: latest(a.finishedAt, b.finishedAt),
  };
}

function mergeProgress(a: Progress, b: Progress): Progress {
  return {
    furthest: Math.max(a.furthest, b.furthest),
    position: a.position && b.position ? latest(a.position, b.position) : (a.position ?? b.position),
  };
}

function latest<Register extends { at: string }>(a: Register, b: Register): Register {
  return a.at >= b.at ? a : b;
}
