import { anchorAt, findAnchor, passageAt } from '@dorvel/core/highlight';
import { type Item, joinSpans, spanOf, type Spans } from '@dorvel/core/model';
import { beginSession, hearOn, type ReadingSession } from '@dorvel/core/reading';
import {
  paragraphFrom,
  titleUtterance,
  toRate,
  type Utterance,
  utteranceAt,
  utterances,
  wordAt,
} from '@dorvel/core/speech';
import {
  baseLanguage,
  fractionAbove,
  listeningMinutes,
  type PlainText,
  type TextRange,
} from '@dorvel/core/text';
import { inMinutes, sourceOf, titleOf } from '@dorvel/core/wording';
import { v7 as uuidv7 } from 'uuid';
import { create } from 'zustand';
import { textOf } from '@/device/cache/snapshot-cache';
import { useAccount } from '@/device/store/account';
import { mark, recordActivity, recordProgress } from '@/device/store/changes';
import { dayOf } from '@/device/store/day';
import type { KeptCopy } from '@/device/store/store';
import type { Narrator } from '@/device/voice/narrator';
import { chosenVoice, speechChoices, useListeningSettings, type Voice } from './listening-settings-store';
import { showOnLockScreen, takeMediaKeys } from './media-session';
import { nextInQueue } from './next-in-queue';
import { AWAKE, type Sleep, sleepsBefore } from './sleep';

/** What is being listened to: a text with its sentences. */
interface Hearing {
  itemId: string;
  copyId: string;
  title: string;
  source: string;
  language: string | null;
  minutes: number;
  plain: PlainText;
  starts: readonly number[];
  spoken: readonly Utterance[];
}

interface PlayerState {
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
  /** To the sentence so many further on, or back. */
  step(by: number): void;
  /** To the beginning of the next paragraph, or of this one, or of the one before. */
  paragraph(by: 1 | -1): void;
  /** Jumps by so many seconds, forward or back. */
  skip(seconds: number): void;
  setSleep(sleep: Sleep): void;
  /** The word that is being said, as a part of the text; null where the voice does not tell. */
  spokenWord(): TextRange | null;
  setRate(rate: number): void;
  setVoice(voice: Voice): void;
  /** Ends listening; the place is kept. */
  close(): void;
}

/** A change of the place every few seconds is enough while the voice goes on; pausing records it exactly. */
const RECORD_EVERY_MS = 5000;

