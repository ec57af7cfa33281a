import { type Utterance, voiceFor } from '@dorvel/core/speech';
import { countWords, listeningMinutes } from '@dorvel/core/text';
import { wrap } from 'comlink';
import { createTwinPlayer } from './double-buffered-player';
import type { NarratorMaker } from './narrator';
import { placeAfter } from './skip';
import { SHIPPED_VOICES, type ShippedVoice, type Spoken, type Synthesizer } from './synthesizer';

/** Sentences made ahead of being heard: half a minute or so, enough for a slow phone to stay in front. */
const AHEAD = 4;

let worker: Synthesizer | undefined;
let elements: readonly [HTMLAudioElement, HTMLAudioElement] | undefined;

/** The synthesizer's worker, started when it is first needed. */
function synthesizer(): Synthesizer {
  worker ??= wrap<Synthesizer>(new Worker('/voice/worker.js', { type: 'module' })) as unknown as Synthesizer;
  return worker;
}

/** Reads with the voice that ships; needs no network. Parts in another language are given to its voice, where one ships. */
export function shippedNarrator(voice: ShippedVoice): NarratorMaker {
  return (spoken, rate, events) => {
    const made = new Map<number, Promise<Spoken>>();
    const ready = new Map<number, Spoken>();
    let speed = rate;
    const make = (index: number): Promise<Spoken> | undefined => {
      const utterance = spoken[index];
      if (!utterance) return undefined;
      const known = made.get(index);
      if (known) return known;
      const { leadMs, pauseMs } = utterance;
      const promise = synthesizer().synthesize(utterance.said().text, voiceOf(utterance, voice), {
        leadMs,
        pauseMs,
      });
      made.set(index, promise);
      promise.then(
        (sound) => ready.set(index, sound),
        () => made.delete(index),
      );
      return promise;
    };
    const secondsOf = (index: number) => ready.get(index)?.seconds ?? estimatedSeconds(spoken[index]);
    elements ??= [new Audio(), new Audio()];
    const parts: Parameters<typeof createTwinPlayer>[0] = {
      count: spoken.length,
      async load(index) {
        const sound = await make(index);
        if (!sound) throw new RangeError(`no sentence ${index}`);
        for (let ahead = index + 1; ahead <= index + AHEAD; ahead++) void make(ahead);
        for (const old of made.keys())
          if (old < index - 1 || old > index + 2 * AHEAD) {
            made.delete(old);
            ready.delete(old);
          }
        return new Blob([sound.wav], { type: 'audio/wav' });
      },
      begun: events.begun,
      heard: events.heard,
      ended: events.ended,
      interrupted: events.interrupted,
      failed: (error) =>
        events.failed(`The voice cannot go on: ${error instanceof Error ? error.message : String(error)}`),
    };
    const player = createTwinPlayer(parts, elements);
    player.setRate(rate);
    return {
      ...player,
      setRate(to) {
        speed = to;
        player.setRate(to);
      },
      skip(seconds) {
        const from = player.place();
        if (!from) return;
        const to = placeAfter(from, seconds * speed, secondsOf, spoken.length);
        player.play(to.index, to.seconds);
      },
      saidUntil() {
        const place = player.place();
        const sound = ready.get(place?.index ?? -1);
        if (!place || !sound) return null;
        const word = sound.words.findLast(({ atMs }) => atMs <= place.seconds * 1000);
        return word?.offset ?? null;
      },
    };
  };
}

function voiceOf({ language }: Utterance, voice: ShippedVoice): ShippedVoice {
  if (language === null) return voice;
  const names = Object.keys(SHIPPED_VOICES) as ShippedVoice[];
  const at = voiceFor(
    language,
    names.map((name) => SHIPPED_VOICES[name].language),
  );
  return names[at] ?? voice;
}

function estimatedSeconds(utterance: Utterance | undefined): number {
  if (!utterance) return 0;
  const words = countWords(utterance.said().text, utterance.language);
  return listeningMinutes(words, 1) * 60 + (utterance.leadMs + utterance.pauseMs) / 1000;
}
