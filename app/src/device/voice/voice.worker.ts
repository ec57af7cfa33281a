/// <reference lib="webworker" />
import { withEmojiSaid } from '@dorvel/core/emoji';
import { shippedVoice, type ShippedVoiceId } from '@dorvel/core/listening';
import { createSpeaker, joined, type PicoModule, silence, type Sound } from '@dorvel/core/voice';
import startEngine from '@echogarden/svoxpico-wasm';
import { expose, transfer } from 'comlink';
import { WaveFile } from 'wavefile';
import type { Spoken, Synthesizer } from './synthesizer';
import { voiceFiles } from './voice-files';

/** The voice that ships, in a worker: nothing of it needs a network, and no sentence holds up the page. */
const ready = startEngine({ locateFile: (name: string) => `/voice/${name}` }).then((module: PicoModule) =>
  createSpeaker(module, withEmojiSaid),
);
/** Voices that are being read in. */
const adding = new Map<ShippedVoiceId, Promise<void>>();
let isGuessTold = false;

const synthesizer: Synthesizer = {
  async synthesize(text, id, { leadMs, pauseMs }) {
    const speaker = await ready;
    if (!speaker.has(id)) await added(id);
    const sound = speaker.speak(text, id);
    if (!sound.isTimed && sound.pcm.length > 0) tellGuess();
    const spoken = toSpoken(sound, leadMs, pauseMs);
    return transfer(spoken, [spoken.wav.buffer]);
  },
  async prepare(id) {
    const speaker = await ready;
    if (!speaker.has(id)) await added(id);
  },
};

function added(id: ShippedVoiceId): Promise<void> {
  const already = adding.get(id);
  if (already) return already;
  const voice = shippedVoice(id);
  const promise = Promise.all([ready, voiceFiles(voice)])
    .then(([speaker, files]) => speaker.add(voice, files))
    .finally(() => adding.delete(id));
  adding.set(id, promise);
  return promise;
}

/** Once: it would be so for each sentence. */
function tellGuess(): void {
  if (!isGuessTold) console.warn('The times of words could not be read from the voice; they are guessed.');
  isGuessTold = true;
}

function toSpoken({ pcm, sampleRate, marks }: Sound, leadMs: number, pauseMs: number): Spoken {
  const samples = joined([silence(leadMs), pcm, silence(pauseMs)]);
  const file = new WaveFile();
  file.fromScratch(1, sampleRate, '16', samples);
  return {
    wav: new Uint8Array(file.toBuffer()),
    seconds: samples.length / sampleRate,
    words: marks.map(({ offset, atMs }) => ({ offset, atMs: atMs + leadMs })),
  };
}

expose(synthesizer);
