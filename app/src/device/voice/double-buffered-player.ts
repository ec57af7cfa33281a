/**
 * Plays sounds one behind the other on two audio elements in turn: while one is heard the other has the next
 * sound loaded, so that hardly a gap is left. Nothing here waits for a timer: the end of one sound starts the next,
 * which browsers let happen with the screen off.
 *
 *     A  ▇▇▇▇▇▇ 0      ▇▇▇▇ 2
 *     B         ▇▇▇▇▇ 1      ▇▇▇…
 */
export interface TwinPlayer {
  /** @param atSeconds how far into the first sound, in its own time */
  play(from: number, atSeconds?: number): void;
  pause(): void;
  resume(): void;
  setRate(rate: number): void;
  /** What is being heard, or would be, and how far it has come in its own time; null before the first. */
  place(): { index: number; seconds: number } | null;
  close(): void;
}

interface TwinPlayerParts {
  /** How many sounds there are. */
  count: number;
  /** The sound at an index; asked for ahead of its time, and possibly more than once. */
  load(index: number): Promise<Blob>;
  begun(index: number): void;
  heard(index: number, seconds: number): void;
  ended(): void;
  /** The sound was stopped by something else than this player. */
  interrupted(): void;
  failed(error: unknown): void;
}

interface Deck {
  element: HTMLAudioElement;
  /** Which sound it holds or is being given; -1 for none. */
  index: number;
  ready: Promise<void>;
  /** The address of what it holds. Something else may have used the element in between. */
  src: string | null;
  /** It could not be given its sound: that is tried again when it is asked for again. */
  hasFailed: boolean;
}

/**
 * @param elements to play on; the same ones for text after text, since a browser lets those sound on without a press that
 *   it once let sound after one
 */
export function createTwinPlayer(
  parts: TwinPlayerParts,
  elements: readonly [HTMLAudioElement, HTMLAudioElement] = [new Audio(), new Audio()],
): TwinPlayer {
  const closing = new AbortController();
  const [first, second] = [newDeck(elements[0]), newDeck(elements[1])];
  let current = first;
  const other = () => (current === first ? second : first);
  let rate = 1;
  let playing = false;
  /** Counts the calls of play: what an earlier one still waits for is then of no interest. */
  let call = 0;
  let startAt = 0;
  /** Elements that this player itself has stopped: their pause is no interruption. */
  const hushed = new WeakSet<HTMLAudioElement>();

  function newDeck(element: HTMLAudioElement): Deck {
    const { signal } = closing;
    element.preload = 'auto';
    element.addEventListener('ended', () => soundEnded(element), { signal });
    element.addEventListener('play', () => hushed.delete(element), { signal });
    element.addEventListener(
      'pause',
      () => {
        if (!playing || current.element !== element || element.ended || hushed.has(element)) return;
        playing = false;
        parts.interrupted();
      },
      { signal },
    );
    return { element, index: -1, ready: Promise.resolve(), src: null, hasFailed: false };
  }

  function silence(element: HTMLAudioElement): void {
    hushed.add(element);
    element.pause();
  }

  function give(deck: Deck, index: number): void {
    if (deck.index === index && !deck.hasFailed && (deck.src === null || deck.src === deck.element.src)) return;
    deck.index = index;
    deck.hasFailed = false;
    deck.src = null;
    deck.ready = parts.load(index).then((sound) => {
      if (deck.index !== index) return;
      empty(deck.element);
      deck.src = URL.createObjectURL(sound);
      deck.element.src = deck.src;
      applyRate(deck.element);
    });
    deck.ready.catch(() => {
      deck.hasFailed = true;
      // Told when it is its turn to be heard; until then it is no failure of what is being heard.
    });
  }

  function applyRate(element: HTMLAudioElement): void {
    element.preservesPitch = true;
    element.defaultPlaybackRate = rate;
    element.playbackRate = rate;
  }

  async function advanceTo(index: number): Promise<void> {
    const mine = call;
    const deck = current;
    give(deck, index);
    try {
      await deck.ready;
      if (mine !== call) return;
      if (startAt > 0) deck.element.currentTime = startAt;
      startAt = 0;
      if (playing) await deck.element.play();
    } catch (error) {
      // Paused or asked for something else while it was about to start: not a failure.
      const interrupted = error instanceof DOMException && error.name === 'AbortError';
      if (mine === call && !interrupted) parts.failed(error);
      return;
    }
    if (mine !== call) return;
    parts.begun(index);
    if (index + 1 < parts.count) give(other(), index + 1);
  }

  function soundEnded(element: HTMLAudioElement): void {
    if (current.element !== element || !playing) return;
    const { index } = current;
    parts.heard(index, element.duration / rate);
    if (index + 1 >= parts.count) {
      playing = false;
      parts.ended();
      return;
    }
    current = other();
    void advanceTo(index + 1);
  }

  return {
    play(from, atSeconds = 0) {
      call += 1;
      for (const { element } of [first, second]) silence(element);
      playing = true;
      startAt = atSeconds;
      const held = [first, second].find(({ index }) => index === from);
      if (held) {
        current = held;
        held.element.currentTime = 0;
      }
      void advanceTo(from);
    },
    pause() {
      playing = false;
      silence(current.element);
    },
    resume() {
      playing = true;
      void advanceTo(current.index);
    },
    setRate(to) {
      rate = to;
      for (const { element } of [first, second]) applyRate(element);
    },
    place: () => (current.index === -1 ? null : { index: current.index, seconds: current.element.currentTime }),
    close() {
      call += 1;
      playing = false;
      closing.abort();
      for (const deck of [first, second]) {
        silence(deck.element);
        deck.index = -1;
        empty(deck.element);
      }
    },
  };
}

function empty(element: HTMLAudioElement): void {
  const { src } = element;
  element.removeAttribute('src');
  if (src.startsWith('blob:')) URL.revokeObjectURL(src);
}
