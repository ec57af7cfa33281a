import type { ShippedVoice, ShippedVoiceId } from '../listening';
import { type Part, partsOf } from './clauses';
import { guessedMarks, marksOf, type WordMark } from './marks';
import type { PicoModule } from './pico-module';
import { findQueues, FRAME, QUEUES, readQueues, type Timing, type WordHeard } from './queues';
import { joined, levelled, msOf, SAMPLE_RATE, silence, trimmed } from './sound';

/** What was said, as sound. */
export interface Sound {
  /** 16 bit, one channel. */
  pcm: Int16Array<ArrayBuffer>;
  sampleRate: number;
  /** When each word of the text is heard, in the order of the text. */
  marks: WordMark[];
  /** False where the engine's own times could not be read and the marks are guessed. */
  isTimed: boolean;
}

/** Makes sound of sentences, with the voices that were given to it. Not to be called by two at once. */
export interface Speaker {
  has(voice: ShippedVoiceId): boolean;
  /**
   * @param files as in ShippedVoice.files
   * @throws VoiceError when they are not this voice's
   */
  add(voice: ShippedVoice, files: readonly [Uint8Array, Uint8Array]): void;
  /**
   * Says a sentence at a rate of 1, without silence before and behind it. No text stops it: what cannot be said is left
   * out.
   *
   * @throws VoiceError for a voice that was not added
   */
  speak(sentence: string, voice: ShippedVoiceId): Sound;
  /** How the words of a sentence are pronounced, in the engine's own order; none where that cannot be read. */
  pronounced(sentence: string, voice: ShippedVoiceId): readonly WordHeard[];
}

/** The engine refused something; says what. */
export class VoiceError extends Error {
  override readonly name = 'VoiceError';
}

/** What the engine works in, for each voice: it speaks with one only. */
const WORK_BYTES = 2_500_000;
const [IDLE, BUSY] = [200, 201];
const BUFFER_BYTES = 4096;
const NAME_BYTES = 64;
/** More steps than any part takes that can be said: an engine that goes on for ever is stopped. */
const MAX_STEPS = 2_000_000;
/** At full volume one voice clips. */
const VOLUME = 60;
/** A part that the engine gives up on is tried in halves down to this length. In characters. */
const SHORTEST_TRIED = 24;
/** A breath where a long sentence is divided, as long as the engine's own at a comma. In milliseconds. */
const BREATH_MS = 280;
/** From when a word begins in the engine's count to when it is heard. Measured. In milliseconds. */
const LAG_MS = 28;

interface Engine {
  handle: number;
  queues: readonly number[];
  /** ISO 639-1. */
  language: string;
  levelDb: number;
}

interface Piece {
  part: Part;
  pcm: Int16Array;
  timing: Timing | null;
}

/**
 * The voices that ship, over the engine's module. The same on a device and on a server.
 *
 * @param module freshly made
 * @param inWords puts what has no sound into words of a language (ISO 639-1): emoji, see core/emoji
 */