export const usePlayer = create<PlayerState>()((set, get) => {
  let narrator: Narrator | null = null;
  let sitting: ReadingSession | null = null;
  let heardSince: Spans = [];
  let furthest = 0;
  let recordedAt = 0;
  let recordedOffset = -1;
  let firstIndex = 0;

  const fractionAt = (hearing: Hearing, offset: number) => fractionAbove(hearing.starts, offset);

  /** Records where the voice is, what has been heard since the last time, and the time it took. */
  const record = () => {
    const { hearing, index, ended } = get();
    const utterance = hearing?.spoken[index];
    if (!hearing || !utterance) return;
    const offset = ended ? hearing.plain.text.length : utterance.start;
    if (offset === recordedOffset && heardSince.length === 0) return;
    const position = anchorAt(hearing.plain, hearing.starts, offset);
    furthest = Math.max(furthest, position.fraction);
    void recordProgress(hearing.itemId, furthest, position, heardSince);
    if (sitting && sitting.activity.seconds > 0) void recordActivity(sitting.activity);
    heardSince = [];
    recordedAt = Date.now();
    recordedOffset = offset;
  };

  const heard = (index: number, seconds: number) => {
    const { hearing } = get();
    const utterance = hearing?.spoken[index];
    if (!hearing || !utterance) return;
    const [from, to] = [fractionAt(hearing, utterance.start), fractionAt(hearing, utterance.end)];
    // The title that is said before a text has no part in it.
    if (to > from) heardSince = joinSpans(heardSince, spanOf(from, to));
    furthest = Math.max(furthest, to);
    const words = Math.round((to - from) * hearing.starts.length);
    if (sitting) sitting = hearOn(sitting, Date.now(), seconds, words);
  };

  const onLockScreen = () => {
    const { hearing, index, playing } = get();
    if (!hearing) {
      showOnLockScreen(null, false);
      return;
    }
    const { title, source, starts, spoken } = hearing;
    const seconds = listeningMinutes(starts.length, 1) * 60;
    const passed = fractionAt(hearing, spoken[index]?.start ?? 0) * seconds;
    showOnLockScreen({ title, source, seconds, passed, rate: useListeningSettings.getState().rate }, playing);
  };

  const begun = (index: number) => {
    set({ index });
    const { hearing, sleep } = get();
    const utterance = hearing?.spoken[index];
    if (utterance && sleepsBefore(sleep, utterance, index === firstIndex, Date.now())) {
      set({ sleep: AWAKE });
      player.pause();
      return;
    }
    // A jump while it is silent is a move of the reader's, recorded at once.
    if (!get().playing || Date.now() - recordedAt >= RECORD_EVERY_MS) record();
    onLockScreen();
  };

  /** Heard to the end: the next of the Queue, where the reader wants that, or silence. */
  const ended = async () => {
    set({ playing: false, ended: true });
    record();
    const { hearing, sleep } = get();
    if (sleep.until === 'article' || sleep.until === 'part') set({ sleep: AWAKE });
    else if (hearing && useListeningSettings.getState().goOnWithQueue) {
      const next = await nextInQueue(hearing.itemId);
      // Meanwhile the reader may have chosen something else.
      if (next && get().hearing === hearing && get().ended && !get().playing)
        player.listen(next.item, next.copy, null, true);
    }
    onLockScreen();
  };

  const makeNarrator = (hearing: Hearing, voice: Voice): Narrator =>
    voice.narrator(hearing.spoken, useListeningSettings.getState().rate, {
      begun,
      heard,
      ended: () => void ended(),
      interrupted: () => player.pause(),
      failed: (says) => {
        set({ playing: false, problem: says });
        record();
      },
    });

  const playFrom = (index: number) => {
    set({ index, playing: true, moved: false, ended: false, problem: null });
    narrator?.play(index);
  };

  const silence = () => {
    narrator?.close();
    narrator = null;
    sitting = null;
    heardSince = [];
    set({ hearing: null, playing: false, moved: false, ended: false, problem: null, index: 0 });
    onLockScreen();
  };

  addEventListener('pagehide', record);
  // Another account's text is neither heard nor recorded in this one's library.
  useAccount.subscribe((now, before) => {
    if (now.store !== before.store) silence();
  });

  const player: PlayerState = {
    hearing: null,
    index: 0,
    playing: false,
    moved: false,
    ended: false,
    problem: null,
    sleep: AWAKE,
    listen(item, copy, place, announced = false) {
      const voice = chosenVoice(copy.language);
      if (!voice) return false;
      get().close();
      const { plain, starts } = textOf(copy);
      const kept = item.progress.position?.value;
      const minutes = item.capture.page?.minutes ?? 0;
      const text = utterances(copy.tree, copy.language, speechChoices());
      const from = utteranceAt(text, place ?? (kept ? findAnchor(plain, starts, kept) : 0));
      if (!from) return false;
      const title = titleOf(item);
      const source = sourceOf(item);
      const hearing: Hearing = {
        itemId: item.id,
        copyId: copy.id,
        title,
        source,
        language: copy.language,
        minutes,
        plain,
        starts,
        spoken: announced
          ? withTitle(text, from, titleUtterance(title, source, inMinutes(minutes), copy.language))
          : text,
      };
      firstIndex = from.index;
      narrator = makeNarrator(hearing, voice);
      furthest = item.progress.furthest;
      recordedOffset = -1;
      const now = Date.now();
      sitting = beginSession({ id: uuidv7(), itemId: item.id, day: dayOf(now), by: 'ears' }, now, 0);
      set({ hearing });
      playFrom(from.index);
      return true;
    },
    pause() {
      if (!get().playing) return;
      narrator?.pause();
      set({ playing: false });
      record();
      onLockScreen();
    },
    goOn() {
      const { hearing, index, moved, ended, playing } = get();
      if (!hearing || playing) return;
      if (moved) playFrom(index);
      else if (ended) playFrom(0);
      else {
        set({ playing: true, problem: null });
        narrator?.resume();
      }
    },
    moveTo(offset) {
      const { hearing, playing } = get();
      const at = hearing && utteranceAt(hearing.spoken, offset);
      if (!playing && at) set({ index: at.index, moved: true, ended: false });
    },
    speakFrom(fraction) {
      const { hearing } = get();
      const offset = hearing?.starts[Math.floor(fraction * hearing.starts.length)];
      const at = hearing && utteranceAt(hearing.spoken, offset ?? hearing.plain.text.length);
      if (at) playFrom(at.index);
    },
    step(by) {
      const { hearing, index, playing } = get();
      if (!hearing) return;
      const to = Math.min(hearing.spoken.length - 1, Math.max(0, index + by));
      if (playing) {
        playFrom(to);
        return;
      }
      // Paused: the place moves without a word, and going on begins there.
      playFrom(to);
      get().pause();
    },
    paragraph(by) {
      const { hearing, index } = get();
      if (hearing) get().step(paragraphFrom(hearing.spoken, index, by) - index);
    },
    skip(seconds) {
      const { hearing, playing } = get();
      if (!hearing || !narrator) return;
      set({ playing: true, moved: false, ended: false, problem: null });
      narrator.skip(seconds);
      if (!playing) get().pause();
    },
    setSleep: (sleep) => set({ sleep }),
    spokenWord() {
      const { hearing, index, playing } = get();
      const utterance = hearing?.spoken[index];
      const until = playing ? narrator?.saidUntil() : null;
      if (!utterance || until === null || until === undefined) return null;
      return wordAt(utterance.said(), until, hearing.plain.text);
    },
    setRate(rate) {
      useListeningSettings.getState().change({ rate: toRate(rate) });
      narrator?.setRate(useListeningSettings.getState().rate);
      onLockScreen();
    },
    setVoice(voice) {
      const { hearing, index, playing } = get();
      useListeningSettings.getState().setVoice(baseLanguage(voice.language), voice.id);
      if (!hearing) return;
      narrator?.close();
      narrator = makeNarrator(hearing, voice);
      playFrom(index);
      if (!playing) get().pause();
    },
    close() {
      if (!get().hearing) return;
      record();
      silence();
    },
  };
  takeMediaKeys({
    ...player,
    previous: () => {
      if (useListeningSettings.getState().previousDoes === 'mark') void markJustHeard();
      else player.paragraph(-1);
    },
    next: () => player.paragraph(1),
    seekTo: (seconds) => {
      const { hearing } = get();
      const whole = hearing ? listeningMinutes(hearing.starts.length, 1) * 60 : 0;
      if (whole > 0) player.speakFrom(Math.min(1, seconds / whole));
    },
  });
  return player;

  /** One press while listening: the sentence that is being heard is marked. */
  async function markJustHeard(): Promise<void> {
    const { hearing, index } = get();
    const heardLast = hearing?.spoken[index];
    if (!hearing || !heardLast || heardLast.end <= heardLast.start) return;
    const passage = passageAt(hearing.plain.text, heardLast.start, heardLast.end, hearing.copyId);
    await mark(hearing.itemId, 'key', passage);
  }
});

/** The sentences with the title before the one at which listening begins; it takes no room in the text. */
function withTitle(text: readonly Utterance[], from: Utterance, title: Utterance): Utterance[] {
  const at = { start: from.start, end: from.start };
  return [...text.slice(0, from.index), { ...title, ...at }, ...text.slice(from.index)].map(
    (each, index) => ({ ...each, index }),
  );
}

/** True while the voice reads an item aloud. */
export function useIsSpeaking(itemId: string): boolean {
  return usePlayer((state) => state.playing && state.hearing?.itemId === itemId);
}
