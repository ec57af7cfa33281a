import { countWords, listeningMinutes } from '@dorvel/core/text';
import type { NarratorMaker } from './narrator';
import { placeAfter } from './skip';

/** The voices that this device has of its own; empty where it has none. They may arrive a while after the start. */
export function deviceVoices(): SpeechSynthesisVoice[] {
  return 'speechSynthesis' in globalThis ? speechSynthesis.getVoices() : [];
}

/** Reads with one of the device's own voices (Web Speech API). */
export function deviceNarrator(voice: SpeechSynthesisVoice): NarratorMaker {
  return (spoken, firstRate, events) => {
    let rate = firstRate;
    let at = -1;
    let startedAt = 0;
    let saidUntil: number | null = null;
    let speaking = false;
    /** Counts the sentences begun: the end of one that was cut off says nothing. */
    let turn = 0;

    const say = (index: number) => {
      const utterance = spoken[index];
      if (!utterance) {
        events.ended();
        return;
      }
      const mine = ++turn;
      at = index;
      saidUntil = null;
      speaking = true;
      speechSynthesis.cancel();
      const saying = new SpeechSynthesisUtterance(utterance.said().text);
      saying.voice = voice;
      saying.lang = voice.lang;
      saying.rate = rate;
      saying.onstart = () => {
        if (mine !== turn) return;
        startedAt = performance.now();
        events.begun(index);
      };
      saying.onboundary = ({ name, charIndex }) => {
        if (mine === turn && name === 'word') saidUntil = charIndex;
      };
      saying.onend = () => {
        if (mine !== turn) return;
        events.heard(index, (performance.now() - startedAt) / 1000);
        say(index + 1);
      };
      saying.onerror = ({ error }) => {
        if (mine !== turn || error === 'interrupted' || error === 'canceled') return;
        events.failed(`The voice “${voice.name}” cannot go on (${error}). Choose another one.`);
      };
      speechSynthesis.speak(saying);
    };
    const silence = () => {
      turn += 1;
      speaking = false;
      speechSynthesis.cancel();
    };
    return {
      play: say,
      // Its own pausing is unreliable where voices are remote: a sentence that is cut off is said again.
      pause: silence,
      resume: () => say(Math.max(0, at)),
      setRate(to) {
        rate = to;
      },
      // Its sentences can only be begun again: the nearest one stands for the place.
      skip(seconds) {
        const secondsOf = (index: number) =>
          listeningMinutes(countWords(spoken[index]?.said().text ?? '', voice.lang), 1) * 60;
        const passed = speaking ? ((performance.now() - startedAt) / 1000) * rate : 0;
        const to = placeAfter({ index: Math.max(0, at), seconds: passed }, seconds * rate, secondsOf, spoken.length);
        say(to.index);
      },
      saidUntil: () => saidUntil,
      close: silence,
    };
  };
}
