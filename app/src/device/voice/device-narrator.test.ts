import type { Utterance } from '@dorvel/core/speech';
import { deviceNarrator, deviceVoices } from './device-narrator';

interface FakeUtterance {
  text: string;
  rate: number;
  onstart(): void;
  onend(): void;
  onboundary(event: { name: string; charIndex: number }): void;
  onerror(event: { error: string }): void;
}
const spoken = ['One.', 'Two.'].map((text, index): Utterance => ({
  index,
  start: index * 10,
  end: index * 10 + text.length,
  said: () => ({ text, pieces: [] }),
  kind: 'sentence',
  begins: index === 0,
  language: null,
  leadMs: 0,
  pauseMs: 0,
}));
const voice = { name: 'Own', lang: 'en-GB', localService: true } as SpeechSynthesisVoice;

let said: FakeUtterance[];
let log: string[];
const narrator = () =>
  deviceNarrator(voice)(spoken, 1.4, {
    begun: (index) => log.push(`begun ${index}`),
    heard: (index) => log.push(`heard ${index}`),
    ended: () => log.push('ended'),
    interrupted: () => log.push('interrupted'),
    failed: (says) => log.push(says),
  });

beforeEach(() => {
  said = [];
  log = [];
  Object.assign(globalThis, {
    SpeechSynthesisUtterance: class {
      rate = 1;
      constructor(readonly text: string) {}
    },
    speechSynthesis: {
      speak: (each: FakeUtterance) => said.push(each),
      cancel: () => {},
      getVoices: () => [voice],
    },
  });
});
afterEach(() => {
  Reflect.deleteProperty(globalThis, 'speechSynthesis');
});

describe('the device’s own voice', () => {
  it('says sentence after sentence at the chosen speed', () => {
    narrator().play(0);
    said[0]!.onstart();
    said[0]!.onend();
    said[1]!.onstart();
    said[1]!.onend();
    expect(said.map(({ text, rate }) => [text, rate])).toEqual([
      ['One.', 1.4],
      ['Two.', 1.4],
    ]);
    expect(log).toEqual(['begun 0', 'heard 0', 'begun 1', 'heard 1', 'ended']);
  });

  it('does not count a sentence that was cut off, and says it again when it goes on', () => {
    const own = narrator();
    own.play(1);
    own.pause();
    said[0]!.onend();
    expect(log).toEqual([]);
    own.resume();
    expect(said.map(({ text }) => text)).toEqual(['Two.', 'Two.']);
  });

  it('tells how far into its sentence it is, where the device tells', () => {
    const own = narrator();
    own.play(0);
    expect(own.saidUntil()).toBeNull();
    said[0]!.onstart();
    said[0]!.onboundary({ name: 'sentence', charIndex: 0 });
    expect(own.saidUntil()).toBeNull();
    said[0]!.onboundary({ name: 'word', charIndex: 3 });
    expect(own.saidUntil()).toBe(3);
  });

  it('jumps to the sentence that stands where the time leads', () => {
    const own = narrator();
    own.play(0);
    said[0]!.onstart();
    own.skip(15);
    own.skip(-15);
    expect(said.map(({ text }) => text)).toEqual(['One.', 'Two.', 'One.']);
  });

  it('says what to do when it fails, but not when it was interrupted', () => {
    narrator().play(0);
    said[0]!.onerror({ error: 'interrupted' });
    expect(log).toEqual([]);
    said[0]!.onerror({ error: 'synthesis-failed' });
    expect(log[0]).toMatch(/Choose another one/);
  });

  it('is looked for only where the browser has any', () => {
    expect(deviceVoices()).toEqual([voice]);
    Reflect.deleteProperty(globalThis, 'speechSynthesis');
    expect(deviceVoices()).toEqual([]);
  });
});
