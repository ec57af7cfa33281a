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
const CAPTCHA =
  /\b(?:captcha|are you (?:a )?human|verify (?:that )?you are|unusual traffic|checking your browser)\b/i;
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
 * (no text worth reading), with the signs and the reasons.
 */
export function checkArrival(evidence: ArrivalEvidence): CameThrough {
  const failed = signsOfFailure(evidence);
  if (failed.length > 0) return verdict('failed', failed);
  const partial = signsOfMore(evidence);
  return partial.length > 0 ? verdict('partial', partial) : verdict('whole', []);
}

type Sign = [sign: ArrivalSign, reason: string];

function verdict(of: CameThrough['verdict'], signs: readonly Sign[]): CameThrough {
  return { verdict: of, reasons: signs.map(([, reason]) => reason), signs: signs.map(([sign]) => sign) };
}

function signsOfFailure(evidence: ArrivalEvidence): Sign[] {
  const { text, wordCount, metadata, visibleText, scriptLength, hasPasswordField, pictureCount } = evidence;
  const signs: Sign[] = [];
  const short = wordCount < SHORT;
  if (short && hasPasswordField && SIGN_IN.test(visibleText))
    signs.push(['sign-in', 'The page asks for a sign-in before it shows its text.']);
  if (short && CAPTCHA.test(visibleText))
    signs.push(['captcha', 'The page asked whether we are human instead of showing its text.']);
  // A short notice may well stand under a consent wall: then the wall is not all that came through.
  if (CONSENT.test(visibleText) && (wordCount < 20 || (wordCount < 60 && CONSENT.test(text))))
    signs.push(['consent', 'Only the page’s consent notice came through.']);
  if (short && PARKED.test(visibleText))
    signs.push(['parked', 'Nobody publishes at this address any more: it is for sale.']);
  if (short && ERROR_PAGE.test(`${metadata.title ?? ''} ${visibleText.slice(0, 300)}`))
    signs.push(['error-page', 'The page looks like an error page.']);
  if (
    wordCount < 40 &&
    (NEEDS_SCRIPT.test(visibleText) || scriptLength > 20 * Math.max(200, visibleText.length))
  )
    signs.push([
      'script-built',
      'The page builds its text by script, and none of it was in what the server sent.',
    ]);
  if (wordCount === 0 && pictureCount === 0 && signs.length === 0)
    signs.push(['empty', 'There is no text on the page.']);
  return signs;
}

function signsOfMore({ wordCount, metadata, visibleText }: ArrivalEvidence): Sign[] {
  const signs: Sign[] = [];
  if (PAYWALL.test(visibleText) && !metadata.accessibleForFree)
    signs.push(['paywall', 'The page says that only subscribers get all of it.']);
  else if (!metadata.accessibleForFree && wordCount < 300)
    signs.push(['paywall', 'The page says that its text is not free to read.']);
  else if (PAYWALL.test(visibleText.slice(-1500)) && wordCount < 300)
    signs.push(['paywall', 'The text may end at a subscription notice.']);
  const stated = metadata.statedWordCount;
  if (stated && wordCount < SHORTER_BY * stated)
    signs.push([
      'shorter-than-stated',
      `The page states ${stated.toLocaleString('en')} words; ${wordCount.toLocaleString('en')} came through.`,
    ]);
  return signs;
}
