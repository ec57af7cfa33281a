import type { ArrivalSign, Capture, PageFacts } from '../model';

/**
 * What becomes of a text that was fetched again:
 * - `read`: it is the copy to be read from now on; the ones before stay beside it
 * - `unchanged`: it says what the copy to be read says, and is not kept a second time
 * - `beside`: it is kept, but so much less came through than before that the earlier copy goes on being read
 * - `dropped`: it is no text (an error page, a consent wall), and the copy there is stays as it is
 */
export type CopyFate = 'read' | 'unchanged' | 'beside' | 'dropped';

/** A text that comes to less than this share of the one before, and only in part, does not take its place. */
const MIN_SHARE = 0.6;

/** @param capture as it is before the text arrives */
export function fateOfCopy(
  capture: Pick<Capture, 'page' | 'copies'>,
  arrived: Pick<PageFacts, 'cameThrough' | 'wordCount'> & { hash: string },
): CopyFate {
  const { page, copies } = capture;
  if (!page?.copyId) return 'read';
  if (copies.find(({ id }) => id === page.copyId)?.hash === arrived.hash) return 'unchanged';
  const wasGood = page.cameThrough.verdict !== 'failed';
  const { verdict } = arrived.cameThrough;
  if (wasGood && verdict === 'failed') return 'dropped';
  if (wasGood && verdict === 'partial' && arrived.wordCount < MIN_SHARE * page.wordCount) return 'beside';
  return 'read';
}

/** Signs that a page is not there any more, whatever status it was served with. */
const GONE: readonly ArrivalSign['code'][] = ['error-page', 'parked'];

/** True when what arrived says that the page has gone. */
export function saysGone(signs: readonly ArrivalSign[]): boolean {
  return signs.some(({ code }) => GONE.includes(code));
}
