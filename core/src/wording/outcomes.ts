import type { ArrivalSign, Capture, CaptureOutcome, Cause, EpisodeFault, FeedOutcome, PageFacts } from '../model';
import { LET_GO_DAYS } from '../queue';

/** Why something could not be had: "The site answered 503." */
export function causeWords(cause: Cause): string {
  switch (cause.code) {
    case 'redirects-nowhere':
      return 'The page redirects to something that is not an address.';
    case 'redirects-to-scheme':
      return `The page redirects to a “${cause.scheme}” address, which cannot be fetched.`;
    case 'redirects-in-circle':
      return 'The page redirects in a circle.';
    case 'redirects-too-often':
      return `The page redirects more than ${cause.most} times.`;
    case 'private-network':
      return 'The address leads into a private network, where we do not go.';
    case 'connection-refused':
      return 'The site refused the connection.';
    case 'connection-broken':
      return 'The connection broke off.';
    case 'certificate-invalid':
      return 'The site’s certificate is not valid.';
    case 'not-unpackable':
      return 'The site sent something that could not be unpacked.';
    case 'not-http':
      return 'The site’s answer is not proper HTTP.';
    case 'unchanged':
      return 'Nothing has changed.';
    case 'answered':
      return statusWords(cause.status);
    case 'too-large':
      return `The file is larger than ${cause.megabytes} MB.`;
    case 'no-answer':
      return `The site did not answer within ${cause.seconds} seconds.`;
    case 'no-such-host':
      return `No site answers to the name ${cause.host}.`;
    case 'empty':
      return 'The page is empty.';
    case 'leads-to':
      return `The address leads to ${cause.what}, not to a page of text.`;
    case 'not-text':
      return 'What the address leads to is not text.';
    case 'pdf-too-large':
      return 'The PDF is larger inside than can be taken apart safely.';
    case 'pdf-locked':
      return 'The PDF is locked with a password.';
    case 'pdf-damaged':
      return 'The PDF is damaged and cannot be read.';
    case 'book-without-text':
      return 'The e-book does not say where its text is.';
    case 'book-empty':
      return 'The e-book has no text in it.';
    case 'book-damaged':
      return 'The e-book is damaged and cannot be unpacked.';
    case 'book-too-large':
      return 'The e-book is larger inside than can be taken apart safely.';
    case 'file-without-text':
      return 'The file holds no text.';
    case 'page-too-long':
      return 'The page is too long to be taken apart safely.';
    case 'picture-not-read':
      return 'The picture cannot be read: it is damaged, too large, or of a kind that few programs know, as HEIC. Save it as JPEG or PNG.';
    case 'page-too-deep':
      return 'The page is nested deeper than can be taken apart safely.';
    case 'page-too-many-parts':
      return 'The page has more parts than can be taken apart safely.';
    case 'not-taken-apart':
      return 'The page could not be taken apart.';
    case 'too-slow':
      return `The page could not be taken apart within ${cause.seconds} seconds.`;
    case 'too-much-memory':
      return 'The page wants more memory to be taken apart than can be given to it.';
    case 'no-feed':
      return 'This is no feed, and the page names none. Look on the site for a link called RSS, Atom or feed.';
    case 'named-feed-is-none':
      return 'What the page names as its feed is none.';
    case 'feed-not-readable':
      return 'It is built so that it cannot be read safely.';
    case 'feed-too-slow':
      return `It could not be read within ${cause.seconds} seconds.`;
    case 'disk-full':
      return 'The server’s disk is full.';
    case 'server-fault':
      return 'Something went wrong on the server.';
    case 'server-ended':
      return `The server ended ${cause.times} times while this was being taken apart, so it is set aside. Fetch it again if you want it tried once more.`;
    case 'tried-in-vain':
      return `That was tried ${cause.times} times in vain.`;
    case 'refused':
      return cause.detail;
  }
}

function statusWords(status: number): string {
  if (status === 429) return 'The site asked to be left alone for a while (429).';
  if (status >= 500) return `The site answered ${status}.`;
  if (status === 404 || status === 410) return `The page answered ${status}: it is not there.`;
  if (status === 401 || status === 403) return `The page answered ${status}: it does not let us in.`;
  return `The page answered ${status}.`;
}

