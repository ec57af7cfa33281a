import {
  attribute,
  findElement,
  isElement,
  isLink,
  label,
  type PageElement,
  startOfText,
  tidy,
} from '../page/page-tree';
import { wordsOf } from '../page/words';

/** A name that a page gives for its site, and how far that kind of place is believed by itself. */
export interface SiteNameSource {
  name: string | null | undefined;
  weight: number;
  /** Counts only where another name of the page, or its host, says the same. */
  mustBeBorneOut?: boolean;
}

/** Ends of the names of companies: who owns a site is not what readers call it. */
const COMPANY =
  /[,\s](?:llc|inc|incorporated|ltd|limited|corp|corporation|company|co|gmbh(?: & co\.? kg)?|ag|ab|as|a\/s|bv|b\.v|s\.?a|s\.?p\.?a|s\.?r\.?l|plc|verlag|publishing|holdings?)\.?$/i;
const ADDRESS = /^(?:www\.)?[\p{L}\d-]+(?:\.[\p{L}\d-]+)*\.\p{L}{2,18}$/u;
const MOST_NAME = 60;

/**
 * The name of a site as its readers know it: of all the names that the page gives, the one that most others, and the address,
 * agree with. Where there is none, the site's host.
 *
 * @param sources what the page states, the most trusted first
 * @param host of the page
 */
export function siteNameOf(sources: readonly SiteNameSource[], host: string): string | null {
  const spoken = spokenHost(host);
  const candidates = sources.flatMap(({ name, weight, mustBeBorneOut }) => {
    const clean = asSpoken(withoutMotto(cleanName(name ?? ''), spoken), spoken, host);
    return clean === '' ? [] : [{ name: clean, weight, plain: plainName(clean), mustBeBorneOut }];
  });
  let best: string | null = null;
  let bestScore = 0;
  for (const { name, weight, plain, mustBeBorneOut } of candidates) {
    // An address is what it is everywhere: only names bear each other out.
    const isAddress = ADDRESS.test(name);
    const others = candidates.filter(
      (other) =>
        !isAddress &&
        other.plain !== '' &&
        plain !== '' &&
        (other.plain.includes(plain) || plain.includes(other.plain)),
    ).length;
    if (mustBeBorneOut && others < 2 && spokenBy(spoken, name) === 0) continue;
    const score =
      weight +
      1.5 * Math.max(0, others - 1) +
      2.5 * (isAddress ? 0 : spokenBy(spoken, name)) -
      (COMPANY.test(name) ? 3 : 0) -
      (isAddress ? 2.5 : 0);
    if (best === null || score > bestScore) {
      best = name;
      bestScore = score;
    }
  }
  if (best === null) return spoken === '' ? null : host.replace(/^www\d?\./, '');
  // Where one of them writes it with its article, that is its name.
  const plain = plainName(best);
  const name = candidates.find((each) => /^the\s/i.test(each.name) && each.plain === plain)?.name ?? best;
  // In a sentence it may be written small; here it stands alone.
  return name.replace(/^the\s/, 'The ');
}

/** The part of a name that the host speaks; the whole name where none does alone. */
function withoutMotto(name: string, spoken: string): string {
  const parts = name.split(/,\s|:\s|\s[-–—|·]\s/);
  if (parts.length < 2 || spoken === '') return name;
  return parts.find((part) => plainName(part) === spoken || spokenBy(spoken, part) === 1)?.trim() ?? name;
}

/**
 * The part of a name that is what the host says, where it is more: "Gazette" of "News from Gazette.com", "US News" of "US News and
 * World Report" on usnews.com. An address in small letters is no name.
 */
function asSpoken(name: string, spoken: string, host: string): string {
  const words = name.split(' ');
  for (const word of words) {
    const own = ADDRESS.test(word) ? (word.replace(/^www\./i, '').split('.')[0] ?? '') : '';
    if (own !== own.toLowerCase() && host.split('.').includes(own.toLowerCase())) return own;
  }
  let said = '';
  for (const [n, word] of words.entries()) {
    said += wordsOf(word).join('');
    if (said !== '' && !spoken.startsWith(said)) return name;
    // One word alone is often a publisher's, of whom the name tells which part: its news, its city.
    if (said === spoken && said !== '') return n === 0 ? name : words.slice(0, n + 1).join(' ');
  }
  return name;
}

/** The names that stand on a page: beside its title, on the way home at its head, and at its copyright. */
export function visibleSiteNames(
  elements: readonly PageElement[],
  host: string,
): { masthead: string | null; owner: string | null } {
  let masthead: string | null = null;
  let links = 0;
  for (const element of elements) {
    if (isManualsName(element)) {
      masthead = tidy(startOfText(element, MOST_NAME)).split(': ')[0] ?? null;
      break;
    }
    if (!isLink(element) || ++links > MOST_LINKS) continue;
    const isHome = leadsHome(attribute(element, 'href') ?? '', host);
    const around = element.parentNode;
    if (!isHome && !isSign(element) && !(around && isElement(around) && isSign(around))) continue;
    const image = findElement(element, (each) => each.tagName === 'img');
    if (isHome && !image && !isSiteTitle(element) && !isInSiteTitle(element)) continue;
    const said =
      [tidy(startOfText(element, MOST_NAME)), image && attribute(image, 'alt'), attribute(element, 'title')].find(
        Boolean,
      ) ?? '';
    const name = said.replace(/\b(?:logo|home ?page|home|go to|back to|startseite|accueil|inicio)\b/gi, ' ');
    if (tidy(name).length > 2 && tidy(name).length <= MOST_NAME) {
      masthead = tidy(name);
      break;
    }
  }
  return { masthead, owner: ownerIn(elements) };
}

