import { passageAt } from '@dorvel/core/highlight';
import { RATE_RANGE, type SpeechChoices, toRate } from '@dorvel/core/listening';
import type { Item, MarkedPassage } from '@dorvel/core/model';
import { paragraphFrom, utteranceAt, wordAt } from '@dorvel/core/speech';
import { partitionPoint, type PlainText, type TextRange } from '@dorvel/core/text';
import type { StateCreator } from 'zustand';
import type { KeptCopy } from '@/device/store/store';
import type { Narrator } from '@/device/voice/narrator';
import { type Hearing, hearingOf, onLockScreen, wholeSeconds, withoutThese } from './hearing';
import type { ListeningRecord } from './listening-record';
import type { Voice } from './listening-settings-store';
import type { OnLockScreen } from './media-session';
import { AWAKE, type Sleep, sleepsBefore } from './sleep';

export interface PlayerState {
  hearing: Hearing | null;
  /** The sentence that is being spoken, or would be. */
  index: number;
  playing: boolean;
  /** True when the place was moved by eye since the voice fell silent: it goes on from there. */
  moved: boolean;
  /** True once the last sentence has been heard. */
  ended: boolean;
  problem: string | null;
  sleep: Sleep;
  /**
   * Begins to read an item aloud, at the sentence at a place in its text.
   *
   * @param place an offset in its text; null for where the item was left
   * @param announced its title is said first
   * @returns false when there is no voice for its language
   */
  listen(item: Item, copy: KeptCopy, place: number | null, announced?: boolean): boolean;
  pause(): void;
  goOn(): void;
  /** While it is silent: the eyes are at another place now. */
  moveTo(offset: number): void;
  /** While it speaks: goes on from a fraction of the text. */
  speakFrom(fraction: number): void;
  /** To the sentence this many further on, or back. */
  step(by: number): void;
  /** To the beginning of the next paragraph, or of this one, or of the one before. */
  paragraph(by: 1 | -1): void;
  /** Jumps by this many seconds, forward or back. */
  skip(seconds: number): void;
  /** To a time of the whole, at a rate of 1. */
  seekTo(seconds: number): void;
  setSleep(sleep: Sleep): void;
  /** The word that is being said, as a part of the text; null where the voice does not tell. */
  spokenWord(): TextRange | null;
  /** Marks the sentence that is being heard. */
  markHeard(): Promise<void>;
  /** Says the sentence that is being heard once more, slower; the next one is as fast as before. */
  sayAgain(): void;
  /** Marks the last words that were said, as something to look up. */
  lookUp(): Promise<void>;
  setRate(rate: number): void;
  setVoice(voice: Voice): void;
  /** Of a copy that is being heard: from now on without these sentences, or with all of them. */
  passOver(copyId: string, sentences: readonly TextRange[]): void;
  /** Records where the voice is. */
  record(): void;
  /** Ends listening; the place is kept. */
  close(): void;
  /** Ends listening without a record: the library is another one now. */
  silence(): void;
}

/** What the player needs from outside. */
export interface PlayerParts {
  now(): number;
  textOf(copy: KeptCopy): { plain: PlainText; starts: readonly number[] };
  settings(): { rate: number; goOnWithQueue: boolean };
  setRate(rate: number): void;
  /** Remembers a voice for its language. */
  chooseVoice(voice: Voice): void;
  voiceFor(language: string | null): Voice | null;
  speechChoices(): SpeechChoices;
  /** What of a text is not to be heard. */
  passedOver(item: Item, copy: KeptCopy): readonly TextRange[];
  /** What is heard behind an item; null when nothing is. */
  nextAfter(itemId: string): Promise<{ item: Item; copy: KeptCopy } | null>;
  record: ListeningRecord;
  mark(itemId: string, passage: MarkedPassage, kind: 'key' | 'question'): Promise<unknown>;
  showOnLockScreen(shown: OnLockScreen | null, playing: boolean): void;
}

/** What was not understood is said so much slower; of the speed that was chosen. */
const SLOWER = 0.75;
/** Enough to hold the word that was not understood, by the time that a hand has found the button. */
const LOOKED_UP_WORDS = 10;
const SILENT = { hearing: null, playing: false, moved: false, ended: false, problem: null, index: 0 };

/** What the parts of the player share. */
interface Context {
  parts: PlayerParts;
  set(change: Partial<PlayerState>): void;
  get(): PlayerState;
  narrator: Narrator | null;
  /** The sentence at which listening began. */
  firstIndex: number;
  /** The sentence that is said slower; null when none is. */
  slowIndex: number | null;
}

