/// <reference lib="webworker" />
import { SPOKEN_WORDS_PER_MINUTE } from '@dorvel/core/text';
import init from '@echogarden/espeak-ng-emscripten';
import { expose, transfer } from 'comlink';
import { WaveFile } from 'wavefile';
import { offsetsOfMarkup, toMarkup } from './markup';
import type { Spoken, Synthesizer } from './synthesizer';

/** The voice that ships, in a worker: nothing of it needs a network, and no sentence holds up the page. */
const ready = init().then((engine) => {
  const speaker = new engine.eSpeakNGWorker();
  speaker.set_rate(SPOKEN_WORDS_PER_MINUTE);
  return speaker;
});

const synthesizer: Synthesizer = {
  async synthesize(text, voice, { leadMs, pauseMs }) {
    const speaker = await ready;
    speaker.set_voice(voice, '', 0, 0, 0);
    const markup = toMarkup(text);
    const offsets = offsetsOfMarkup(text);
    const pieces: Int16Array[] = [];
    const words: Spoken['words'] = [];
    speaker.synthesize(markup, (pcm, events) => {
      if (pcm) pieces.push(pcm);
      for (const event of events)
        if (event.type === 'word')
          words.push({ offset: offsets[event.text_position - 1] ?? 0, atMs: leadMs + event.audio_position });
      return false;
    });
    const rate = speaker.get_samplerate();
    const silence = (ms: number) => new Int16Array(Math.round((ms / 1000) * rate));
    const spoken = toSpoken([silence(leadMs), ...pieces, silence(pauseMs)], rate, words);
    return transfer(spoken, [spoken.wav.buffer]);
  },
};

function toSpoken(pieces: Int16Array[], sampleRate: number, words: Spoken['words']): Spoken {
  const samples = new Int16Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    samples.set(piece, at);
    at += piece.length;
  }
  const file = new WaveFile();
  file.fromScratch(1, sampleRate, '16', samples);
  return { wav: new Uint8Array(file.toBuffer()), seconds: samples.length / sampleRate, words };
}

expose(synthesizer);
