import type { PicoModule } from './pico-module';

/*
 * The engine tells no times. Its parts hand what they make to one another through queues in memory that can be read, and so
 * it is seen when each word is said:
 *
 *     3  words as they are written         5  how each is pronounced (empty for what is said with the next)
 *     7  syllables, words apart            8  phones, each with how many frames it lasts
 *
 * A queue is { u32 buffer; u16 rear, front, length, size; u32 owner; u32 13; u32 14 }. An item in it is a kind, two bytes that
 * say more of it, a length, and so many bytes.
 */

/** How many queues stand between the parts of one engine. */
export const QUEUES = 10;
const [WORDS, PRONOUNCED, SYLLABLES, PHONES] = [3, 5, 7, 8];
const QUEUE_BYTES = 24;
const [REAR, SIZE] = [4, 10];
/** Two addresses of functions that every queue has, and nothing else in memory beside one another. */
const GETS = 13;
const PUTS = 14;
/** Samples in a frame. */
export const FRAME = 64;
/** A phone's item: five states, six bytes each, of which the first is its number of frames. */
const STATES = 5;
const STATE_BYTES = 6;
const HEAD = 4;

const kind = (letter: string) => letter.charCodeAt(0);

/** A word as the engine took it, and the frame in which it begins to be said. */
export interface WordHeard {
  form: string;
  frame: number;
  /** How it is pronounced, in the language's own numbers. */
  phones: readonly number[];
}

/** What was said of a text, with how long all of it lasts. */
export interface Timing {
  words: WordHeard[];
  frames: number;
}

/** Where the queues of an engine stand, in the order of its parts. */
export function findQueues({ HEAPU32 }: PicoModule, from: number, bytes: number): number[] {
  const found: number[] = [];
  for (let at = from >> 2; at + QUEUE_BYTES / 4 <= (from + bytes) >> 2; at += 1)
    if (HEAPU32[at + 4] === GETS && HEAPU32[at + 5] === PUTS) found.push(at * 4);
  return found;
}

/** Watches the queues of an engine while it speaks; to be asked to look after each of its steps. */
export interface QueueReader {
  look(): void;
  /** @returns null where what was seen does not fit together */
  timing(): Timing | null;
}

/** @param queues of the engine that is about to speak; see findQueues */
export function readQueues(module: PicoModule, queues: readonly number[]): QueueReader | null {
  if (queues.length !== QUEUES) return null;
  const { HEAPU8, HEAPU16, HEAPU32 } = module;
  const read = (index: number) => {
    const at = queues[index] ?? 0;
    const rearAt = (at + REAR) >> 1;
    const buffer = HEAPU32[at >> 2] ?? 0;
    const size = HEAPU16[(at + SIZE) >> 1] ?? 1;
    let seen = HEAPU16[rearAt] ?? 0;
    const bytes: number[] = [];
    return {
      bytes,
      look() {
        const rear = HEAPU16[rearAt] ?? 0;
        while (seen !== rear) {
          bytes.push(HEAPU8[buffer + seen] ?? 0);
          seen = (seen + 1) % size;
        }
      },
    };
  };
  const [words, pronounced, syllables, phones] = [read(WORDS), read(PRONOUNCED), read(SYLLABLES), read(PHONES)];
  return {
    look() {
      words.look();
      pronounced.look();
      syllables.look();
      phones.look();
    },
    timing: () =>
      timingOf({
        words: words.bytes,
        pronounced: pronounced.bytes,
        syllables: syllables.bytes,
        phones: phones.bytes,
      }),
  };
}

interface Item {
  kind: number;
  more: number;
  data: readonly number[];
}

function itemsOf(bytes: readonly number[]): Item[] {
  const items: Item[] = [];
  for (let at = 0; at + HEAD <= bytes.length;) {
    const [of = 0, more = 0, , length = 0] = bytes.slice(at, at + HEAD);
    items.push({ kind: of, more, data: bytes.slice(at + HEAD, at + HEAD + length) });
    at += HEAD + length;
  }
  return items;
}

/**
 * Words and their frames, from what went through four queues. All of it has to agree, word for word and phone for phone:
 * a time that is wrong is worse than one that is guessed.
 *
 * @returns null where it does not
 */
export function timingOf(seen: {
  words: readonly number[];
  pronounced: readonly number[];
  syllables: readonly number[];
  phones: readonly number[];
}): Timing | null {
  const utf8 = new TextDecoder();
  const forms = itemsOf(seen.words)
    .filter((item) => item.kind === kind('g'))
    .map(({ data }) => utf8.decode(Uint8Array.from(data)));
  const pronounced = itemsOf(seen.pronounced).filter((item) => item.kind === kind('w'));
  if (pronounced.length !== forms.length) return null;
  const spoken = forms.filter((_, at) => (pronounced[at]?.data.length ?? 0) > 0);
  const wordsInPhones = phonesByWord(itemsOf(seen.syllables));
  if (wordsInPhones.length !== spoken.length) return null;

  const phones = itemsOf(seen.phones).filter((item) => item.kind === kind('h'));
  // Each language numbers its phones in its own way; what all begins with is silence, which the last part puts in by itself.
  const silent = phones[0]?.more;
  const words: WordHeard[] = [];
  let frame = 0;
  let next = 0;
  const lasts = ({ data }: Item): number => {
    let sum = 0;
    for (let state = 0; state < STATES; state += 1) sum += data[state * STATE_BYTES] ?? 0;
    return sum;
  };
  for (const [at, ofWord] of wordsInPhones.entries()) {
    for (const [n, phone] of ofWord.entries()) {
      for (
        let pause = phones[next];
        pause !== undefined && pause.more === silent && phone !== silent;
        pause = phones[next]
      ) {
        frame += lasts(pause);
        next += 1;
      }
      const heard = phones[next];
      if (heard?.more !== phone) return null;
      if (n === 0) words.push({ form: spoken[at] ?? '', frame, phones: ofWord });
      frame += lasts(heard);
      next += 1;
    }
  }
  for (const phone of phones.slice(next)) {
    if (phone.more !== silent) return null;
    frame += lasts(phone);
  }
  return { words, frames: frame };
}

/** The phones of each word: bounds stand between words, and two of them where a word is not said. */
function phonesByWord(items: readonly Item[]): number[][] {
  const words: number[][] = [];
  let isOpen = false;
  for (const item of items) {
    if (item.kind === kind('b')) isOpen = false;
    if (item.kind !== kind('y')) continue;
    if (!isOpen) words.push([]);
    isOpen = true;
    words.at(-1)?.push(...item.data);
  }
  return words;
}