export function createSpeaker(
  module: PicoModule,
  inWords: (text: string, language: string) => string = (text) => text,
): Speaker {
  const engines = new Map<ShippedVoiceId, Engine>();
  const out = module._malloc(8);
  const name = module._malloc(NAME_BYTES);
  const buffer = module._malloc(BUFFER_BYTES);
  const folder = '/voices';

  const must = (status: number, what: string): void => {
    if (status !== 0) throw new VoiceError(`The voice could not ${what} (${status}).`);
  };
  module.FS.mkdir(folder);

  /** Runs something with a text in the module's memory, ended by a zero byte. */
  function withText<Answer>(text: string, run: (address: number, bytes: number) => Answer): Answer {
    const bytes = new TextEncoder().encode(`${text}\0`);
    const address = module._malloc(bytes.length);
    module.HEAPU8.set(bytes, address);
    try {
      return run(address, bytes.length);
    } finally {
      module._free(address);
    }
  }

  function load(system: number, voice: string, file: string, data: Uint8Array): void {
    const path = `${folder}/${file}`;
    module.FS.writeFile(path, data);
    withText(path, (address) => must(module._pico_loadResource(system, address, out), `read ${file}`));
    module.FS.unlink(path);
    must(module._pico_getResourceName(system, module.HEAPU32[out >> 2] ?? 0, name), `name ${file}`);
    withText(voice, (address) =>
      must(module._pico_addResourceToVoiceDefinition(system, address, name), `take ${file}`),
    );
  }

  /** Says one part; null where the engine gave up. */
  function sound(engine: Engine, text: string): { pcm: Int16Array; timing: Timing | null } | null {
    must(module._pico_resetEngine(engine.handle, 0), 'begin again');
    const reader = readQueues(module, engine.queues);
    const pieces: Int16Array[] = [];

    const isWhole = withText(
      `<volume level="${VOLUME}">${toSay(inWords(text, engine.language))}</volume>`,
      (address, bytes) => {
        let steps = 0;
        for (let taken = 0; taken < bytes;) {
          if (module._pico_putTextUtf8(engine.handle, address + taken, bytes - taken, out) !== 0) return false;
          const took = module.HEAP16[out >> 1] ?? 0;
          taken += took;
          const before = steps;
          for (let status = BUSY; status === BUSY; steps += 1) {
            status = module._pico_getData(engine.handle, buffer, BUFFER_BYTES, out, out + 4);
            if ((status !== IDLE && status !== BUSY) || steps > MAX_STEPS) return false;
            reader?.look();
            const length = module.HEAP16[out >> 1] ?? 0;
            if (length > 0) pieces.push(module.HEAP16.slice(buffer >> 1, (buffer + length) >> 1));
          }
          // It takes nothing and does nothing: it never will.
          if (took === 0 && steps === before + 1) return false;
        }
        return true;
      },
    );
    if (!isWhole) return null;
    const pcm = joined(pieces);
    const timing = reader?.timing() ?? null;
    return { pcm, timing: timing && timing.frames * FRAME === pcm.length ? timing : null };
  }

  /** Says a part, in halves where it cannot be said as a whole. */
  function pieces(engine: Engine, part: Part): Piece[] {
    const made = sound(engine, part.text);
    if (made) return [{ part, ...made }];
    module._pico_resetEngine(engine.handle, 0);
    if (part.text.length <= SHORTEST_TRIED) return [];
    return partsOf(part.text, Math.ceil(part.text.length / 2)).flatMap(({ text, start }) =>
      pieces(engine, { text, start: part.start + start }),
    );
  }

  function engineOf(voice: ShippedVoiceId): Engine {
    const engine = engines.get(voice);
    if (!engine) throw new VoiceError(`The voice ${voice} is not here.`);
    return engine;
  }

  return {
    has: (voice) => engines.has(voice),
    add({ id, language, files: [words, sounds], levelDb }, [wordData, soundData]) {
      if (engines.has(id)) return;
      const memory = module._malloc(WORK_BYTES);
      if (memory === 0) throw new VoiceError('There is no memory left for another voice.');
      try {
        must(module._pico_initialize(memory, WORK_BYTES, out), 'start');
        const system = module.HEAPU32[out >> 2] ?? 0;
        withText(id, (address) => must(module._pico_createVoiceDefinition(system, address), `be called ${id}`));
        load(system, id, words.name, wordData);
        load(system, id, sounds.name, soundData);
        withText(id, (address) => must(module._pico_newEngine(system, address, out), `begin to speak ${id}`));
        const handle = module.HEAPU32[out >> 2] ?? 0;
        engines.set(id, {
          handle,
          queues: findQueues(module, memory, WORK_BYTES),
          language: language.slice(0, 2),
          levelDb,
        });
      } catch (error) {
        module._free(memory);
        throw error;
      }
    },
    pronounced: (sentence, voice) => sound(engineOf(voice), sentence)?.timing?.words ?? [],
    speak(sentence, voice) {
      const engine = engineOf(voice);
      const heard = partsOf(sentence).flatMap((part) => pieces(engine, part));
      const all: Int16Array[] = [];
      const marks: WordMark[] = [];
      let isTimed = engine.queues.length === QUEUES;
      let samples = 0;
      for (const { part, pcm: whole, timing } of heard) {
        const { pcm, cut } = trimmed(whole);
        if (pcm.length === 0) continue;
        if (samples > 0) {
          const breath = silence(BREATH_MS);
          all.push(breath);
          samples += breath.length;
        }
        const [startMs, endMs] = [msOf(samples), msOf(samples + pcm.length)];
        const at = (frame: number) => Math.min(endMs, Math.max(startMs, startMs + msOf(frame * FRAME - cut) + LAG_MS));
        const ofPart = timing ? marksOf(part.text, timing.words, at, endMs) : guessedMarks(part.text, startMs, endMs);
        isTimed &&= timing !== null;
        marks.push(...ofPart.map(({ offset, atMs }) => ({ offset: offset + part.start, atMs })));
        all.push(levelled(pcm, engine.levelDb));
        samples += pcm.length;
      }
      return { pcm: joined(all), sampleRate: SAMPLE_RATE, marks, isTimed };
    },
  };
}

/**
 * A text as the engine can be given it: it obeys what looks like markup, whose beginning a space takes away, and stops at a zero.
 */
function toSay(text: string): string {
  return text.replace(/\p{Cc}/gu, ' ').replaceAll('<', '< ');
}
