import type { Element } from 'hast';
import { CARD_KINDS, type CardKind } from '../../model';
import { absolute } from '../metadata/metadata';
import { attribute, descendants, elementsIn, findElement, label, type PageElement, tidy } from '../page/page-tree';
import { element } from './phrases';
import { readImage } from './pictures';

/** How a card is noted in the page's tree until it is written. */
const KIND = 'data-card';
const ADDRESS = 'data-card-address';
const POSTER = 'data-card-poster';

/**
 * Puts a card in the place of what plays or loads: embedded frames, videos, sounds. Frames that only count, sell or ask
 * to be pressed get none and go with the rest of the surroundings.
 *
 * @param base what relative addresses are resolved against
 */
export function makeCards(body: PageElement, base: string): void {
  for (const node of descendants(body)) {
    const card = cardOf(node, base);
    if (!card) continue;
    node.tagName = 'figure';
    node.nodeName = 'figure';
    node.childNodes = [];
    node.attrs = [
      { name: KIND, value: card.kind },
      { name: ADDRESS, value: card.address },
      { name: POSTER, value: card.poster ?? '' },
      { name: 'title', value: card.title },
    ];
  }
}

interface Card {
  kind: CardKind;
  address: string;
  title: string;
  poster: string | null;
}

function cardOf(node: PageElement, base: string): Card | null {
  const kind = attribute(node, KIND) as CardKind | undefined;
  if (node.tagName === 'a' && kind && CARD_KINDS.includes(kind)) return ownCard(node, kind, base);
  const tag = node.tagName.replace(/^amp-/, '');
  if (tag !== 'video' && tag !== 'audio' && tag !== 'iframe') return null;
  const poster = absolute(attribute(node, 'poster') ?? attribute(node, 'data-poster'), base);
  const title = tidy(attribute(node, 'title') ?? attribute(node, 'aria-label') ?? '').slice(0, 200);
  if (tag === 'video' || tag === 'audio') {
    const sources = [node, ...elementsIn(node).filter((each) => each.tagName === 'source')];
    const address = sources
      .map((each) => absolute(attribute(each, 'src') ?? attribute(each, 'data-src'), base))
      .find((each) => each !== null);
    return address ? { kind: tag === 'video' ? 'video' : 'sound', address, title, poster } : null;
  }
  const address = absolute(
    [attribute(node, 'src'), attribute(node, 'data-src'), attribute(node, 'data-lazy-src')].find(
      (each) => each !== undefined && each !== '' && !each.startsWith('about:'),
    ),
    base,
  );
  if (!address || !isContent(node, address)) return null;
  const words = `${address} ${title} ${label(node)}`;
  return {
    kind: /audio|podcast|sound|music|radio|track/i.test(words)
      ? 'sound'
      : /video|embed|player|watch|movie|film/i.test(words)
        ? 'video'
        : 'page',
    address,
    title,
    poster,
  };
}

/** A card of ours that comes back in a page made of our own output. */
function ownCard(node: PageElement, kind: CardKind, base: string): Card | null {
  const address = absolute(attribute(node, 'href'), base);
  const image = findElement(node, (each) => each.tagName === 'img');
  if (address === null) return null;
  return {
    kind,
    address,
    title: attribute(node, 'title') ?? '',
    poster: (image && readImage(image, base)?.url) ?? null,
  };
}

const SAYS_CONTENT = /embed|player|video|audio|podcast|\/map|chart|graphic|interactive/i;
const SAYS_CHROME =
  /(?:like|share|follow|button|widgets?|comments?|banner|tracking|tracker|pixel|counter|ads?|adserver|doubleclick|consent|captcha|login|newsletter|subscribe)(?:[./?_-]|$)/i;

function isContent(frame: PageElement, address: string): boolean {
  const side = (name: string) => Number(/^\d+$/.exec(attribute(frame, name) ?? '')?.[0] ?? Infinity);
  if (side('height') < 90 || side('width') < 150) return false;
  if (/display\s*:\s*none|visibility\s*:\s*hidden/i.test(attribute(frame, 'style') ?? '')) return false;
  if (attribute(frame, 'hidden') !== undefined || SAYS_CHROME.test(`${address} ${label(frame)}`)) return false;
  return (
    attribute(frame, 'allowfullscreen') !== undefined ||
    (attribute(frame, 'allow') ?? '').includes('fullscreen') ||
    SAYS_CONTENT.test(address)
  );
}

/** The card that an element of the page stands for, as a figure; null when it stands for none. */
export function cardFigure(node: PageElement): Element | null {
  const kind = attribute(node, KIND);
  const href = attribute(node, ADDRESS);
  if (node.tagName !== 'figure' || !kind || !href) return null;
  const poster = attribute(node, POSTER);
  const picture = poster ? [element('img', [], { src: poster, alt: '' })] : [];
  return element('figure', [element('a', picture, { href, dataCard: kind, title: attribute(node, 'title') ?? '' })]);
}
