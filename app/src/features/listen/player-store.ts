import { baseLanguage } from '@dorvel/core/text';
import { v7 as uuidv7 } from 'uuid';
import { create } from 'zustand';
import { plainTextOf } from '@/device/cache/snapshot-cache';
import { useAccount } from '@/device/store/account';
import { addHighlight, recordActivity, recordProgress } from '@/device/store/changes';
import { dayOf } from '@/device/store/day';
import { passedOverIn } from '@/features/new-to-you/known-store';
import { createListeningRecord } from './listening-record';
import { chosenVoice, speechChoices, useListeningSettings } from './listening-settings-store';
import { showOnLockScreen, takeMediaKeys } from './media-session';
import { nextInQueue } from './next-in-queue';
import { player } from './player';

/** The player of this tab; see startPlayer. */
export const usePlayer = create(
  player({
    now: Date.now,
    textOf: plainTextOf,
    settings: useListeningSettings.getState,
    setRate: (rate) => useListeningSettings.getState().change({ rate }),
    chooseVoice: ({ language, id }) => useListeningSettings.getState().setVoice(baseLanguage(language), id),
    voiceFor: chosenVoice,
    speechChoices,
    passedOver: passedOverIn,
    nextAfter: nextInQueue,
    record: createListeningRecord({ now: Date.now, newId: uuidv7, dayOf, recordProgress, recordActivity }),
    mark: (itemId, passage, kind) => addHighlight(itemId, kind, passage),
    showOnLockScreen,
  }),
);

/** Lets the lock screen, a headset's keys and the account steer the player. @returns what ends that */
export function startPlayer(): () => void {
  const state = usePlayer.getState();
  takeMediaKeys({
    ...state,
    previous: () => {
      if (useListeningSettings.getState().previousDoes === 'mark') void state.markHeard();
      else state.paragraph(-1);
    },
    next: () => state.paragraph(1),
  });
  const left = () => state.record();
  addEventListener('pagehide', left);
  // Another account's text is neither heard nor recorded in this one's library.
  const unsubscribe = useAccount.subscribe((now, before) => {
    if (now.store !== before.store) state.silence();
  });
  return () => {
    removeEventListener('pagehide', left);
    unsubscribe();
  };
}

/** True while the voice reads an item aloud. */
export function useIsSpeaking(itemId: string): boolean {
  return usePlayer((state) => state.playing && state.hearing?.itemId === itemId);
}
