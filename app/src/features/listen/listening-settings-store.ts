import { RATE_RANGE, SHIPPED_VOICES, type SpeechChoices, USUAL_SPEECH, voiceFor } from '@dorvel/core/listening';
import { baseLanguage } from '@dorvel/core/text';
import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';
import { deviceNarrator, deviceVoices } from '@/device/voice/device-narrator';
import type { NarratorMaker } from '@/device/voice/narrator';
import { shippedNarrator, warmUp } from '@/device/voice/shipped-narrator';

const ListeningSettings = z.object({
  rate: z.number().min(RATE_RANGE.slowest).max(RATE_RANGE.fastest),
  /** The voice chosen for a language, by ISO 639-1 code. */
  voices: z.record(z.string(), z.string()),
  headings: z.boolean().default(USUAL_SPEECH.headings),
  tables: z.enum(['summary', 'rows', 'nothing']).default(USUAL_SPEECH.tables),
  footnotes: z.boolean().default(USUAL_SPEECH.footnotes),
  /** The reader's own way to say words. */
  own: z
    .array(z.object({ written: z.string().min(1).max(80), said: z.string().min(1).max(200) }))
    .max(500)
    .default([]),
  /** Behind one article the next of the Queue is read. */
  goOnWithQueue: z.boolean().default(false),
  /** What the "previous" of a headset or a lock screen does, since these have no button for marking. */
  previousDoes: z.enum(['paragraph', 'mark']).default('paragraph'),
});
type ListeningSettings = z.infer<typeof ListeningSettings>;

interface ListeningSettingsState extends ListeningSettings {
  change(changes: Partial<ListeningSettings>): void;
  setVoice(language: string, voiceId: string): void;
}

/** How the reader wants to be read to, on this device. */
export const useListeningSettings = create<ListeningSettingsState>()((set, get) => {
  const change = (changes: Partial<ListeningSettings>) => {
    set(changes);
    writeSetting('listening', ListeningSettings.parse(get()));
  };
  return {
    ...readSetting('listening', ListeningSettings, ListeningSettings.parse({ rate: 1, voices: {} })),
    change,
    setVoice: (language, voiceId) => change({ voices: { ...get().voices, [language]: voiceId } }),
  };
});

/** What is said of what is no running text, as the reader chose. */
export function speechChoices(): SpeechChoices {
  const { headings, tables, footnotes, own } = useListeningSettings.getState();
  return { headings, tables, footnotes, own };
}

/** A voice that can be chosen: one of those that ship, or one of the device's own. */
export interface Voice {
  id: string;
  name: string;
  /** BCP 47 tag. */
  language: string;
  narrator: NarratorMaker;
  /** Has it ready before it is asked to read, where that takes time. */
  warmUp?(): Promise<void>;
}

/** The voices that can read a language: those that ship first, since they are the same everywhere and need no network. */
export function voicesFor(language: string | null): Voice[] {
  const code = baseLanguage(language);
  const shipped = SHIPPED_VOICES.map(({ id, name, language: spoken }): Voice => ({
    id,
    name: `Dorvel’s own, ${name}`,
    language: spoken,
    narrator: shippedNarrator(id),
    warmUp: () => warmUp(id),
  }));
  const own = deviceVoices()
    // Voices that speak over a network would fall silent in the tunnel.
    .filter((voice) => voice.localService)
    .map((voice): Voice => ({
      id: `device:${voice.voiceURI}`,
      name: `This device’s ${voice.name}`,
      language: voice.lang,
      narrator: deviceNarrator(voice),
    }));
  return [...shipped, ...own].filter((voice) => baseLanguage(voice.language) === code);
}

/** The voice that reads a text: the one chosen for its language, else the best match; null when there is none. */
export function chosenVoice(language: string | null): Voice | null {
  const voices = voicesFor(language);
  const chosen = useListeningSettings.getState().voices[baseLanguage(language)];
  return (
    voices.find(({ id }) => id === chosen) ??
    voices[
      voiceFor(
        language,
        voices.map((voice) => voice.language),
      )
    ] ??
    null
  );
}
