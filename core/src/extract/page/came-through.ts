import type { ArrivalSign, CameThrough } from '../../model';
import type { Metadata } from '../metadata/metadata';
import { asksForConsent, FOR_SUBSCRIBERS, NOT_THERE, SIGN_IN } from './walls';

export interface ArrivalEvidence {
  /** Of the page. */
  address: string;
  /** What came through. */
  text: string;
  wordCount: number;
  pictureCount: number;
  metadata: Metadata;
  /** All the text that the page shows anywhere, collapsed. */
  visibleText: string;
  /** How much script the page carries, in characters. */
  scriptLength: number;
  hasPasswordField: boolean;
}

const CAPTCHA = /\b(?:captcha|are you (?:a )?human|verify (?:that )?you are|unusual traffic|checking your browser)\b/i;
const NEEDS_SCRIPT = /\b(?:enable|requires?|turn on|activate) javascript\b/i;

const PARKED =
  /\b(?:(?:this |the )?domain(?: name)? (?:is|may be) (?:for sale|parked|available)|buy this domain|domain (?:parking|has expired)|this (?:web ?site|domain) is for sale)\b/i;

/** Words that come to less than this share of what the page states are too few. */
export const SHORTER_BY = 0.6;

/** Fewer words than this can be a notice in the place of a text. */
const SHORT = 150;

/**
 * Whether the text really arrived: *whole*, *partial* (there is text, but signs that more exists) or *failed*
 * (no text worth reading), with the signs that say so.
 */
export function checkArrival(evidence: ArrivalEvidence): CameThrough {
  const failed = signsOfFailure(evidence);
  if (failed.length > 0) return verdict('failed', failed);
  const partial = signsOfMore(evidence);
  return partial.length > 0 ? verdict('partial', partial) : verdict('whole', []);
}

function verdict(of: CameThrough['verdict'], signs: readonly ArrivalSign[]): CameThrough {
  return { verdict: of, signs: [...signs] };
}

function signsOfFailure(evidence: ArrivalEvidence): ArrivalSign[] {
  const { text, wordCount, metadata, visibleText, scriptLength, hasPasswordField, pictureCount } = evidence;
  const signs: ArrivalSign[] = [];
  const short = wordCount < SHORT;
  const begins = `${metadata.title ?? ''}\n${text.slice(0, 400)}`;
  // The head of many a page has a place to sign in: what came through must be about it, or be next to nothing.
  if (short && hasPasswordField && SIGN_IN.test(wordCount < 40 ? visibleText : text)) signs.push({ code: 'sign-in' });
  if (short && CAPTCHA.test(visibleText)) signs.push({ code: 'captcha' });
  // A short notice may well stand under a consent wall: then the wall is not all that came through.
  if (asksForConsent(wordCount < 20 ? visibleText : '') || (short && asksForConsent(text)))
    signs.push({ code: 'consent' });
  if (short && PARKED.test(visibleText)) signs.push({ code: 'parked' });
  if (short && (NOT_THERE.test(begins) || NOT_THERE.test(visibleText.slice(0, 300))))
    signs.push({ code: 'error-page' });
  if (wordCount < 40 && (NEEDS_SCRIPT.test(visibleText) || scriptLength > 20 * Math.max(200, visibleText.length)))
    signs.push({ code: 'script-built' });
  if (isFrontPage(evidence)) signs.push({ code: 'another-page' });
  if (wordCount === 0 && pictureCount === 0 && signs.length === 0) signs.push({ code: 'empty' });
  return signs;
}

/** Shorter than a paragraph of an article, longer than a teaser. In characters. */
const TEASER = 250;

/** The root of a site, or of one of its languages. */
const FRONT = /^\/(?:[a-z]{2}(?:[-_][a-z]{2})?\/?)?$/i;

/** True where a page under a long address says that it is the one at the root of its site, and has nothing to read. */
function isFrontPage({ address, text, metadata }: ArrivalEvidence): boolean {
  const canonical = metadata.canonicalUrl;
  if (canonical === null || metadata.authors.length > 0) return false;
  const depth = (url: string) => new URL(url).pathname.split('/').filter((part) => part !== '').length;
  return (
    depth(address) >= 1 &&
    !/\/(?:index|home|default)\.\w+$/i.test(new URL(address).pathname) &&
    !FRONT.test(new URL(address).pathname) &&
    FRONT.test(new URL(canonical).pathname) &&
    text.split('\n').every((line) => line.length < TEASER)
  );
}

function signsOfMore(evidence: ArrivalEvidence): ArrivalSign[] {
  const { text, wordCount, metadata, visibleText } = evidence;
  const signs: ArrivalSign[] = [];
  const notice = FOR_SUBSCRIBERS.test(visibleText);
  if (notice && !metadata.accessibleForFree) signs.push({ code: 'paywall' });
  else if (!metadata.accessibleForFree && wordCount < 300) signs.push({ code: 'paywall-stated' });
  else if (notice && (wordCount < 300 || FOR_SUBSCRIBERS.test(text.slice(-BEHIND) + behindText(evidence))))
    signs.push({ code: 'paywall-notice' });
  const stated = metadata.statedWordCount;
  if (stated && wordCount < SHORTER_BY * stated)
    signs.push({ code: 'shorter-than-stated', stated: Math.round(stated), came: wordCount });
  return signs;
}

/** So much of a page behind the end of the text may be the notice that there is more. In characters. */
const BEHIND = 500;
/** The end of a text is known by its last characters. */
const END = 40;

/** What the page shows right behind the end of what came through; compared without the white space, which is ours. */
function behindText({ text, visibleText }: ArrivalEvidence): string {
  const end = text
    .slice(-2 * END)
    .replace(/\s+/g, '')
    .slice(-END);
  if (end.length < END / 2) return '';
  const places: number[] = [];
  let shown = '';
  for (let at = 0; at < visibleText.length; at++)
    if (visibleText[at] !== ' ') {
      places.push(at);
      shown += visibleText.charAt(at);
    }
  const found = shown.lastIndexOf(end);
  const from = found === -1 ? undefined : places[found + end.length - 1];
  return from === undefined ? '' : visibleText.slice(from + 1, from + 1 + BEHIND);
}
