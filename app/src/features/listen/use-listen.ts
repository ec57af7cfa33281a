import type { Item } from '@dorvel/core/model';
import { inStage } from '@dorvel/core/queue';
import { useCallback, useEffect, useRef } from 'react';
import type { KeptCopy } from '@/device/store/store';
import { moves } from '@/features/items/moves';
import { useNotices } from '@/ui/notices';
import { chosenVoice } from './listening-settings-store';
import { useIsSpeaking, usePlayer } from './player-store';

/**
 * The one button that begins, stops and goes on listening to an item.
 *
 * @param place tells where in the text to begin
 */
export function useListen(
  item: Item | null,
  copy: KeptCopy | null,
  place: () => number,
): { speaking: boolean; toggle(): void; makeReady(): void } {
  const speaking = useIsSpeaking(item?.id ?? '');
  const show = useNotices((state) => state.show);
  const { begin } = moves;
  const latest = useRef({ item, copy, place, begin });
  useEffect(() => {
    latest.current = { item, copy, place, begin };
  });
  const toggle = useCallback(() => {
    const { item: now, copy: text, place: at, begin: queue } = latest.current;
    if (!now || !text) return;
    const player = usePlayer.getState();
    if (player.hearing?.itemId === now.id) {
      if (player.playing) player.pause();
      else player.goOn();
      return;
    }
    if (player.listen(now, text, at())) {
      // Hearing is deciding, as reading is.
      if (inStage(now, 'inbox')) void queue(now);
    } else show({ text: noVoiceWords(text.language) });
  }, [show]);
  const language = copy?.language ?? null;
  const makeReady = useCallback(() => {
    // What cannot be had is told when it is asked to read.
    void chosenVoice(language)
      ?.warmUp?.()
      .catch(() => undefined);
  }, [language]);
  return { speaking, toggle, makeReady };
}

function noVoiceWords(language: string | null): string {
  const name = language ? new Intl.DisplayNames('en', { type: 'language' }).of(language) : null;
  return name ? `No voice on this device reads ${name}.` : 'There is nothing in this text that can be read aloud.';
}