const MOST_LINKS = 60;

function leadsHome(href: string, host: string): boolean {
  const address = href.trim().toLowerCase();
  return (
    address === '/' ||
    /^(?:\.\/)?index\.html?$/.test(address) ||
    (host !== '' && address.replace(/^https?:\/\//, '').replace(/\/$/, '') === host)
  );
}

/** So many elements at the end of a page may claim the copyright. */
const LAST = 600;

/** Who claims the copyright, in the last lines that do. */
function ownerIn(elements: readonly PageElement[]): string | null {
  for (const element of elements.slice(-LAST).toReversed()) {
    if (!/^(?:p|div|li|span|small|td|a|footer|font|center)$/.test(element.tagName) || element.childNodes.length > 12)
      continue;
    const text = startOfText(element, 160);
    const found = text.length > 320 ? null : /(?:©|\(c\)|\bcopyright\b)/i.exec(text);
    if (!found) continue;
    const name = /^[\s©,]{0,4}(?:(?:19|20)\d\d[\s–-]{0,3}){0,2}[\s,]{0,2}(?:by )?(\p{Lu}[^.|,;:©]{2,40})/u.exec(
      text.slice(found.index + found[0].length).replace(/^\s*(?:copyright|©)/i, ''),
    )?.[1];
    if (name && !/reserved|rights/i.test(name)) return name.replace(COMPANY, '');
  }
  return null;
}

/** Without what a generator adds: versions, "documentation", "official site". */
function cleanName(name: string): string {
  const clean = tidy(name.slice(0, 300))
    .replace(/^www\.|^\[|\]$/g, '')
    .replace(/\s+(?:v(?:ersion)?\.? ?)?\d+(?:\.\d+)+\S{0,20}(?:\s\S{1,40})?$/gi, '')
    .replace(/\s+(?:v(?:ersion)?\.? ?)?\d+(?:\.\d+)+\S{0,20}/gi, '')
    .replace(/\s+\((?:dev|beta|latest|stable)\)/gi, '');
  const bare = clean.replace(/\s+(?:documentation|docs|manual|reference|official (?:web)?site)$/i, '').trim();
  return bare.length > 1 ? bare : clean;
}

function plainName(name: string): string {
  return wordsOf(name.replace(/\.(?:com|org|net|de|fr|it|es|co\.uk)$/i, ''))
    .filter((word) => word !== 'the')
    .join('');
}

/** The part of a host that is a name: "nytimes" of www.nytimes.com, "bbc" of news.bbc.co.uk. */
function spokenHost(host: string): string {
  const parts = host
    .toLowerCase()
    .replace(/^www\d?\./, '')
    .split('.');
  // Names that stand for no site (RFC 6761): what was read from a file has one of them.
  if (parts.length < 2 || /^(?:\d+|invalid|localhost)$/.test(parts.at(-1) ?? '')) return '';
  const isSecond =
    parts.length > 2 && /^(?:co|com|org|net|ac|gov)$/.test(parts.at(-2) ?? '') && parts.at(-1)?.length === 2;
  return (parts.at(isSecond ? -3 : -2) ?? '').replace(/-/g, '');
}

/** How far a host is made of the beginnings of a name's words, in their order (nytimes of The New York Times), 0 to 1. */
function spokenBy(host: string, name: string): number {
  if (host.length < 2) return 0;
  const words = wordsOf(name)
    .filter((word) => !SMALL.test(word))
    .slice(0, 8);
  const used = (at: number, word: number): number => {
    if (at === host.length) return word;
    const next = words[word];
    if (next === undefined) return 0;
    for (let length = next.length; length > 0; length--) {
      const all = host.startsWith(next.slice(0, length), at) ? used(at + length, word + 1) : 0;
      if (all > 0) return all;
    }
    return 0;
  };
  return words.length === 0 ? 0 : used(0, 0) / words.length;
}

const SMALL = /^(?:and|of|the|for|und|der|die|das|de|la|le|y|et)$/;

function isInSiteTitle(element: PageElement): boolean {
  let at: PageElement['parentNode'] = element.parentNode;
  for (let up = 0; at && isElement(at) && up < 3; at = at.parentNode, up++)
    if (isSiteTitle(at) || at.tagName === 'h1') return true;
  return false;
}

/** What can be nothing but the site's sign, wherever it leads (in a manual, to the manual's first page). Common practice. */
function isSign(element: PageElement): boolean {
  return /(?:^|\s)(?:logo|navbar-brand|site-(?:title|name|logo))(?:$|\s)/.test(label(element));
}

/** Where generators of manuals write the manual's name: the head of DocBook's pages, that of Javadoc's. By their output. */
function isManualsName(element: PageElement): boolean {
  if (element.tagName === 'div') return /^about-language$/.test(label(element).trim());
  if (element.tagName !== 'th') return false;
  let at: PageElement['parentNode'] = element.parentNode;
  for (let up = 0; at && isElement(at) && up < 4; at = at.parentNode, up++)
    if (/(?:^|\s)navheader(?:$|\s)/i.test(label(at))) return true;
  return false;
}

/** What is named so. Common practice. */
export function isSiteTitle(element: PageElement): boolean {
  return /(?:^|[\s_-])(?:site-?title|site-?name|logo|masthead|brand)(?:$|[\s_-])/.test(label(element));
}
