import { SHIPPED_VOICES, shippedVoice, type ShippedVoiceId } from '@dorvel/core/listening';
import { create } from 'zustand';
import { dropVoice, isVoiceHere, voiceFiles } from './voice-files';

/** Where a voice is: on this device, on its way (how much of it has come), not here, or not to be had just now. */
export type VoicePlace = 'here' | { coming: number } | 'away' | 'failed';

interface VoicesHere {
  /** Empty until it was looked. */
  places: Readonly<Partial<Record<ShippedVoiceId, VoicePlace>>>;
  /** Looks which voices are on this device. */
  look(): Promise<void>;
  /** Brings a voice to this device, once however often it is asked for. @throws Error when it cannot be had */
  bring(id: ShippedVoiceId): Promise<void>;
  /** Takes a voice off this device. */
  drop(id: ShippedVoiceId): Promise<void>;
}

const coming = new Map<ShippedVoiceId, Promise<void>>();

/** The voices that ship, and which of them are on this device: each is fetched when it is first wanted. */
export const useVoicesHere = create<VoicesHere>()((set, get) => {
  const put = (id: ShippedVoiceId, place: VoicePlace) => set({ places: { ...get().places, [id]: place } });
  return {
    places: {},
    async look() {
      for (const voice of SHIPPED_VOICES) {
        const isHere = await isVoiceHere(voice);
        if (!coming.has(voice.id)) put(voice.id, isHere ? 'here' : 'away');
      }
    },
    bring(id) {
      // Asked for before each sentence.
      if (get().places[id] === 'here') return Promise.resolve();
      const already = coming.get(id);
      if (already) return already;
      const voice = shippedVoice(id);
      const promise = (async () => {
        if (await isVoiceHere(voice)) {
          put(id, 'here');
          return;
        }
        put(id, { coming: 0 });
        try {
          await voiceFiles(voice, (part) => put(id, { coming: part }));
          put(id, 'here');
        } catch (error) {
          put(id, 'failed');
          throw error;
        }
      })().finally(() => coming.delete(id));
      coming.set(id, promise);
      return promise;
    },
    async drop(id) {
      await dropVoice(shippedVoice(id));
      put(id, 'away');
    },
  };
});
