import type { CameThrough } from '../model';
import type { Metadata } from './metadata';

export interface ArrivalEvidence {
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

/**
 * Whether the text really arrived: *whole*, *partial* (there is text, but signs that more exists) or *failed*
 * (no text worth reading), with the reasons.
 */
export function checkArrival(evidence: ArrivalEvidence): CameThrough {
  const { wordCount, metadata, visibleText, scriptLength, hasPasswordField, pictureCount } = evidence;
  const failed: string[] = [];
  const partial: string[] = [];
  const short = wordCount < 150;
  if (short && hasPasswordField && SIGN_IN.test(visibleText))
    failed.push('The page asks for a sign-in before it shows its text.');
  if (short && CAPTCHA.test(visibleText))
    failed.push('The page asked whether we are human instead of showing its text.');
  if (short && CONSENT.test(visibleText) && wordCount < 60)
    failed.push('Only the page’s consent notice came through.');
  if (short && ERROR_PAGE.test(`${metadata.title ?? ''} ${visibleText.slice(0, 300)}`))
    failed.push('The page looks like an error page.');
  if (
    wordCount < 40 &&
    (NEEDS_SCRIPT.test(visibleText) || scriptLength > 20 * Math.max(200, visibleText.length))
  ) {
    failed.push('The page builds its text by script, and none of it was in what the server sent.');
  }
  if (wordCount === 0 && pictureCount === 0 && failed.length === 0)
    failed.push('There is no text on the page.');
  if (failed.length > 0) return { verdict: 'failed', reasons: failed };
  if (PAYWALL.test(visibleText) && !metadata.accessibleForFree)
    partial.push('The page says that only subscribers get all of it.');
  else if (!metadata.accessibleForFree && wordCount < 300)
    partial.push('The page says that its text is not free to read.');
  else if (PAYWALL.test(visibleText.slice(-1500)) && wordCount < 300)
    partial.push('The text may end at a subscription notice.');
  if (metadata.statedWordCount && wordCount < 0.6 * metadata.statedWordCount) {
    partial.push(
      `The page states ${metadata.statedWordCount.toLocaleString('en')} words; ${wordCount.toLocaleString('en')} came through.`,
    );
  }
  return partial.length > 0 ? { verdict: 'partial', reasons: partial } : { verdict: 'whole', reasons: [] };
}
