import { shippedVoice, type ShippedVoiceId } from '@dorvel/core/listening';
import { baseLanguage } from '@dorvel/core/text';
import { sayOnce } from '@/device/voice/shipped-narrator';
import { useNotices } from '@/ui/notices';
import { usePlayer } from './player-store';

/** What a voice says of itself where no text in its language is open, by ISO 639-1 code. */
const SAMPLES: Readonly<Record<string, string>> = {
  en: 'The tide turns at seven, and the boats go out with it.',
  de: 'Um sieben kippt die Tide, und die Boote laufen mit ihr aus.',
  fr: 'La marée tourne à sept heures, et les bateaux sortent avec elle.',
  es: 'La marea cambia a las siete, y los barcos salen con ella.',
  it: 'La marea cambia alle sette, e le barche escono con lei.',
};

/** Says one sentence in a voice: the one that is being listened to, where it is in the voice's language. */
export function hearVoice(id: ShippedVoiceId): void {
  const player = usePlayer.getState();
  player.pause();
  const language = baseLanguage(shippedVoice(id).language);
  const heard = player.hearing?.spoken[player.index];
  const isSame = baseLanguage(heard?.language ?? player.hearing?.language ?? null) === language;
  const open = player.hearing && isSame ? heard?.said().text : undefined;
  const text = open ?? SAMPLES[language] ?? '';
  void sayOnce(id, text).catch(() =>
    useNotices.getState().show({ text: 'That voice cannot be heard just now. Try again when you are online.' }),
  );
}