/** Reads texts aloud, with one place for ears and eyes: what happens comes in, what is to be seen is its state. */
export function player(parts: PlayerParts): StateCreator<PlayerState> {
  return (set, get) => {
    const context: Context = { parts, set, get, narrator: null, firstIndex: 0, slowIndex: null };
    return {
      ...SILENT,
      sleep: AWAKE,
      ...beginning(context),
      ...pausing(context),
      ...moving(context),
      ...choosing(context),
      ...following(context),
    };
  };
}

function tellLockScreen({ parts, get }: Context): void {
  const { hearing, index, playing } = get();
  const shown = hearing && onLockScreen(hearing, index, parts.settings().rate);
  parts.showOnLockScreen(shown, playing);
}

function playFrom(context: Context, index: number): void {
  context.set({ index, playing: true, moved: false, ended: false, problem: null });
  context.narrator?.play(index);
}

/** A sentence begins to be spoken. */
function begun(context: Context, index: number): void {
  const { parts, set, get } = context;
  set({ index });
  if (context.slowIndex !== null && context.slowIndex !== index) {
    context.slowIndex = null;
    context.narrator?.setRate(parts.settings().rate);
  }
  const { hearing, sleep } = get();
  const utterance = hearing?.spoken[index];
  if (utterance && sleepsBefore(sleep, utterance, index === context.firstIndex, parts.now())) {
    set({ sleep: AWAKE });
    get().pause();
    return;
  }
  // A jump while it is silent is a move of the reader's, recorded at once.
  if (!get().playing || parts.record.isDue()) get().record();
  tellLockScreen(context);
}

/** Heard to the end: the next of the Queue, where the reader wants that, or silence. */
async function ended(context: Context): Promise<void> {
  const { parts, set, get } = context;
  set({ playing: false, ended: true });
  get().record();
  const { hearing, sleep } = get();
  if (sleep.until === 'article' || sleep.until === 'part') set({ sleep: AWAKE });
  else if (hearing && parts.settings().goOnWithQueue) {
    const next = await parts.nextAfter(hearing.itemId);
    // Meanwhile the reader may have chosen something else.
    if (next && get().hearing === hearing && get().ended && !get().playing)
      get().listen(next.item, next.copy, null, true);
  }
  tellLockScreen(context);
}

function narratorOf(context: Context, { spoken }: Hearing, voice: Voice): Narrator {
  const { parts, set, get } = context;
  return voice.narrator(spoken, parts.settings().rate, {
    begun: (index) => begun(context, index),
    heard(index, seconds) {
      const utterance = get().hearing?.spoken[index];
      if (utterance) parts.record.heard(utterance, seconds);
    },
    ended: () => void ended(context),
    interrupted: () => get().pause(),
    failed(says) {
      set({ playing: false, problem: says });
      get().record();
    },
  });
}

function beginning(context: Context): Pick<PlayerState, 'listen' | 'close' | 'silence'> {
  const { parts, set, get } = context;
  return {
    listen(item, copy, place, announced = false) {
      const voice = parts.voiceFor(copy.language);
      if (!voice) return false;
      get().close();
      const text = parts.textOf(copy);
      const opened = hearingOf(
        item,
        copy,
        text,
        place,
        announced ? 'announced' : 'at once',
        parts.speechChoices(),
        parts.passedOver(item, copy),
      );
      if (!opened) return false;
      context.firstIndex = opened.from;
      context.narrator = narratorOf(context, opened.hearing, voice);
      parts.record.begin({ itemId: item.id, furthest: item.progress.furthest, ...text });
      set({ hearing: opened.hearing });
      playFrom(context, opened.from);
      return true;
    },
    close() {
      if (!get().hearing) return;
      get().record();
      get().silence();
    },
    silence() {
      context.narrator?.close();
      context.narrator = null;
      parts.record.end();
      set(SILENT);
      tellLockScreen(context);
    },
  };
}

function pausing(context: Context): Pick<PlayerState, 'pause' | 'goOn' | 'setSleep'> {
  const { set, get } = context;
  return {
    pause() {
      if (!get().playing) return;
      context.narrator?.pause();
      set({ playing: false });
      get().record();
      tellLockScreen(context);
    },
    goOn() {
      const { hearing, index, moved, ended: isAtEnd, playing } = get();
      if (!hearing || playing) return;
      if (moved) playFrom(context, index);
      else if (isAtEnd) playFrom(context, 0);
      else {
        set({ playing: true, problem: null });
        context.narrator?.resume();
      }
    },
    setSleep: (sleep) => set({ sleep }),
  };
}

