import { absolute } from '../metadata/metadata';
import {
  attribute,
  elementsIn,
  isElement,
  isLink,
  label,
  type PageElement,
  textContent,
  tidy,
} from '../page/page-tree';

/** A picture as the page means it, whichever way it delays the loading. */
export interface PageImage {
  /** Absolute address. */
  url: string;
  alt: string;
  width: number | null;
  height: number | null;
}

/** A phone's screen at three device pixels to the point is about this wide. */
const WANTED_WIDTH = 1280;
const LAZY_SOURCES = [
  'data-src',
  'data-original',
  'data-lazy-src',
  'data-lazy',
  'data-image',
  'data-url',
  'data-hi-res-src',
  'data-actualsrc',
  'data-full-src',
  'data-srcset-src',
  'data-img-src',
];
const LAZY_SETS = ['srcset', 'data-srcset', 'data-lazy-srcset', 'data-original-set'];
const PLACEHOLDER =
  /^data:|\b(?:blank|spacer|placeholder|transparent|pixel|1x1|loading|grey|lazy)[\w-]*\.(?:gif|png|svg|jpe?g|webp)(?:$|\?)/i;

/**
 * The picture that an `<img>` (with the `<picture>` around it) stands for, or null for tracking pixels,
 * spacers and pictures without an address.
 */
export function readImage(image: PageElement, base: string): PageImage | null {
  const width = pixels(attribute(image, 'width'));
  const height = pixels(attribute(image, 'height'));
  if ((width !== null && width <= 3) || (height !== null && height <= 3)) return null;
  if (isSignOfLink(image, width ?? height, height ?? width) || isButton(image) || isLogoOfHome(image, base))
    return null;
  if (isLogo(image) || isPortraitOfAuthor(image, width)) return null;
  const url = absolute(pickSource(image), base) ?? rasterInPlace(attribute(image, 'src'));
  if (!url || ADVERT.test(url)) return null;
  const alt = (attribute(image, 'alt') ?? attribute(image, 'data-alt') ?? '').replace(/\s+/g, ' ').trim();
  if (/\b(?:emoji|smiley|avatar|icon|logo|badge|tracking|pixel)\b/.test(label(image)) && (width ?? 0) < 100)
    return null;
  return { url, alt, width, height };
}

/** No larger than this is a sign to press, in CSS pixels. */
const MAX_SIGN = 40;

/** A small picture that is all there is of a link: the way home, a feed, a printer. */
function isSignOfLink(image: PageElement, width: number | null, height: number | null): boolean {
  const link = image.parentNode;
  return (
    width !== null &&
    height !== null &&
    width <= MAX_SIGN &&
    height <= MAX_SIGN &&
    !!link &&
    isElement(link) &&
    isLink(link) &&
    tidy(textContent(link)) === ''
  );
}

/** What is pressed by script and says nothing of itself: a heart, a magnifying glass. */
function isButton(image: PageElement): boolean {
  const acts = ['onclick', 'onmouseover', 'onmousedown'].some((name) => attribute(image, name) !== undefined);
  return acts && (attribute(image, 'alt') ?? '') === '' && !['width', 'height'].some((name) => attribute(image, name));
}

const LOGO = /(?:^|[\s/._-])logo(?:[\s/._-]|$)/i;

/** The sign of a site, which leads to its first page. */
function isLogoOfHome(image: PageElement, base: string): boolean {
  const link = image.parentNode;
  if (!link || !isElement(link) || !isLink(link) || tidy(textContent(link)) !== '') return false;
  const named = `${label(image)} ${attribute(image, 'src') ?? ''} ${attribute(image, 'alt') ?? ''}`;
  const leadsTo = absolute(attribute(link, 'href'), base);
  if (leadsTo === null || !LOGO.test(named)) return false;
  const { host, pathname } = new URL(leadsTo);
  return host === new URL(base).host && /^\/(?:index\.\w+)?$/i.test(pathname);
}

/** What says of itself that it is the site's sign. */
function isLogo(image: PageElement): boolean {
  return /^(?:site |company )?logo$/i.test((attribute(image, 'alt') ?? '').trim());
}

/** No wider than this stands beside a name, in CSS pixels. */
const MAX_PORTRAIT = 150;
const OF_AUTHOR = /(?:^|[\s_-])(?:author|byline|avatar|headshot|gravatar)/i;

