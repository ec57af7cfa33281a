import type { Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import type { CameThrough } from '../model';
import { countWords, languageOf, plainText, readingMinutes } from '../text';
import { checkArrival } from './came-through';
import { cleanInside, removeSurroundings, type Trust } from './clutter';
import { findMainText, findPrelude } from './main-text';
import { measure } from './measure';
import { readMetadata } from './metadata';
import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  isText,
  parsePage,
  textOf,
  tidy,
  type PageDocument,
  type PageElement,
} from './page-tree';
import { TREE_SCHEMA } from '../model';
import { textIn, toTree } from './to-tree';

/** A page as clean text with what the page states about itself. */
export interface Article {
  title: string | null;
  byline: string | null;
  siteName: string | null;
  publishedAt: string | null;
  language: string | null;
  excerpt: string | null;
  leadImageUrl: string | null;
  /** The page's own word for its address; the caller decides whether to believe it. */
  canonicalUrl: string | null;
  /** Sanitised; `img` still has the publisher's absolute address as its `src`. */
  tree: Root;
  /** The tree's plain text (core/text), without the title. */
  text: string;
  wordCount: number;
  minutes: number;
  pictureCount: number;
  cameThrough: CameThrough;
}

export const PAGE_LENGTH_LIMIT = 12_000_000;

/**
 * Strips a page to its text.
 *
 * @param html the decoded page
 * @param url the address it came from, for relative addresses
 * @throws PageTooLarge for a page over 12 million characters or 400,000 nodes
 */
export function extractArticle(html: string, url: string): Article {
  const document = parsePage(html);
  const base = baseOf(document, url);
  const metadata = readMetadata(document, base);
  const evidence = pageEvidence(document);
  let tree = cleanTree(document, base, metadata.title, 'by all evidence');
  // A page whose class names mislead comes to nothing; then only what can never be text is left out.
  if (wordsIn(tree) < FEWEST_WORDS && countWords(evidence.visibleText, null) > 3 * FEWEST_WORDS) {
    const looser = cleanTree(parsePage(html), base, metadata.title, 'by the surest evidence');
    if (wordsIn(looser) > 2 * wordsIn(tree)) tree = looser;
  }
  // A page that script builds may carry its text beside its markup.
  const stated = metadata.articleBody === null ? null : statedTree(metadata.articleBody, base);
  if (stated && wordsIn(stated) > 3 * wordsIn(tree)) tree = stated;
  const { text } = plainText(tree);
  const language = languageOf(text, metadata.language);
  const wordCount = countWords(text, language);
  const pictureCount = countPictures(tree);
  return {
    title: metadata.title,
    byline: metadata.byline,
    siteName: metadata.siteName,
    publishedAt: metadata.publishedAt,
    language,
    excerpt: metadata.description ?? firstWords(text),
    leadImageUrl: metadata.leadImageUrl,
    canonicalUrl: metadata.canonicalUrl,
    tree,
    text,
    wordCount,
    minutes: readingMinutes(text, language, pictureCount),
    pictureCount,
    cameThrough: checkArrival({ ...evidence, wordCount, pictureCount, metadata }),
  };
}

/** A text shorter than this is looked for a second time. */
const FEWEST_WORDS = 40;

function wordsIn(tree: Root): number {
  return countWords(plainText(tree).text, null);
}

function cleanTree(document: PageDocument, base: string, title: string | null, trust: Trust): Root {
  const body = findElement(document, (e) => e.tagName === 'body');
  if (!body) return { type: 'root', children: [] };
  openNoscriptText(body);
  restoreNoscriptPictures(body);
  removeSurroundings(body, trust);
  const main = findMainText(body);
  if (trust === 'by all evidence') cleanInside(main);
  const tree = toTree([...findPrelude(main), main], base);
  dropRepeatedTitle(tree, title);
  return sanitize(tree, TREE_SCHEMA) as Root;
}