/** What tells that a text did not arrive, or not whole, each in a sentence. */
export function signWords(sign: ArrivalSign): string {
  switch (sign.code) {
    case 'sign-in':
      return 'The page asks for a sign-in before it shows its text.';
    case 'captcha':
      return 'The page asked whether we are human instead of showing its text.';
    case 'consent':
      return 'Only the page’s consent notice came through.';
    case 'error-page':
      return 'The page looks like an error page.';
    case 'another-page':
      return 'The site sent its front page instead of the page that was asked for.';
    case 'parked':
      return 'Nobody publishes at this address any more: it is for sale.';
    case 'script-built':
      return 'The page builds its text by script, and none of it was in what the server sent.';
    case 'empty':
      return 'There is no text on the page.';
    case 'empty-document':
      return 'There is no text in the document.';
    case 'only-pictures':
      return 'The PDF has no text in it, only pictures of its pages.';
    case 'paywall':
      return 'The page says that only subscribers get all of it.';
    case 'paywall-stated':
      return 'The page says that its text is not free to read.';
    case 'paywall-notice':
      return 'The text may end at a subscription notice.';
    case 'shorter-than-stated':
      return `The page states ${sign.stated.toLocaleString('en')} words; ${sign.came.toLocaleString('en')} came through.`;
    case 'pages-missing':
      return `The article goes on on a page ${sign.from} that did not come through.`;
  }
}

/** What became of an item's capture, or is becoming of it. */
export function captureWords({ outcome, page }: Pick<Capture, 'outcome' | 'page'>): string {
  switch (outcome.code) {
    case 'waiting':
      return 'Waiting to be fetched.';
    case 'waiting-again':
      return 'Waiting to be fetched again.';
    case 'given-waits':
      return 'The text that you gave is being made ready.';
    case 'waits-its-turn':
      return 'It is long, or has large pictures: it waits for its turn.';
    case 'fetching':
      return 'Fetching the page…';
    case 'fetching-page':
      return `Fetching page ${outcome.page} of the article…`;
    case 'address-only':
      return 'Only the address is kept.';
    case 'already-saved':
      return 'Already saved.';
    case 'fetched-unchanged':
      return 'Fetched again: the text has not changed.';
    case 'erased':
      return `Its text was erased ${LET_GO_DAYS} days after it was let go. The address is kept: fetch it again.`;
    case 'unreadable':
      return 'What was kept of this item cannot be read any more. The address is kept: fetch it again.';
    case 'arrived':
      return page ? arrivalWords(page, outcome.missingPictures) : '';
    case 'fetched-worse':
      return worseWords(outcome);
    case 'tried-again':
      return `${causeWords(outcome.cause)} The address is kept, and tried again.`;
    case 'failed': {
      const last = outcome.tries === null ? '' : ` That was the last of ${counted(outcome.tries, 'try', 'tries')}.`;
      const stays = outcome.copyStays ? 'Your copy stays.' : 'The address is kept.';
      return `${causeWords(outcome.cause)}${last} ${stays}`;
    }
    case 'said':
      return outcome.words;
  }
}

function arrivalWords({ cameThrough, pictureCount }: PageFacts, missing: number): string {
  const { verdict, signs } = cameThrough;
  const reasons = signs.map(signWords).join(' ');
  if (verdict === 'failed') return `The text did not come through. ${reasons} The address is kept.`;
  const pictures = pictureCount === 0 ? '' : `, ${inWords(pictureCount, 'picture')}`;
  const gaps = missing === 0 ? '' : ` ${capital(inWords(missing, 'picture'))} did not come through.`;
  return verdict === 'whole'
    ? `Came through whole${pictures}.${gaps}`
    : `Came through in part${pictures}. ${reasons}${gaps}`;
}

function worseWords({ came, signs, leadsElsewhere }: Extract<CaptureOutcome, { code: 'fetched-worse' }>): string {
  const reasons = leadsElsewhere
    ? 'The address now leads to the front page of its site.'
    : signs.map(signWords).join(' ');
  return came === 'nothing'
    ? `Fetched again, but the text did not come through. ${reasons} Your copy stays.`
    : `Fetched again, but only a part came through. ${reasons} You go on reading the copy from before.`;
}

/** What became of the last look at a feed. */
export function feedWords(outcome: FeedOutcome): string {
  switch (outcome.code) {
    case 'waiting':
      return 'Waiting to be looked at.';
    case 'nothing-new':
      return 'Nothing new.';
    case 'no-entries':
      return 'It has no entries yet.';
    case 'followed-twice':
      return 'You follow this feed a second time, by another address. One of the two can go.';
    case 'new':
      return `${outcome.count} new.`;
    case 'failed':
      return [
        `${outcome.onNamedPage ? 'The page names a feed, but: ' : ''}${causeWords(outcome.cause)}`,
        ...(outcome.entriesStay ? ['What it brought before is kept.'] : []),
      ].join(' ');
    case 'said':
      return outcome.words;
  }
}

const EPISODE_FAULTS: Readonly<Record<EpisodeFault, string>> = {
  'no-text': 'Its text is not there any more.',
  unreadable: 'What is kept of it cannot be read.',
  'no-voice': 'No voice that ships reads its language.',
  'not-spoken': 'It could not be read aloud.',
};

/** Why there is no sound of an item. */
export const episodeWords = (fault: EpisodeFault): string => EPISODE_FAULTS[fault];

function counted(count: number, one: string, many: string): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** "one picture", "3 pictures" */
function inWords(count: number, one: string): string {
  return count === 1 ? `one ${one}` : `${count} ${one}s`;
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
