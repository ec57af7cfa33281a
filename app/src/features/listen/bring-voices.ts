import { SHIPPED_VOICES, type ShippedVoiceId } from '@dorvel/core/listening';
import { useItemsState } from '@/device/store/items';
import { useVoicesHere } from '@/device/voice/voices-here';
import { chosenVoice } from './listening-settings-store';

/** The app's own start comes first: so long after it, in milliseconds. */
const AFTER_MS = 3_000;

/**
 * Brings the voices ahead that Inbox and Queue will want, so that both can be heard in a tunnel: those of their texts'
 * languages, as chosen. Not where the browser is told to save data.
 *
 * @returns ends it
 */
export function bringVoices(): () => void {
  const asked = new Set<ShippedVoiceId>();
  const look = () => {
    if (!navigator.onLine || isSavingData()) return;
    for (const id of wantedVoices()) {
      if (asked.has(id)) continue;
      asked.add(id);
      void useVoicesHere
        .getState()
        .bring(id)
        // It is brought when it is listened to, back on line, or with the next change of Inbox and Queue.
        .catch(() => asked.delete(id));
    }
  };
  let unsubscribe = () => {};
  addEventListener('online', look);
  const timer = setTimeout(() => {
    look();
    unsubscribe = useItemsState.subscribe((now, before) => {
      const [here, were] = [now.inStage, before.inStage];
      if (here.inbox !== were.inbox || here.queue !== were.queue) look();
    });
  }, AFTER_MS);
  return () => {
    clearTimeout(timer);
    removeEventListener('online', look);
    unsubscribe();
  };
}

function wantedVoices(): ReadonlySet<ShippedVoiceId> {
  const { inbox, queue } = useItemsState.getState().inStage;
  const languages = new Set(
    [...inbox, ...queue].flatMap(({ capture }) => (capture.page?.copyId ? [capture.page.language] : [])),
  );
  const chosen = new Set([...languages].map((language) => chosenVoice(language)?.id));
  return new Set(SHIPPED_VOICES.flatMap(({ id }) => (chosen.has(id) ? [id] : [])));
}

/** Network Information (WICG), which not all browsers have. */
function isSavingData(): boolean {
  return (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;
}
