/** What we use of the synthesizer, which ships without types. */
declare module '@echogarden/espeak-ng-emscripten' {
  interface EngineEvent {
    type: string;
    /** 1-based, in code points. */
    text_position: number;
    /** Milliseconds. */
    audio_position: number;
  }
  interface Engine {
    set_voice(name: string, language: string, gender: number, age: number, variant: number): number;
    set_rate(wordsPerMinute: number): void;
    get_samplerate(): number;
    /** Synchronous; hands out the sound in pieces. The callback returns true to stop. */
    synthesize(text: string, heard: (pcm: Int16Array | null, events: EngineEvent[]) => boolean): void;
  }
  const init: () => Promise<{ eSpeakNGWorker: new () => Engine }>;
  export default init;
}
