import { SHIPPED_VOICES, shippedVoice, type ShippedVoiceId, voiceFor } from '@dorvel/core/listening';
import { type Utterance } from '@dorvel/core/speech';
import { countWords, listeningMinutes } from '@dorvel/core/text';
import { wrap } from 'comlink';
import { createTwinPlayer } from './double-buffered-player';
import type { NarratorMaker } from './narrator';
import { placeAfter } from './skip';
import type { Spoken, Synthesizer } from './synthesizer';
import { isVoiceHere } from './voice-files';
import { useVoicesHere } from './voices-here';

/** Sentences made ahead of being heard: half a minute or so, enough for a slow phone to stay in front. */
const AHEAD = 4;

let worker: Synthesizer | undefined;
let elements: readonly [HTMLAudioElement, HTMLAudioElement] | undefined;

/** The synthesizer's worker, started when it is first needed. */
function synthesizer(): Synthesizer {
  worker ??= wrap<Synthesizer>(new Worker('/voice/worker.js', { type: 'module' })) as unknown as Synthesizer;
  return worker;
}

/** Has the synthesizer start and read a voice in, where one may be wanted next and is on this device. */
export async function warmUp(voice: ShippedVoiceId): Promise<void> {
  if (await isVoiceHere(shippedVoice(voice))) await synthesizer().prepare(voice);
}

let trial: HTMLAudioElement | undefined;

/** Says one sentence in a voice, to hear what it is like. @throws Error when the voice cannot be had */
export async function sayOnce(voice: ShippedVoiceId, text: string): Promise<void> {
  await useVoicesHere.getState().bring(voice);
  const { wav } = await synthesizer().synthesize(text, voice, { leadMs: 0, pauseMs: 0 });
  trial ??= new Audio();
  if (trial.src.startsWith('blob:')) URL.revokeObjectURL(trial.src);
  trial.src = URL.createObjectURL(new Blob([wav], { type: 'audio/wav' }));
  await trial.play();
}

/** Reads with the voice that ships; needs no network. Parts in another language are given to its voice, where one ships. */
export function shippedNarrator(voice: ShippedVoiceId): NarratorMaker {
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
      const { text } = utterance.said();
      const say = (id: ShippedVoiceId) => synthesizer().synthesize(text, id, { leadMs, pauseMs });
      // At once where the worker is there: what is to be drawn as listening begins then goes on beside the making of the sound. To
      // start the worker while it is drawn would take longer than to start it behind that.
      const here = worker && voiceHere(utterance, voice);
      const promise = here ? say(here) : voiceOf(utterance, voice).then(say);
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

/** The voice of a sentence where it is known to be on this device; null where that is to be seen. */
function voiceHere({ language }: Utterance, voice: ShippedVoiceId): ShippedVoiceId | null {
  const { id } = (language === null ? null : SHIPPED_VOICES[voiceFor(language, LANGUAGES)]) ?? { id: voice };
  return useVoicesHere.getState().places[id] === 'here' ? id : null;
}

/**
 * The voice of a sentence, once it is on this device. Where the voice of another language cannot be had, the text's own says
 * it: better with an accent than not at all.
 *
 * @throws Error whose message is for the reader
 */
async function voiceOf({ language }: Utterance, voice: ShippedVoiceId): Promise<ShippedVoiceId> {
  const { bring } = useVoicesHere.getState();
  const other = language === null ? null : SHIPPED_VOICES[voiceFor(language, LANGUAGES)];
  if (other && other.id !== voice) {
    const isHere = await bring(other.id).then(
      () => true,
      () => false,
    );
    if (isHere) return other.id;
  }
  await bring(voice).catch(() => {
    const { name } = shippedVoice(voice);
    throw new Error(
      `the voice “${name}” is not on this device yet. It comes when you are online again; press play then`,
    );
  });
  return voice;
}

const LANGUAGES = SHIPPED_VOICES.map(({ language }) => language);

function estimatedSeconds(utterance: Utterance | undefined): number {
  if (!utterance) return 0;
  const words = countWords(utterance.said().text, utterance.language);
  return listeningMinutes(words, 1) * 60 + (utterance.leadMs + utterance.pauseMs) / 1000;
}
