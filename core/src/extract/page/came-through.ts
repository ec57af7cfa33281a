import type { ArrivalSign, CameThrough } from '../../model';
import type { Metadata } from '../metadata/metadata';

export interface ArrivalEvidence {
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

const CONSENT =
  /\b(?:we (?:value|respect) your privacy|accept (?:all )?cookies|cookie (?:consent|preferences|settings)|consent to (?:the )?(?:use|storage))\b/i;
const SIGN_IN = /\b(?:log ?in|sign ?in|anmelden|se connecter|iniciar sesión)\b/i;
const PAYWALL =
  /\b(?:subscribe to (?:continue|read)|to continue reading|subscribers only|already a subscriber|remaining (?:free )?articles?|start your (?:free )?trial)\b/i;
const CAPTCHA = /\b(?:captcha|are you (?:a )?human|verify (?:that )?you are|unusual traffic|checking your browser)\b/i;
const ERROR_PAGE =
  /^\W*(?:404|403|500|page not found|not found|error)\b|\b(?:page (?:you (?:were|are) looking for|not found|does not exist|cannot be found)|error 404)\b/i;
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
  if (short && hasPasswordField && SIGN_IN.test(visibleText)) signs.push({ code: 'sign-in' });
  if (short && CAPTCHA.test(visibleText)) signs.push({ code: 'captcha' });
  // A short notice may well stand under a consent wall: then the wall is not all that came through.
  if (CONSENT.test(visibleText) && (wordCount < 20 || (wordCount < 60 && CONSENT.test(text))))
    signs.push({ code: 'consent' });
  if (short && PARKED.test(visibleText)) signs.push({ code: 'parked' });
  if (short && ERROR_PAGE.test(`${metadata.title ?? ''} ${visibleText.slice(0, 300)}`))
    signs.push({ code: 'error-page' });
  if (wordCount < 40 && (NEEDS_SCRIPT.test(visibleText) || scriptLength > 20 * Math.max(200, visibleText.length)))
    signs.push({ code: 'script-built' });
  if (wordCount === 0 && pictureCount === 0 && signs.length === 0) signs.push({ code: 'empty' });
  return signs;
}

function signsOfMore({ wordCount, metadata, visibleText }: ArrivalEvidence): ArrivalSign[] {
  const signs: ArrivalSign[] = [];
  if (PAYWALL.test(visibleText) && !metadata.accessibleForFree) signs.push({ code: 'paywall' });
  else if (!metadata.accessibleForFree && wordCount < 300) signs.push({ code: 'paywall-stated' });
  else if (PAYWALL.test(visibleText.slice(-1500)) && wordCount < 300) signs.push({ code: 'paywall-notice' });
  const stated = metadata.statedWordCount;
  if (stated && wordCount < SHORTER_BY * stated)
    signs.push({ code: 'shorter-than-stated', stated: Math.round(stated), came: wordCount });
  return signs;
}
