import { createTwinPlayer } from './double-buffered-player';

/** An audio element as far as the player knows one: it ends when the test says so. */
class FakeAudio extends EventTarget {
  static made: FakeAudio[] = [];
  preload = '';
  src = '';
  playbackRate = 1;
  defaultPlaybackRate = 1;
  preservesPitch = false;
  currentTime = 0;
  duration = 2;
  playing = false;
  constructor() {
    super();
    FakeAudio.made.push(this);
  }
  ended = false;
  async play() {
    this.playing = true;
    this.ended = false;
    this.dispatchEvent(new Event('play'));
  }
  pause() {
    const wasPlaying = this.playing;
    this.playing = false;
    if (wasPlaying) this.dispatchEvent(new Event('pause'));
  }
  removeAttribute() {
    this.src = '';
  }
  end() {
    this.playing = false;
    this.ended = true;
    this.dispatchEvent(new Event('pause'));
    this.dispatchEvent(new Event('ended'));
  }
}
const settle = () => new Promise((resolve) => setTimeout(resolve, 0));
const sounding = () => FakeAudio.made.filter(({ playing }) => playing);

let log: string[];
let revoked: string[];
function player(count: number, load = async (index: number) => new Blob([String(index)])) {
  log = [];
  return createTwinPlayer({
    count,
    load,
    begun: (index) => log.push(`begun ${index}`),
    heard: (index, seconds) => log.push(`heard ${index} ${seconds}`),
    ended: () => log.push('ended'),
    interrupted: () => log.push('interrupted'),
    failed: (error) => log.push(`failed ${String(error)}`),
  });
}

beforeEach(() => {
  FakeAudio.made = [];
  revoked = [];
  let made = 0;
  Object.assign(globalThis, { Audio: FakeAudio });
  Object.assign(URL, {
    createObjectURL: () => `blob:${++made}`,
    revokeObjectURL: (address: string) => revoked.push(address),
  });
});

describe('two decks in turn', () => {
  it('play one sound behind the other, the next one loaded before it is due', async () => {
    const twins = player(3);
    twins.play(0);
    await settle();
    expect(sounding()).toHaveLength(1);
    expect(FakeAudio.made.every(({ src }) => src !== '')).toBe(true);
    for (let n = 0; n < 3; n++) {
      sounding()[0]!.end();
      await settle();
    }
    expect(log).toEqual(['begun 0', 'heard 0 2', 'begun 1', 'heard 1 2', 'begun 2', 'heard 2 2', 'ended']);
  });

  it('keep the pitch at another speed, and count the time that it takes', async () => {
    const twins = player(2);
    twins.setRate(2);
    twins.play(0);
    await settle();
    expect(FakeAudio.made.map(({ playbackRate, preservesPitch }) => [playbackRate, preservesPitch])).toEqual([
      [2, true],
      [2, true],
    ]);
    sounding()[0]!.end();
    expect(log).toContain('heard 0 1');
  });

  it('fall silent when paused, even before the first sound has come, and go on where they were', async () => {
    const twins = player(2);
    twins.play(1);
    twins.pause();
    await settle();
    expect(sounding()).toEqual([]);
    twins.resume();
    await settle();
    expect(sounding()).toHaveLength(1);
    expect(log.at(-1)).toBe('begun 1');
  });

  it('forget what was asked for before when another place is asked for', async () => {
    let arrive = (_sound: Blob) => {};
    const slow = new Promise<Blob>((resolve) => (arrive = resolve));
    const twins = player(9, async (index) => (index === 0 ? slow : new Blob([String(index)])));
    twins.play(0);
    twins.play(5);
    await settle();
    arrive(new Blob(['late']));
    await settle();
    expect(log).toEqual(['begun 5']);
    expect(sounding()).toHaveLength(1);
  });

  it('say so when a sound cannot be made', async () => {
    const twins = player(2, () => Promise.reject(new Error('no voice')));
    twins.play(0);
    await settle();
    expect(log).toEqual(['failed Error: no voice']);
  });

  it('begin in the middle of a sound where they are told to', async () => {
    const twins = player(2);
    twins.play(1, 1.25);
    await settle();
    expect(sounding()[0]!.currentTime).toBe(1.25);
    expect(twins.place()).toEqual({ index: 1, seconds: 1.25 });
  });

  it('tell when something else takes the sound, and only then', async () => {
    const twins = player(3);
    twins.play(0);
    await settle();
    sounding()[0]!.end();
    await settle();
    twins.pause();
    twins.resume();
    await settle();
    twins.play(2);
    await settle();
    expect(log).not.toContain('interrupted');
    sounding()[0]!.pause();
    expect(log.at(-1)).toBe('interrupted');
  });

  it('load anew what they held when something else has used their elements in between', async () => {
    const twins = player(2);
    twins.play(0);
    await settle();
    twins.pause();
    const [used] = FakeAudio.made;
    used!.src = 'blob:other';
    twins.resume();
    await settle();
    expect(used!.src).not.toBe('blob:other');
    expect(sounding()).toEqual([used]);
  });

  it('give back what they hold', async () => {
    const twins = player(2);
    twins.play(0);
    await settle();
    twins.close();
    expect(sounding()).toEqual([]);
    expect(revoked).toEqual(['blob:1', 'blob:2']);
  });
});
