import type { TextRange } from '@dorvel/core/text';
import { ask, type LiveEcho } from '../messages';
import { EchoLayer } from './echo-layer';
import { type LiveText, liveTextInPieces } from './live-text';

/**
 * On a page where the reader wants it: marks its names and terms that stand in their own library. The page itself is not
 * changed and cannot see which they are; nothing of it leaves the browser.
 */

/** So long may the page be held up at once, in milliseconds. */
const A_PIECE_MS = 8;
/** What of a page is not its text. */
const NOT_TEXT = 'nav,footer,form,aside,button,pre,code,[hidden],[aria-hidden="true"],[role="navigation"]';

async function show(): Promise<void> {
  const root = document.querySelector('main, [role="main"], article') ?? document.body;
  const live = await liveTextInPieces(root, (element) => element.matches(NOT_TEXT), idle, A_PIECE_MS);
  const { text, headings, pointedOut } = live;
  const language = document.documentElement.lang || null;
  const page = { address: location.href, title: document.title, language, text, headings, pointedOut };
  const echoes = await ask('echoesIn', page);
  if (echoes) new EchoLayer(placed(live, echoes)).show();
}

/** Echoes with the part of the document where each stands. */
function placed(live: LiveText, echoes: readonly LiveEcho[]): { echo: LiveEcho; range: Range }[] {
  const rangeOf = ({ start, end }: TextRange) => live.range(start, end);
  return echoes.flatMap((echo) => {
    const range = rangeOf(echo);
    return range ? [{ echo, range }] : [];
  });
}

/** When the browser has nothing better to do, or at last after a while. */
const idle = () => new Promise<void>((resume) => requestIdleCallback(() => resume(), { timeout: 500 }));

const page = globalThis as { dorvelEchoes?: true };
if (!page.dorvelEchoes) {
  page.dorvelEchoes = true;
  void show();
}
