import {
  attribute,
  findElement,
  label,
  type PageElement,
  spacedText,
  startOfText,
  textContent,
  tidy,
} from '../page/page-tree';
import { dateIn } from './visible-date';

/** A name from metadata; null for an address, an account or a nobody. */
export function personOnly(value: string | null): string | null {
  return value === null || /^(https?:)?\/\//.test(value) || value.startsWith('@') ? null : personIn(value);
}

/** Accounts that stand for whoever set the site up. Common practice. */
export const NOBODY = /^(?:admin|administrator|root|user|webmaster|author|guest|default|unknown)$/i;

/** Forty names have fewer characters. */
const MOST_NAMES = 4000;

/**
 * The names in a byline, one by one: "Ada Quill, Bo Reed and Cy Orme". What does not look like several names stays one.
 *
 * @returns at least one name for a byline that is not blank
 */
export function namesIn(byline: string): string[] {
  const parts = byline
    .slice(0, MOST_NAMES)
    .split(/\s*[,;]\s+(?:and\s+|und\s+|et\s+|y\s+)?|\s+(?:and|und|et|y|e|&)\s+/u)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  const spoken = parts.filter((part) => /\p{Ll}/u.test(part));
  // "Ada Quill, DWT": who they write for stands behind the name.
  if (spoken.length > 0 && spoken.length < parts.length) return namesIn(spoken.join(', '));
  const areNames = parts.every((part) => /^\p{Lu}[\p{L}.'’-]*(?:\s+[\p{L}.'’-]+){1,3}$/u.test(part));
  return parts.length > 1 && areNames ? [...new Set(parts)] : [byline];
}

/**
 * What somebody does, behind the name. Words of up to six letters pass before it (“senior”, “staff”, “BBC”); each word is matched in one
 * way only, or a run of them would be tried in every combination.
 */
const ROLE =
  /[,\s]+(?:(?:\p{L}{2,6}|executive|special|contributing|associate|managing|political|technology|science|business|national|foreign|washington)\s+)*(?:editor|reporter|writer|correspondent|columnist|contributor|producer|journalist|envoyée?s? sp[ée]cia\p{L}*|redakteur(?:in)?|korrespondent(?:in)?)\b.*$/iu;

/** "By", in some languages, before a name. */
const BY =
  /^(?:(?:by|(?:(?:co-?)?(?:authored|written)|words|text|posted|story|interview|(?:photographs?|photos?|pictures|text|words) and (?:photographs?|photos?|pictures|text|words)) by|from|von|par|por|di|door|av|af|od)(?:\s*:)?|(?:text|words|story|author|autor(?:in)?|auteur|autora|автор|текст)\s*:)\s+|^(?:作者|文|كتب|بقلم)\s?[:：/|]\s?/i;
