import type { ArrivalSign, CameThrough } from '../../model';
import type { Metadata } from '../metadata/metadata';
import { asksForConsent, FOR_SUBSCRIBERS, NOT_THERE, SIGN_IN } from './walls';
import { wordsOf } from './words';

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
  /** Its headings of the first three ranks. */
  headings: readonly string[];
  /** What stands in the part that the page itself calls its main one; empty where it names none, or several. */
  mainText: string;
  /** How much script the page carries, in characters. */
  scriptLength: number;
  hasPasswordField: boolean;
  /** In a box that asked for consent, and is not in the text any more. */
  consentWords: number;
  /** How likely what came through is text, 0 to 1. */
  likely: number;
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
  const { text, wordCount, metadata, visibleText, scriptLength, hasPasswordField, pictureCount, consentWords } =
    evidence;
  const signs: ArrivalSign[] = [];
  const short = wordCount < SHORT;
  // Where the main part is a notice, what came through is from around it: forms, thanks, what the site says of itself.
  const main = evidence.mainText.length < NOTICE ? evidence.mainText : '';
  const begins = `${metadata.title ?? ''}\n${text.slice(0, 400)}`;
  // The head of many a page has a place to sign in: what came through must be about it, or be next to nothing.
  const asked = wordCount < 40 ? visibleText : `${text}\n${main}`;
  // Those who pay are asked to sign in, too, under the beginning that is for everybody.
  if (short && hasPasswordField && SIGN_IN.test(asked) && !FOR_SUBSCRIBERS.test(text)) signs.push({ code: 'sign-in' });
  if (short && CAPTCHA.test(visibleText)) signs.push({ code: 'captcha' });
  // A short notice may well stand under a consent wall: then the wall is not all that came through.
  const isWall = consentWords > 0 && evidence.likely < LIKELY && (consentWords > wordCount || !showsTitle(evidence));
  if (
    asksForConsent(wordCount < 20 ? visibleText : '') ||
    (short && (isWall || asksForConsent(text) || asksForConsent(main)))
  )
    signs.push({ code: 'consent' });
  if (short && PARKED.test(visibleText)) signs.push({ code: 'parked' });
  if (short && [begins, visibleText.slice(0, 300), main].some((said) => NOT_THERE.test(said)))
    signs.push({ code: 'error-page' });
  if (wordCount < 40 && (NEEDS_SCRIPT.test(visibleText) || scriptLength > 20 * Math.max(200, visibleText.length)))
    signs.push({ code: 'script-built' });
  if (isFrontPage(evidence)) signs.push({ code: 'another-page' });
  if (wordCount === 0 && pictureCount === 0 && signs.length === 0) signs.push({ code: 'empty' });
  return signs;
}

/** A note of a few words stands under such a box, too: what is as likely text as this is not the frame of a page. */
const LIKELY = 0.75;

/** False where a page has a title, and none of its headings says so: what it is about is not there then. */
function showsTitle({ metadata, headings }: ArrivalEvidence): boolean {
  const title = wordsOf(metadata.title ?? '').join(' ');
  return headings.some((heading) => ` ${wordsOf(heading).join(' ')} `.includes(` ${title} `));
}

/** A main part with fewer characters than this may be no more than a notice. */
const NOTICE = 800;

/** Shorter than a paragraph of an article, longer than a teaser. In characters. */
const TEASER = 250;

/** The root of a site, or of one of its languages. */
const FRONT = /^\/(?:[a-z]{2}(?:[-_][a-z]{2})?\/?)?$/i;

/** True where a page under a long address says that it is the one at the root of its site, and has nothing to read. */
function isFrontPage({ address, text, metadata }: ArrivalEvidence): boolean {
  const canonical = metadata.canonicalUrl;
  if (canonical === null || metadata.authors.length > 0) return false;
  const folder = new URL(address).pathname.replace(/\/(?:index|home|default)\.\w+$/i, '/');
  return (
    !FRONT.test(folder) &&
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
  else if (notice && (wordCount < 300 || FOR_SUBSCRIBERS.test(text.slice(-BEHIND)) || isWalled(evidence)))
    signs.push({ code: 'paywall-notice' });
  const stated = metadata.statedWordCount;
  if (stated && wordCount < SHORTER_BY * stated)
    signs.push({ code: 'shorter-than-stated', stated: Math.round(stated), came: wordCount });
  return signs;
}

/** So much of a page behind the end of the text may be the notice that there is more. In characters. */
const BEHIND = 500;
/** The beginning and the end of a text are known by so many characters, or by the line there where that is shorter. */
const KNOWN_BY = 40;
const LEAST_KNOWN_BY = 12;
/** Two sentences of one notice stand no farther apart than this, in characters. */
const ONE_NOTICE = 400;

/** True where the page shows right behind the text that there is more, or says it twice over between two parts of it. */
function isWalled({ text, visibleText }: ArrivalEvidence): boolean {
  const placeOf = placesIn(visibleText);
  const lines = text.split('\n').map(withoutSpace);
  const known = lines.filter((line) => line.length >= LEAST_KNOWN_BY);
  const end =
    placeOf(withoutSpace(text).slice(-KNOWN_BY), 'last') ?? placeOf((known.at(-1) ?? '').slice(-KNOWN_BY), 'last');
  if (end === null) return false;
  if (FOR_SUBSCRIBERS.test(visibleText.slice(end.to, end.to + BEHIND))) return true;
  const begin = placeOf((known[0] ?? '').slice(0, KNOWN_BY), 'first');
  if (begin === null) return false;
  const within = visibleText.slice(begin.from, end.to);
  const said = [...within.matchAll(new RegExp(FOR_SUBSCRIBERS, 'giu'))];
  return said.some(
    (one, at) =>
      one[0].toLowerCase() !== said[at + 1]?.[0].toLowerCase() &&
      (said[at + 1]?.index ?? Infinity) - one.index < ONE_NOTICE,
  );
}

const withoutSpace = (text: string) => text.replace(/\s+/g, '');

/** Finds in a text what is known without its white space, which is ours. */
function placesIn(shown: string) {
  const places: number[] = [];
  let bare = '';
  for (let at = 0; at < shown.length; at++)
    if (shown[at] !== ' ') {
      places.push(at);
      bare += shown.charAt(at);
    }
  return (wanted: string, which: 'first' | 'last') => {
    if (wanted.length < LEAST_KNOWN_BY) return null;
    const found = which === 'first' ? bare.indexOf(wanted) : bare.lastIndexOf(wanted);
    const from = found === -1 ? undefined : places[found];
    const last = places[found + wanted.length - 1];
    return from === undefined || last === undefined ? null : { from, to: last + 1 };
  };
}
