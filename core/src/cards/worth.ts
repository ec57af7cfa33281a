import { countWords, sentences } from '../text';
import { gapsIn, withoutGaps } from './gaps';

/** More than this in one card is hard to recall: keep each to one small fact (CP, minimum information principle). */
export const MAX_CARD_WORDS = 30;
export const MAX_GAPS_AT_ONCE = 3;

/** Why a card is of little worth as it is; null when nothing speaks against it. */
export type CardFault = 'nothing' | 'no answer' | 'long' | 'several facts' | 'a list' | 'many gaps';

/**
 * What speaks against a card, the gravest first. Only `nothing` and `no answer` keep it from being made.
 *
 * @param language BCP 47 tag of what is written, or null
 */
export function cardFaults(front: string, back: string, language: string | null): CardFault[] {
  if (front.trim() === '') return ['nothing'];
  const gaps = gapsIn(front);
  if (gaps.length === 0 && back.trim() === '') return ['no answer'];
  const faults: CardFault[] = [];
  const [asked, answer] = [withoutGaps(front), back];
  if (countWords(`${asked} ${answer}`, language) > MAX_CARD_WORDS) faults.push('long');
  const fact = gaps.length > 0 ? asked : answer;
  if (sentences(fact, language).length > 1) faults.push('several facts');
  if (gaps.length === 0 && isList(answer)) faults.push('a list');
  if (gaps.length > MAX_GAPS_AT_ONCE) faults.push('many gaps');
  return faults;
}

/** True for a fault with which a card cannot be asked at all. */
export function isHopeless(fault: CardFault): boolean {
  return fault === 'nothing' || fault === 'no answer';
}

const isList = (answer: string): boolean => (answer.match(/[,;、]/g)?.length ?? 0) >= 2 || /\n.*\n/.test(answer.trim());
