import { anchorAt } from '@dorvel/core/highlight';
import { joinSpans, spanOf, type Item, type Spans } from '@dorvel/core/model';
import { beginSitting, hearOn, type Sitting } from '@dorvel/core/queue';
import { utteranceAt, utterances, type Utterance } from '@dorvel/core/speech';
import { fractionAbove, plainText, wordStarts, type PlainText } from '@dorvel/core/text';
import { v7 as uuidv7 } from 'uuid';
import { create } from 'zustand';
import { useAccount } from '@/device/account';
import { recordActivity, recordProgress } from '@/device/changes';
import type { KeptCopy } from '@/device/store';
import type { Narrator } from '@/device/voice/narrator';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { dayOf } from '@/device/day';
import { chosenVoice, languageCode, useListeningSettings, type Voice } from './listening-settings-store';
import { showOnLockScreen, takeMediaKeys } from './media-session';

/** What is being listened to: a text with its sentences. */
interface Hearing {
  itemId: string;
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
  /**
   * Begins to read an item aloud, at the sentence at a place in its text.
   *
   * @returns false when there is no voice for its language
   */
  listen(item: Item, copy: KeptCopy, offset: number): boolean;
  pause(): void;
  goOn(): void;
  /** While it is silent: the eyes are at another place now. */
  moveTo(offset: number): void;
  /** While it speaks: goes on from a fraction of the text. */
  speakFrom(fraction: number): void;
  /** To the sentence so many further on, or back. */
  step(by: number): void;
  setRate(rate: number): void;
  setVoice(voice: Voice): void;
  /** Ends listening; the place is kept. */
  close(): void;
}

/** A change of the place every few seconds is enough while the voice goes on; pausing records it exactly. */
const RECORD_EVERY_MS = 5000;

export const usePlayer = create<PlayerState>()((set, get) => {
  let narrator: Narrator | null = null;
  let sitting: Sitting | null = null;
  let heardSince: Spans = [];
  let furthest = 0;
  let recordedAt = 0;
  let recordedOffset = -1;

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
    heardSince = joinSpans(heardSince, spanOf(from, to));
    furthest = Math.max(furthest, to);
    const words = Math.round((to - from) * hearing.starts.length);
    if (sitting) sitting = hearOn(sitting, Date.now(), seconds, words);
  };

  const begun = (index: number) => {
    set({ index });
    if (Date.now() - recordedAt >= RECORD_EVERY_MS) record();
    const { hearing, playing } = get();
    if (hearing) showOnLockScreen(hearing, playing);
  };

  const makeNarrator = (hearing: Hearing, voice: Voice): Narrator =>
    voice.narrator(hearing.spoken, useListeningSettings.getState().rate, {
      begun,
      heard,
      ended: () => {
        set({ playing: false, ended: true });
        record();
      },
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
    showOnLockScreen(null, false);
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
    listen(item, copy, offset) {
      const voice = chosenVoice(copy.language);
      if (!voice) return false;
      get().close();
      const plain = plainText(copy.tree);
      const hearing: Hearing = {
        itemId: item.id,
        title: titleOf(item),
        source: sourceOf(item),
        language: copy.language,
        minutes: item.capture.page?.minutes ?? 0,
        plain,
        starts: wordStarts(plain.text, copy.language),
        spoken: utterances(copy.tree, copy.language),
      };
      const from = utteranceAt(hearing.spoken, offset);
      if (!from) return false;
      narrator = makeNarrator(hearing, voice);
      furthest = item.progress.furthest;
      recordedOffset = -1;
      const now = Date.now();
      sitting = beginSitting({ id: uuidv7(), itemId: item.id, day: dayOf(now), by: 'ears' }, now, 0);
      set({ hearing });
      playFrom(from.index);
      return true;
    },
    pause() {
      if (!get().playing) return;
      narrator?.pause();
      set({ playing: false });
      record();
      const { hearing } = get();
      if (hearing) showOnLockScreen(hearing, false);
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
    setRate(rate) {
      useListeningSettings.getState().setRate(rate);
      narrator?.setRate(useListeningSettings.getState().rate);
    },
    setVoice(voice) {
      const { hearing, index, playing } = get();
      useListeningSettings.getState().setVoice(languageCode(voice.language), voice.id);
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
  takeMediaKeys(player);
  return player;
});

/** True while the voice reads an item aloud. */
export function useIsSpeaking(itemId: string): boolean {
  return usePlayer((state) => state.playing && state.hearing?.itemId === itemId);
}
