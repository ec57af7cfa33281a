/** Samples a second of all voices that ship. */
export const SAMPLE_RATE = 16_000;

/** What is quieter is silence; of 32,768. */
const HEARD = 90;
/** What is left before the first and behind the last that is heard, in milliseconds: consonants begin and end softly. */
const EDGE_MS = { before: 8, behind: 24 } as const;

export const msOf = (samples: number): number => (samples / SAMPLE_RATE) * 1000;
export const samplesOf = (ms: number): number => Math.round((ms / 1000) * SAMPLE_RATE);

/**
 * A sound without the silence at both ends: the engine leaves two thirds of a second behind each sentence, and how long
 * to pause is for whoever reads to say.
 *
 * @returns the part that is heard, and how many samples were taken off its start; nothing at all for silence
 */
export function trimmed(pcm: Int16Array): { pcm: Int16Array; cut: number } {
  const isHeard = (sample: number) => sample > HEARD || sample < -HEARD;
  const first = pcm.findIndex(isHeard);
  if (first === -1) return { pcm: new Int16Array(), cut: 0 };
  const last = pcm.findLastIndex(isHeard);
  const start = Math.max(0, first - samplesOf(EDGE_MS.before));
  return { pcm: pcm.subarray(start, Math.min(pcm.length, last + 1 + samplesOf(EDGE_MS.behind))), cut: start };
}

/** How loud all sentences of all voices are made: the root of the mean square of what is heard of them, of 1. In decibels. */
const LEVEL_DB = -16;
/** A whisper of a word stays one. */
const MOST_CHANGED_DB = 6;
const BLOCK_MS = 100;
/** What is so much quieter than the rest is a pause and no part of how loud it is, as EBU R 128 has it. In decibels. */
const PAUSE_BELOW_DB = 10;

/**
 * A sentence made as loud as all others; what would go beyond the loudest sample is bent, never cut off.
 *
 * @param voiceDb what the voice's own colour adds to how loud it is heard, which its mean square does not tell
 */
export function levelled(pcm: Int16Array, voiceDb: number): Int16Array {
  const wanted = LEVEL_DB + voiceDb - levelDb(pcm);
  const gain = 10 ** (Math.min(MOST_CHANGED_DB, Math.max(-MOST_CHANGED_DB, wanted)) / 20);
  return pcm.map((sample) => Math.round(bent((sample * gain) / FULL) * FULL));
}

/** The mean square of what is no pause, in decibels below the loudest sample; that of silence is the level wanted. */
function levelDb(pcm: Int16Array): number {
  const block = samplesOf(BLOCK_MS);
  const powers: number[] = [];
  for (let at = 0; at + block <= pcm.length; at += block) {
    let sum = 0;
    for (const sample of pcm.subarray(at, at + block)) sum += (sample / FULL) ** 2;
    powers.push(sum / block);
  }
  const mean = (of: readonly number[]) => of.reduce((sum, power) => sum + power, 0) / of.length;
  const floor = mean(powers) / 10 ** (PAUSE_BELOW_DB / 10);
  const heard = powers.filter((power) => power > floor);
  return heard.length === 0 ? LEVEL_DB : 10 * Math.log10(mean(heard));
}

const FULL = 32_767;
/** From here on the way to the loudest sample is bent, so that peaks keep their shape; of 1. */
const KNEE = 0.75;

function bent(level: number): number {
  const size = Math.abs(level);
  if (size <= KNEE) return level;
  const over = (size - KNEE) / (1 - KNEE);
  // Never 1: a sample at full scale is what a clipped one looks like.
  return Math.sign(level) * (KNEE + (1 - KNEE) * 0.98 * Math.tanh(over));
}

/** Sounds one behind the other. */
export function joined(pieces: readonly Int16Array[]): Int16Array<ArrayBuffer> {
  const all = new Int16Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}

export const silence = (ms: number): Int16Array<ArrayBuffer> => new Int16Array(samplesOf(ms));