/** What follows a name in a byline and is not part of it. */
const BEHIND_A_NAME =
  /(?:[|·•–—<(]|\s-\s|\b(?:illustrations?|illustrated|photographs?|photographed|photography|photos?|pictures?|art(?:work)?|graphics?|video) by\b|\b(?:foto|photos?|photographs?|pictures?|bild(?:er)?|images?)\s*:|\bon (?=\p{L}+\.? \d|\d)|\bat (?=\d)|@\w|\d+ ?comments?\b|\bpublished\b|\bmore from\b|\bfollow\b|\bview\b|\bposted\b|(?:\blast )?\bupdated\b|,?\s+(?:le|am|el|il|den|em|på) (?=\d)|,?\s+\d{4}[-/.年]|,?\s+(?:spring|summer|autumn|fall|winter)\s+\d{4}|,?\s+(?:\p{L}{3,9}\.?\s+(?!\d{1,2}\.?\s+\p{L}{3}))?\d{1,2}(?:st|nd|rd|th)?,?[\s:.]|\d{1,2}:\d{2}).*$/isu;

/** What is longer is no byline; of it the beginning may be one. In characters. */
const MOST_BYLINE = 400;

function withoutBy(value: string): string {
  return value.replace(BY, '').trim();
}

/** A byline as a name; null when it is a date, an address or a sentence. */
function personIn(byline: string): string | null {
  const name = withoutBy(withoutBy(tidy(byline).slice(0, MOST_BYLINE)).replace(BEHIND_A_NAME, ''))
    .replace(ROLE, '')
    .replace(/(?<=\p{Ll}{2} .*)\s*\p{Lu}[\w.]*\.(?:com|org|net)\b.*$/u, '')
    .replace(/[\s,;:]+$/, '');
  if (NOBODY.test(name) || /^[#@]/.test(name)) return null;
  if (name.length < 2 || name.length > 100 || !/\p{L}{2}/u.test(name)) return null;
  if (BY.test(`${name} `) || /^(?:more|all|see|view|read)\b/i.test(name)) return null;
  if (
    /^\d|^(?:https?:|www\.)|\.(?:com|org|net|fr|es|de|co\.uk)$/i.test(name) ||
    (/\d/.test(name) && dateIn(name, 'en'))
  )
    return null;
  return name.split(/\s+/).length > 12 ? null : name;
}

const BYLINE_LABEL =
  /(?:^|[\s_-])(?:byline|p-author|author[-_]?name|article[-_]?auth(?:or)?|post[-_]?author|c-byline|writer|auteur|autor)(?:$|[\s_-])/;
const MAX_BYLINES = 60;
const MAX_BYLINE_LENGTH = 300;
const MAX_AUTHORS = 8;
const NOT_THE_AUTHOR = /comment|related|sidebar|footer|nav|avatar|bio\b|teaser/;

/** The authors that a page shows to its readers: in elements named for them, or in a line that says "By". */
export function visibleAuthors(elements: PageElement[]): string[] {
  const own = (e: PageElement) => {
    for (let at: PageElement['parentNode'] = e, up = 0; at && 'tagName' in at && up < 6; at = at.parentNode, up++)
      if (NOT_THE_AUTHOR.test(label(at))) return false;
    return true;
  };
  // hCard (microformats.org): below a post, where its footer tells who wrote it.
  const isCard = (e: PageElement) => /\bvcard\b/.test(label(e)) && /\bauthor\b/.test(label(e));
  const candidates = [
    elements.filter((e) => attribute(e, 'itemprop') === 'author'),
    elements.filter((e) => attribute(e, 'rel')?.split(/\s+/).includes('author')),
    elements.filter((e) => BYLINE_LABEL.test(label(e)) && own(e)),
    elements.filter((e) => /\bauthor\b/.test(label(e)) && own(e)),
  ].flat();
  for (const element of candidates.slice(0, MAX_BYLINES)) {
    const name = nameInside(element);
    if (!name) continue;
    // Several authors stand side by side, each in an element of the same make.
    const beside = candidates.filter(
      (each) => each.parentNode === element.parentNode && label(each) === label(element),
    );
    const names = beside.slice(0, MAX_AUTHORS).map(nameInside);
    return [...new Set([name, ...names])].filter((each) => each !== null);
  }
  const line = lineThatSaysBy(elements);
  if (line) return namesIn(line);
  const lastly = [
    elements.filter((e) => isCard(e) && !label(e).includes('comment')).slice(0, 1),
    // Who a report was taken over from, where nobody is named.
    elements.filter(
      (e) => e.tagName === 'cite' && /(?:^|[\s_-])(?:source|credit|author)(?:$|[\s_-])/.test(label(e)) && own(e),
    ),
  ].flat();
  return lastly
    .slice(0, 3)
    .flatMap((element) => nameInside(element) ?? [])
    .slice(0, 1);
}

function nameInside(element: PageElement): string | null {
  if (startOfText(element, MAX_BYLINE_LENGTH).length > MAX_BYLINE_LENGTH) return null;
  const inner = findElement(element, (e) => attribute(e, 'itemprop') === 'name' || /\b(?:fn|name)\b/.test(label(e)));
  // A link inside a byline is the name; the rest is where they work and what they wrote before.
  const link = findElement(inner ?? element, (e) => e.tagName === 'a' && tidy(textContent(e)) !== '');
  return (link && personIn(spacedText(link))) ?? personIn(spacedText(inner ?? element));
}

const SAYS_BY =
  /^(?:(?:by|(?:(?:co-?)?(?:authored|written)|words|text|posted|story|interview|(?:photographs?|photos?|pictures|text|words) and (?:photographs?|photos?|pictures|text|words)) by|von|par|por)(?:\s*:)?|(?:text|words|story|author|autor(?:in)?|auteur|autora|автор|текст)\s*:)\s+\p{Lu}|^(?:作者|文|كتب|بقلم)\s?[:：/|]\s?\p{L}/iu;

/** "Posted on April 2, 2018 by Ada Quill". */
const SAYS_BY_LATER = /^(?:posted|published|written|filed)\b[^.!?]{0,60}?\sby\s+(\p{L}.{2,60})$/iu;

/** "Ada Quill — 4 min read". */
const BEFORE_MINUTES = /^(\p{Lu}[\p{L}.'’-]*(?:\s[\p{L}.'’-]+){1,3})\s*[—–·•|-]\s*\d{1,3} min(?:ute)?s?\b/u;

/** "By Ada Quill" on a line of its own near the headline. */
function lineThatSaysBy(elements: PageElement[]): string | null {
  const headline = elements.findIndex((e) => e.tagName === 'h1');
  for (const element of elements.slice(Math.max(0, headline), headline + 120)) {
    if (!/^(?:p|div|span|li|td|h[2-6]|em|i|b|strong|small|cite|font)$/.test(element.tagName)) continue;
    const text = startOfText(element, 90).length < 90 ? tidy(spacedText(element)) : '';
    const later = (SAYS_BY_LATER.exec(text) ?? BEFORE_MINUTES.exec(text))?.[1]?.replace(/\sin\s\p{L}.*$/u, '');
    if (later !== undefined || SAYS_BY.test(text)) {
      const name = personIn(later ?? text);
      if (name && /^[\p{Lu}\p{Lo}]/u.test(name)) return name;
    }
  }
  return null;
}