function moving(
  context: Context,
): Pick<PlayerState, 'moveTo' | 'speakFrom' | 'step' | 'paragraph' | 'skip' | 'seekTo' | 'sayAgain'> {
  const { parts, set, get } = context;
  return {
    moveTo(offset) {
      const { hearing, playing } = get();
      const at = hearing && utteranceAt(hearing.spoken, offset);
      if (!playing && at) set({ index: at.index, moved: true, ended: false });
    },
    speakFrom(fraction) {
      const { hearing } = get();
      const offset = hearing?.starts[Math.floor(fraction * hearing.starts.length)];
      const at = hearing && utteranceAt(hearing.spoken, offset ?? hearing.plain.text.length);
      if (at) playFrom(context, at.index);
    },
    step(by) {
      const { hearing, index, playing } = get();
      if (!hearing) return;
      playFrom(context, Math.min(hearing.spoken.length - 1, Math.max(0, index + by)));
      // Paused: the place moves without a word, and going on begins there.
      if (!playing) get().pause();
    },
    sayAgain() {
      const { hearing, index } = get();
      if (!hearing) return;
      context.slowIndex = index;
      context.narrator?.setRate(Math.max(RATE_RANGE.slowest, SLOWER * parts.settings().rate));
      playFrom(context, index);
    },
    paragraph(by) {
      const { hearing, index } = get();
      if (hearing) get().step(paragraphFrom(hearing.spoken, index, by) - index);
    },
    skip(seconds) {
      const { hearing, playing } = get();
      if (!hearing || !context.narrator) return;
      set({ playing: true, moved: false, ended: false, problem: null });
      context.narrator.skip(seconds);
      if (!playing) get().pause();
    },
    seekTo(seconds) {
      const { hearing } = get();
      const whole = hearing ? wholeSeconds(hearing) : 0;
      if (whole > 0) get().speakFrom(Math.min(1, seconds / whole));
    },
  };
}

function choosing(context: Context): Pick<PlayerState, 'setRate' | 'setVoice' | 'passOver'> {
  const { parts, set, get } = context;
  /** What is heard goes on at the same place, by a new narrator. */
  const goOnWith = (hearing: Hearing, index: number, voice: Voice, playing: boolean) => {
    context.narrator?.close();
    context.narrator = narratorOf(context, hearing, voice);
    playFrom(context, index);
    if (!playing) get().pause();
  };
  return {
    setRate(rate) {
      parts.setRate(toRate(rate));
      context.slowIndex = null;
      context.narrator?.setRate(parts.settings().rate);
      tellLockScreen(context);
    },
    setVoice(voice) {
      const { hearing, index, playing } = get();
      parts.chooseVoice(voice);
      if (!hearing) return;
      goOnWith(hearing, index, voice, playing);
    },
    passOver(copyId, sentences) {
      const { hearing, index, playing } = get();
      const voice = hearing && parts.voiceFor(hearing.language);
      if (hearing?.copyId !== copyId || !voice) return;
      const spoken = withoutThese(hearing.whole, sentences);
      const at = utteranceAt(spoken, hearing.spoken[index]?.start ?? 0);
      if (spoken.length === hearing.spoken.length || !at) return;
      const now = { ...hearing, spoken };
      set({ hearing: now });
      goOnWith(now, at.index, voice, playing);
    },
  };
}

function following(context: Context): Pick<PlayerState, 'spokenWord' | 'markHeard' | 'lookUp' | 'record'> {
  const { parts, get } = context;
  return {
    spokenWord() {
      const { hearing, index, playing } = get();
      const utterance = hearing?.spoken[index];
      const until = playing ? context.narrator?.saidUntil() : null;
      if (!utterance || until === null || until === undefined) return null;
      return wordAt(utterance.said(), until, hearing.plain.text);
    },
    async markHeard() {
      const { hearing, index } = get();
      const last = hearing?.spoken[index];
      if (!hearing || !last || last.end <= last.start) return;
      await parts.mark(hearing.itemId, passageAt(hearing.plain.text, last.start, last.end, hearing.copyId), 'key');
    },
    async lookUp() {
      const { hearing, index } = get();
      const last = hearing?.spoken[index];
      if (!hearing || !last || last.end <= last.start) return;
      const { starts, plain, copyId, itemId } = hearing;
      const end = get().spokenWord()?.end ?? last.end;
      const words = partitionPoint(starts.length, (at) => (starts[at] ?? 0) >= end);
      const start = starts[Math.max(0, words - LOOKED_UP_WORDS)] ?? last.start;
      await parts.mark(itemId, passageAt(plain.text, start, end, copyId), 'question');
    },
    record() {
      const { hearing, index, ended: isAtEnd } = get();
      const utterance = hearing?.spoken[index];
      if (utterance) parts.record.at(isAtEnd ? hearing.plain.text.length : utterance.start);
    },
  };
}
