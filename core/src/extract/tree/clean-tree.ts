import { isEqual } from 'es-toolkit/predicate';
import type { Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import { toString } from 'hast-util-to-string';
import { TREE_SCHEMA } from '../../model';
import { countWords } from '../../text';
import { removeAsked } from '../choose/asked';
import { cleanInside } from '../choose/boxes';
import { isHidden, removeSurroundings, type Trust } from '../choose/clutter';
import { Cuts } from '../choose/cuts';
import { findMainText, findPrelude } from '../choose/main-text';
import { removeNextArticles } from '../choose/next-articles';
import { unfold } from '../choose/unfold';
import type { Stated } from '../judge/features';
import type { Forest } from '../judge/forest';
import { type Evidence, gatherEvidence, type Judged, judgePage } from '../judge/judge';
import { settleInsideLinks } from '../page/inside-links';
import { measure } from '../page/measure';
import {
  descendants,
  elementsIn,
  findElement,
  type PageDocument,
  type PageElement,
  parsePage,
  remove,
  spacedText,
} from '../page/page-tree';
import { findPosts } from '../threads/posts';
import type { StatedPosts } from '../threads/stated-posts';
import { threadPart } from '../threads/thread-tree';
import { makeCards } from './embeds';
import { restoreFormulas } from './formula';
import { countsReaders } from './pictures';
import { toTree } from './to-tree';

/** Where a page stands, and what its relative addresses are resolved against. */
export interface Place {
  address: string;
  base: string;
}

const NOTHING: Root = { type: 'root', children: [] };

/**
 * The text of a page as a forest judges its lines, null when no line is text; and how many words asked for consent. Changes the page's
 * own tree.
 */
export function judgedTree(
  document: PageDocument,
  place: Place,
  stated: Stated,
  forest: Forest,
): { tree: Root | null; kept: Judged['kept']; consentWords: number } {
  const body = bodyOf(document);
  if (!body) return { tree: NOTHING, kept: [], consentWords: 0 };
  openNoscriptText(body);
  prepare(body, place);
  const consent = removeAsked(body).filter(({ asked }) => asked === 'consent');
  const consentWords = Math.max(0, ...consent.map(({ element }) => countWords(spacedText(element), null)));
  const judged = judgePage(body, stated, forest);
  if (!judged) return { tree: null, kept: [], consentWords };
  const tree = toTree(judged.parts, place.base, place.address);
  dropRepeatedTitle(tree, stated.title);
  return { tree: settled(tree), kept: judged.kept, consentWords };
}

/**
 * The evidence of a page's lines, as a forest would judge them, for making one; and what asked something of readers and was taken out
 * before.
 */
export function evidenceOf(
  document: PageDocument,
  place: Place,
  stated: Stated,
): (Evidence & { asked: PageElement[] }) | null {
  const body = bodyOf(document);
  if (!body) return null;
  openNoscriptText(body);
  prepare(body, place);
  const asked = removeAsked(body).map(({ element }) => element);
  return { ...gatherEvidence(body, stated), asked };
}

/** The main text of a page, its surroundings taken away. Changes the page's tree. */
export function mainTree(document: PageDocument, place: Place, title: string | null, trust: Trust): Root {
  const body = bodyOf(document);
  if (!body) return NOTHING;
  openNoscriptText(body);
  prepare(body, place);
  if (trust === 'by all evidence') {
    removeAsked(body);
    removeNextArticles(body, title, new Cuts());
  }
  removeSurroundings(body, trust);
  const main = findMainText(body);
  if (trust === 'by all evidence') cleanInside(main);
  const tree = toTree([...findPrelude(main), main], place.base, place.address);
  dropRepeatedTitle(tree, title);
  return settled(tree);
}

/** A page that is a thread, post by post, and who began it. Changes the page's tree; null for any other page. */
export function threadTree(
  document: PageDocument,
  place: Place,
  stated: StatedPosts | null,
): { tree: Root; by: string | null } | null {
  const body = bodyOf(document);
  const posts = body ? findPosts(body, stated) : null;
  if (!body || !posts) return null;
  prepare(body, place);
  const tree = toTree([threadPart(posts)], place.base, place.address, 'as given');
  return { tree: settled(tree), by: posts[0]?.who ?? null };
}

/** All that a page shows, as a readable document. Changes the page's tree. */
export function wholeTree(document: PageDocument, place: Place): Root {
  const body = bodyOf(document);
  if (!body) return NOTHING;
  prepare(body, place);
  const sweep = (element: PageElement) => {
    for (const child of elementsIn(element)) {
      if (NOT_SHOWN.test(child.tagName) || isHidden(child)) remove(child);
      else {
        // What is pressed on the page is only words in a copy.
        if (/^(?:button|label)$/.test(child.tagName)) child.tagName = child.nodeName = 'span';
        sweep(child);
      }
    }
  };
  sweep(body);
  return settled(toTree([body], place.base, place.address, 'all of it'));
}

const NOT_SHOWN =
  /^(?:script|style|link|meta|template|object|embed|applet|input|select|textarea|dialog|canvas|map|noscript|svg|iframe)$/;

/**
 * A part of a page, or a text that comes without a page around it: all of it is the text.
 *
 * @param markup HTML, or plain lines that each become a paragraph
 */
export function partTree(markup: string, place: Place): Root {
  const isMarkup = /<(?:p|div|br|h[1-6]|ul|ol|table|span|a|pre|img|figure|blockquote)\b/i.test(markup);
  const source = isMarkup
    ? markup
    : markup
        .split(/\n+/)
        .map((line) => `<p>${line.replace(/&(?!#?\w+;)/g, '&amp;').replace(/</g, '&lt;')}</p>`)
        .join('');
  const body = bodyOf(parsePage(`<body>${source}`));
  if (!body) return NOTHING;
  prepare(body, place);
  removeSurroundings(body, 'by the surest evidence');
  return settled(toTree([body], place.base, place.address, 'as given'));
}

/** The tree without its pictures and cards. */
export function withoutPictures(tree: Root): Root {
  const schema = {
    ...TREE_SCHEMA,
    tagNames: (TREE_SCHEMA.tagNames ?? []).filter((name) => name !== 'img'),
  };
  const bare = sanitize(tree, schema) as Root;
  const dropEmpty = <Parent extends Root | Root['children'][number]>(parent: Parent): Parent => {
    if (!('children' in parent)) return parent;
    const children = (parent.children as Root['children'])
      .map(dropEmpty)
      .filter(
        (child) =>
          child.type !== 'element' ||
          child.children.length > 0 ||
          /^(?:br|hr|td|th)$/.test(child.tagName) ||
          child.tagName.startsWith('m'),
      );
    return { ...parent, children };
  };
  return dropEmpty(bare);
}

/** A tree from elsewhere, as one that we may have made ourselves: the same when it is one already. */
export function safeTree(tree: Root): Root {
  const safe = sanitize(tree, TREE_SCHEMA) as Root;
  return isEqual(safe, tree) ? tree : safe;
}

function bodyOf(document: PageDocument): PageElement | undefined {
  return findElement(document, (element) => element.tagName === 'body');
}

function prepare(body: PageElement, { base }: Place): void {
  for (const element of descendants(body))
    if (element.tagName === 'amp-img' || element.tagName === 'amp-anim') element.tagName = element.nodeName = 'img';
  restoreNoscriptPictures(body);
  restoreFormulas(body);
  makeCards(body, base);
  unfold(body);
}

function settled(tree: Root): Root {
  settleInsideLinks(tree);
  return sanitize(tree, TREE_SCHEMA) as Root;
}

/** Some pages keep their whole text for readers without script: where it is more than the rest, it is the text. */
function openNoscriptText(body: PageElement): void {
  const kept = descendants(body).filter((e) => e.tagName === 'noscript');
  if (kept.length === 0) return;
  const shown = measure(body).get(body)?.prose ?? 0;
  for (const noscript of kept) {
    const prose = elementsIn(noscript).reduce((sum, child) => sum + (measure(child).get(child)?.prose ?? 0), 0);
    if (prose > 300 && prose > shown) {
      noscript.tagName = 'div';
      noscript.nodeName = 'div';
    }
  }
}

/** `<img placeholder><noscript><img real></noscript>`: the real one takes the place of the placeholder. */
function restoreNoscriptPictures(body: PageElement): void {
  for (const noscript of descendants(body).filter((e) => e.tagName === 'noscript')) {
    const image = findElement(noscript, (e) => e.tagName === 'img');
    const parent = noscript.parentNode;
    if (!image || !parent) continue;
    const at = parent.childNodes.indexOf(noscript);
    const twin = parent.childNodes
      .slice(0, at)
      .reverse()
      .find((node) => 'tagName' in node);
    const stands = twin && 'tagName' in twin && twin.tagName === 'img';
    if (!stands && countsReaders(image)) continue;
    const replaced = stands ? parent.childNodes.indexOf(twin) : at;
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
  const wanted = plain(title ?? '');
  const begins = tree.children.findIndex((node) => node.type === 'element' && toString(node).length >= 120);
  const head = tree.children.slice(0, begins === -1 ? 4 : Math.max(4, begins));
  const repeated = head.filter((node) => {
    if (node.type !== 'element') return false;
    const words = plain(toString(node));
    if (node.tagName === 'h1') return wanted === '' || words === wanted || wanted.includes(words);
    return /^(?:h2|h3|p)$/.test(node.tagName) && words !== '' && words === wanted;
  });
  const left = tree.children.filter((node) => !repeated.includes(node));
  // What parted the headline from the text parts nothing any more.
  const isRule = (node: (typeof left)[number]) => node.type === 'element' && node.tagName === 'hr';
  tree.children = left.slice(
    Math.max(
      0,
      left.findIndex((node) => !isRule(node)),
    ),
  );
}
