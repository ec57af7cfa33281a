import { wrap } from 'comlink';
import type { NarratorMaker } from './narrator';
import type { ShippedVoice, Spoken, Synthesizer } from './synthesizer';
import { createTwinPlayer } from './twin-player';

/** Sentences made ahead of being heard: half a minute or so, enough for a slow phone to stay in front. */
const AHEAD = 4;

let worker: Synthesizer | undefined;

/** The synthesizer's worker, started when it is first needed. */
function synthesizer(): Synthesizer {
  worker ??= wrap<Synthesizer>(new Worker('/voice/worker.js', { type: 'module' })) as unknown as Synthesizer;
  return worker;
}

/** Reads with the voice that ships; needs no network. */
export function shippedNarrator(voice: ShippedVoice): NarratorMaker {
  return (spoken, rate, events) => {
    const made = new Map<number, Promise<Spoken>>();
    const make = (index: number): Promise<Spoken> | undefined => {
      const utterance = spoken[index];
      if (!utterance) return undefined;
      const known = made.get(index);
      if (known) return known;
      const promise = synthesizer().synthesize(utterance.text, voice, utterance.pauseMs);
      made.set(index, promise);
      promise.catch(() => made.delete(index));
      return promise;
    };
    const player = createTwinPlayer({
      count: spoken.length,
      async load(index) {
        const sound = await make(index);
        if (!sound) throw new RangeError(`no sentence ${index}`);
        for (let ahead = index + 1; ahead <= index + AHEAD; ahead++) void make(ahead);
        for (const old of made.keys()) if (old < index - 1 || old > index + 2 * AHEAD) made.delete(old);
        return new Blob([sound.wav], { type: 'audio/wav' });
      },
      begun: events.begun,
      heard: events.heard,
      ended: events.ended,
      failed: (error) =>
        events.failed(`The voice cannot go on: ${error instanceof Error ? error.message : String(error)}`),
    });
    player.setRate(rate);
    return player;
  };
}
