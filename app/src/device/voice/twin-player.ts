/**
 * Plays sounds one behind the other on two audio elements in turn: while one is heard the other has the next
 * sound loaded, so that hardly a gap is left. Nothing here waits for a timer: the end of one sound starts the next,
 * which browsers let happen with the screen off.
 *
 *     A  ▇▇▇▇▇▇ 0      ▇▇▇▇ 2
 *     B         ▇▇▇▇▇ 1      ▇▇▇…
 */
export interface TwinPlayer {
  play(from: number): void;
  pause(): void;
  resume(): void;
  setRate(rate: number): void;
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
  failed(error: unknown): void;
}

interface Deck {
  element: HTMLAudioElement;
  /** Which sound it holds or is being given; -1 for none. */
  index: number;
  ready: Promise<void>;
}

export function createTwinPlayer(parts: TwinPlayerParts): TwinPlayer {
  const [first, second] = [newDeck(), newDeck()];
  let current = first;
  const other = () => (current === first ? second : first);
  let rate = 1;
  let playing = false;
  /** Counts the calls of play: what an earlier one still waits for is then of no interest. */
  let call = 0;

  function newDeck(): Deck {
    const element = new Audio();
    element.preload = 'auto';
    element.addEventListener('ended', () => soundEnded(element));
    return { element, index: -1, ready: Promise.resolve() };
  }

  function give(deck: Deck, index: number): void {
    if (deck.index === index) return;
    deck.index = index;
    deck.ready = parts.load(index).then((sound) => {
      if (deck.index !== index) return;
      empty(deck.element);
      deck.element.src = URL.createObjectURL(sound);
      applyRate(deck.element);
    });
    deck.ready.catch(() => {
      // Told when it is its turn to be heard; until then it is no failure of what is being heard.
    });
  }

  function applyRate(element: HTMLAudioElement): void {
    element.preservesPitch = true;
    element.defaultPlaybackRate = rate;
    element.playbackRate = rate;
  }

  async function turnTo(index: number): Promise<void> {
    const mine = call;
    const deck = current;
    give(deck, index);
    try {
      await deck.ready;
      if (mine !== call) return;
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
    void turnTo(index + 1);
  }

  return {
    play(from) {
      call += 1;
      for (const { element } of [first, second]) element.pause();
      playing = true;
      const held = [first, second].find(({ index }) => index === from);
      if (held) {
        current = held;
        held.element.currentTime = 0;
      }
      void turnTo(from);
    },
    pause() {
      playing = false;
      current.element.pause();
    },
    resume() {
      playing = true;
      void turnTo(current.index);
    },
    setRate(to) {
      rate = to;
      for (const { element } of [first, second]) applyRate(element);
    },
    close() {
      call += 1;
      playing = false;
      for (const deck of [first, second]) {
        deck.element.pause();
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