/** The small portrait of who wrote it, beside their name. */
function isPortraitOfAuthor(image: PageElement, width: number | null): boolean {
  if (width === null || width > MAX_PORTRAIT) return false;
  let at: PageElement['parentNode'] = image;
  for (let up = 0; up < 3 && at && isElement(at); at = at.parentNode, up++) if (OF_AUTHOR.test(label(at))) return true;
  return false;
}

/**
 * True for what counts readers who have no script, and is no picture: without a size or of a point, hidden, or at an address that
 * names no file of a picture. Common practice; in a `noscript` that stands for no other picture nearly all are so.
 */
export function countsReaders(image: PageElement): boolean {
  const [width, height] = ['width', 'height'].map((name) => pixels(attribute(image, name)));
  if ([width, height].some((each) => each !== null && each !== undefined && each <= 3)) return true;
  if (/display\s*:\s*none|visibility\s*:\s*hidden/i.test(attribute(image, 'style') ?? '')) return true;
  const path = (attribute(image, 'src') ?? '').replace(/[?#].*$/s, '');
  const isSized = width !== null || height !== null;
  return !isSized && !/\.(?:jpe?g|png|webp|avif|svg)$/i.test(path);
}

/** How servers of adverts are asked for one of a size. Common practice. */
const ADVERT = /[;?&]sz=\d{1,4}x\d{1,4}\b/;

/** Longer than a placeholder, and not so long that it would weigh more than the text. */
const IN_PLACE = { least: 400, most: 400_000 };

/** A small raster picture that stands in the page itself (RFC 2397), as saved pages have them. */
function rasterInPlace(source: string | undefined): string | null {
  const address = source?.replace(/\s+/g, '') ?? '';
  return address.length >= IN_PLACE.least &&
    address.length <= IN_PLACE.most &&
    /^data:image\/(?:png|jpeg|gif|webp);base64,[A-Za-z0-9+/]+=*$/.test(address)
    ? address
    : null;
}

function pickSource(image: PageElement): string | undefined {
  const picture =
    image.parentNode && 'tagName' in image.parentNode && image.parentNode.tagName === 'picture'
      ? image.parentNode
      : undefined;
  const sources = picture
    ? elementsIn(picture).filter((e) => e.tagName === 'source' && !/avif|svg/i.test(attribute(e, 'type') ?? ''))
    : [];
  for (const element of [image, ...sources]) {
    for (const name of LAZY_SETS) {
      const chosen = fromSet(attribute(element, name));
      if (chosen && !PLACEHOLDER.test(chosen)) return chosen;
    }
  }
  const lazy = LAZY_SOURCES.map((name) => attribute(image, name)).find((value) => value && !PLACEHOLDER.test(value));
  const own = attribute(image, 'src');
  return lazy ?? (own && !PLACEHOLDER.test(own) ? own : undefined);
}

interface Candidate {
  url: string;
  size: number;
  unit: 'w' | 'x';
}

/** The candidates of a srcset, word by word: an address may hold commas, but not end in one. */
function candidatesIn(set: string): Candidate[] {
  const found: Candidate[] = [];
  let isOpen = false;
  for (const word of set.trim().split(/\s+/)) {
    const said: RegExpExecArray | null = isOpen ? /^(\d+(?:\.\d+)?)([wx])(?:,|$)/.exec(word) : null;
    const last = found.at(-1);
    if (said && last) Object.assign(last, { size: Number(said[1]), unit: said[2] });
    const rest: string = said ? word.slice(said[0].length) : word;
    isOpen = rest !== '' && !rest.endsWith(',');
    const url = isOpen ? rest.replace(/^,+/, '') : rest.split(',').filter(Boolean).join(',');
    if (url !== '') found.push({ url, size: 1, unit: 'x' });
  }
  return found;
}

/** The candidate of a srcset (WHATWG HTML, 4.8.4) nearest above the width wanted, else the largest. */
function fromSet(set: string | undefined): string | undefined {
  if (!set) return undefined;
  const candidates = candidatesIn(set).map(({ url, size, unit }) => ({
    url,
    width: unit === 'w' ? size : size * 640,
  }));
  candidates.sort((a, b) => a.width - b.width);
  return (candidates.find((each) => each.width >= WANTED_WIDTH) ?? candidates.at(-1))?.url;
}

function pixels(value: string | undefined): number | null {
  const number = /^\s*(\d{1,5})(?:px)?\s*$/.exec(value ?? '')?.[1];
  return number === undefined ? null : Number(number);
}
