import { isOnWeb } from '@dorvel/core/address';
import type { Item } from '@dorvel/core/model';

const STEPS = ['guide', 'bring-in', 'button', 'phone', 'feed', 'mail'] as const;
export type Step = (typeof STEPS)[number];

/** What is known of a reader's beginning; what the server alone knows is null while it was not asked. */
export interface Beginning {
  items: readonly Item[];
  /** The guide's address on this server, in canonical form. */
  guideKey: string;
  feeds: number;
  installed: boolean;
  savesFromBrowser: boolean | null;
  mailed: boolean | null;
  /** Whether this server takes mail at all. */
  takesMail: boolean | null;
}

/** The first steps that can be taken here. */
export const stepsOffered = ({ takesMail }: Pick<Beginning, 'takesMail'>): Step[] =>
  STEPS.filter((step) => step !== 'mail' || takesMail !== false);

/**
 * Which first steps have been taken: each by what happened, none by being pressed.
 */
export function stepsTaken({ items, guideKey, feeds, installed, savesFromBrowser, mailed }: Beginning): Set<Step> {
  const guide = guideAmong(items, guideKey);
  const taken: Record<Step, boolean> = {
    guide: guide !== undefined && (guide.progress.furthest > 0 || guide.choices.stage.value === 'finished'),
    'bring-in': items.some(isBroughtIn),
    button: savesFromBrowser === true,
    phone: installed,
    feed: feeds > 0,
    mail: mailed === true,
  };
  return new Set(STEPS.filter((step) => taken[step]));
}

export const guideAmong = (items: readonly Item[], guideKey: string): Item | undefined =>
  items.find(({ capture }) => capture.addressKey === guideKey);

/** A list says what its items are called; a file is no page, and no letter. */
const isBroughtIn = ({ address, choices }: Item): boolean =>
  choices.listedAs.value !== null || (!isOnWeb(address) && !address.startsWith('mid:'));

/** Days in which a library is young. */
const YOUNG_DAYS = 21;

/**
 * Whether a reader is at their beginning: nothing was saved here before three weeks ago. What a list or file brought along
 * may be older.
 *
 * @param now milliseconds since 1970
 */
export function isBeginning(items: readonly Item[], now: number): boolean {
  const since = now - YOUNG_DAYS * 86_400_000;
  return items.every((item) => item.savedAt >= since || isBroughtIn(item));
}
