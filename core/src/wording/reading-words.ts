import type { Item } from '../model';
import { minutesLeft, type Pace } from '../reading';

/** Minutes in words, never "0 min" for something that takes time. */
export function inMinutes(minutes: number): string {
  return `${Math.max(1, Math.round(minutes))} min`;
}

/** A length of time in words: "48 min", "2 h 5 min". */
export function inHours(minutes: number): string {
  const whole = Math.round(minutes);
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${whole % 60} min`;
}

/** The strand's text equivalent: "12 min", "12 min, 7 left", "12 min, finished". */
export function lengthInWords(item: Item): string {
  const page = item.capture.page;
  if (!page) return 'length not known yet';
  const whole = inMinutes(page.minutes);
  if (item.choices.finishedAt.value !== null) return `${whole}, finished`;
  if (item.progress.furthest === 0) return whole;
  return `${whole}, ${Math.max(1, Math.round(minutesLeft(item)))} left`;
}

/** What is still to come, as it stands beside a strand: "12 min", "7 min left", "finished". */
export function leftInWords(item: Item): string {
  const page = item.capture.page;
  if (!page) return '';
  if (item.choices.finishedAt.value !== null) return 'finished';
  return item.progress.furthest === 0 ? inMinutes(page.minutes) : `${inMinutes(minutesLeft(item))} left`;
}

/** How sure a pace is, in words. */
export function paceConfidence({ sittings }: Pace): 'a first guess' | 'fairly sure' | 'sure' {
  if (sittings < 4) return 'a first guess';
  return sittings < 15 ? 'fairly sure' : 'sure';
}
