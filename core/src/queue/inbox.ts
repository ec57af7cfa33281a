import { instantOf, type Item } from '../model';
import { inStage } from './stages';

const DAY_MS = 24 * 60 * 60 * 1000;
/** An Inbox is emptied about once a week (common practice). */
const USUAL_DAYS = 7;

/**
 * For how many days the Inbox has not been emptied: since its oldest thing came into it.
 *
 * @param now milliseconds since 1970
 * @returns null when there is no need to speak of it, as it was empty within the last week
 */
export function daysUnemptied(items: readonly Item[], now: number): number | null {
  const since = items
    .filter((item) => inStage(item, 'inbox'))
    .map(({ savedAt, choices }) => Math.max(savedAt, choices.raisedAt.value, instantOf(choices.stage.at)));
  if (since.length === 0) return null;
  const days = Math.floor((now - Math.min(...since)) / DAY_MS);
  return days >= USUAL_DAYS ? days : null;
}