/** The text that a page states in its data: as markup where it is that, else a paragraph for each of its lines. */
function statedTree(articleBody: string, base: string): Root | null {
  const isMarkup = /<(?:p|div|br|h[1-6]|ul)\b/i.test(articleBody);
  const markup = isMarkup
    ? articleBody
    : articleBody
        .split(/\n+/)
        .map((line) => `<p>${line.replace(/&(?!#?\w+;)/g, '&amp;').replace(/</g, '&lt;')}</p>`)
        .join('');
  const body = findElement(parsePage(`<body>${markup}`), (e) => e.tagName === 'body');
  if (!body) return null;
  removeSurroundings(body, 'by the surest evidence');
  return sanitize(toTree([body], base), TREE_SCHEMA) as Root;
}

function baseOf(document: PageDocument, url: string): string {
  const base = findElement(document, (e) => e.tagName === 'base' && attribute(e, 'href') !== undefined);
  try {
    return new URL((base && attribute(base, 'href')) ?? '', url).href;
  } catch {
    // A base address that is none is ignored, as browsers do.
    return url;
  }
}

function pageEvidence(document: PageDocument) {
  let scriptLength = 0;
  let hasPasswordField = false;
  for (const element of descendants(document)) {
    if (element.tagName === 'script')
      scriptLength += element.childNodes.reduce(
        (sum, node) => sum + (isText(node) ? node.value.length : 0),
        0,
      );
    if (element.tagName === 'input' && attribute(element, 'type')?.toLowerCase() === 'password')
      hasPasswordField = true;
  }
  const noscript = [...descendants(document)]
    .filter((e) => e.tagName === 'noscript')
    .flatMap((e) => e.childNodes.map(textOf));
  return {
    scriptLength,
    hasPasswordField,
    visibleText: tidy(`${textOf(document)} ${noscript.join(' ')}`).slice(0, 200_000),
  };
}

/** Some pages keep their whole text for readers without script: where it is more than the rest, it is the text. */
function openNoscriptText(body: PageElement): void {
  const shown = measure(body).get(body)?.prose ?? 0;
  for (const noscript of [...descendants(body)].filter((e) => e.tagName === 'noscript')) {
    const prose = elementsIn(noscript).reduce(
      (sum, child) => sum + (measure(child).get(child)?.prose ?? 0),
      0,
    );
    if (prose > 300 && prose > shown) {
      noscript.tagName = 'div';
      noscript.nodeName = 'div';
    }
  }
}

/** `<img placeholder><noscript><img real></noscript>`: the real one takes the place of the placeholder. */
function restoreNoscriptPictures(body: PageElement): void {
  for (const noscript of [...descendants(body)].filter((e) => e.tagName === 'noscript')) {
    const image = findElement(noscript, (e) => e.tagName === 'img');
    const parent = noscript.parentNode;
    if (!image || !parent) continue;
    const at = parent.childNodes.indexOf(noscript);
    const twin = parent.childNodes
      .slice(0, at)
      .reverse()
      .find((node) => 'tagName' in node);
    const replaced =
      twin && 'tagName' in twin && twin.tagName === 'img' ? parent.childNodes.indexOf(twin) : at;
    image.parentNode = parent;
    parent.childNodes.splice(replaced, 1, image);
  }
}

/** The page's headline at the head of its text is the title once more. */
function dropRepeatedTitle(tree: Root, title: string | null): void {
  const plain = (value: string) =>
    value
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  const index = tree.children
    .slice(0, 4)
    .findIndex(
      (node) =>
        node.type === 'element' &&
        /^h[12]$/.test(node.tagName) &&
        (node.tagName === 'h1' || plain(textIn(node)) === plain(title ?? '')),
    );
  if (index === -1) return;
  const node = tree.children[index];
  if (
    node?.type === 'element' &&
    (title === null || plain(textIn(node)) === plain(title) || plain(title).includes(plain(textIn(node))))
  )
    tree.children.splice(index, 1);
}

function countPictures(tree: Root): number {
  let count = 0;
  const visit = (node: Root['children'][number]) => {
    if (node.type !== 'element') return;
    if (node.tagName === 'img') count++;
    node.children.forEach(visit);
  };
  tree.children.forEach(visit);
  return count;
}

function firstWords(text: string): string | null {
  const paragraph = text.split('\n\n').find((block) => block.length > 60) ?? text.split('\n\n')[0] ?? '';
  const flat = paragraph.replace(/\s+/g, ' ').trim();
  if (flat === '') return null;
  return flat.length <= 280 ? flat : `${flat.slice(0, 279).replace(/\s+\S*$/, '')}…`;
}
