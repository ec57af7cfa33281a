import { findAnchor } from '@dorvel/core/highlight';
import type { SpeechChoices } from '@dorvel/core/listening';
import type { Item } from '@dorvel/core/model';
import { titleUtterance, type Utterance, utteranceAt, utterances } from '@dorvel/core/speech';
import { fractionAbove, listeningMinutes, type PlainText, type TextRange } from '@dorvel/core/text';
import { inMinutes, sourceOf, titleOf } from '@dorvel/core/wording';
import type { KeptCopy } from '@/device/store/store';
import type { OnLockScreen } from './media-session';

/** What is being listened to: a text with its sentences. */
export interface Hearing {
  itemId: string;
  copyId: string;
  title: string;
  source: string;
  language: string | null;
  minutes: number;
  plain: PlainText;
  starts: readonly number[];
  /** What of it is heard. */
  spoken: readonly Utterance[];
  /** All of its sentences, those that are passed over too. */
  whole: readonly Utterance[];
}

/** @returns what is heard of an item's text, and the sentence at which it begins; null when there is nothing to say */
export function hearingOf(
  item: Item,
  copy: KeptCopy,
  { plain, starts }: { plain: PlainText; starts: readonly number[] },
  place: number | null,
  how: 'announced' | 'at once',
  choices: SpeechChoices,
  passedOver: readonly TextRange[],
): { hearing: Hearing; from: number } | null {
  const whole = utterances(copy.tree, copy.language, choices);
  const text = withoutThese(whole, passedOver);
  const kept = item.progress.position?.value;
  const from = utteranceAt(text, place ?? (kept ? findAnchor(plain, starts, kept) : 0));
  if (!from) return null;
  const [title, source, minutes] = [titleOf(item), sourceOf(item), item.capture.page?.minutes ?? 0];
  const announcement = () => titleUtterance(title, source, inMinutes(minutes), copy.language);
  const spoken = how === 'announced' ? withTitle(text, from, announcement()) : text;
  const { id: copyId, language } = copy;
  return {
    hearing: { itemId: item.id, copyId, title, source, language, minutes, plain, starts, spoken, whole },
    from: from.index,
  };
}

/** Sentences without those that are passed over; all of them where none would be left. */
export function withoutThese(whole: readonly Utterance[], passedOver: readonly TextRange[]): readonly Utterance[] {
  const isPassedOver = ({ kind, start, end }: Utterance) =>
    kind === 'sentence' && passedOver.some((range) => range.start <= start && end <= range.end);
  const left = whole.filter((utterance) => !isPassedOver(utterance));
  return left.length === 0 || left.length === whole.length ? whole : left.map((each, index) => ({ ...each, index }));
}

/** The sentences with the title before the one at which listening begins; it takes no room in the text. */
function withTitle(text: readonly Utterance[], from: Utterance, title: Utterance): Utterance[] {
  const at = { start: from.start, end: from.start };
  return [...text.slice(0, from.index), { ...title, ...at }, ...text.slice(from.index)].map((each, index) => ({
    ...each,
    index,
  }));
}

/** How long all of it takes at a rate of 1. */
export const wholeSeconds = ({ starts }: Hearing) => listeningMinutes(starts.length, 1) * 60;

/** What the lock screen shows of it, at a sentence. */
export function onLockScreen(hearing: Hearing, index: number, rate: number): OnLockScreen {
  const { title, source, starts, spoken } = hearing;
  const seconds = wholeSeconds(hearing);
  const passed = fractionAbove(starts, spoken[index]?.start ?? 0) * seconds;
  const chapters = hearing.whole
    .filter(({ kind, begins }) => kind === 'heading' && begins)
    .map(({ start, end }) => ({
      title: hearing.plain.text.slice(start, end),
      startTime: fractionAbove(starts, start) * seconds,
    }));
  return { title, source, seconds, passed, rate, chapters };
}
