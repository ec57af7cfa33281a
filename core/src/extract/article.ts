import type { Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import { toString } from 'hast-util-to-string';
import { visit } from 'unist-util-visit';
import { type CameThrough, type Doubt, type Fact, type HowMuch, MAX_FACTS, TREE_SCHEMA } from '../model';
import { countWords, languageOf, plainText, readingMinutes } from '../text';
import { doubtsOf } from './judge/doubts';
import type { Stated } from './judge/features';
import { FOREST, type Forest, likelihood, reasons } from './judge/forest';
import { decide, type Decision, type Evidence, type Judged } from './judge/judge';
import { linesOf } from './judge/page-lines';
import { readLabelledFacts } from './metadata/labelled-facts';
import { type Metadata, readMetadata } from './metadata/metadata';
import { checkArrival } from './page/came-through';
import { findNextPage } from './page/next-page';
import {
  attribute,
  descendants,
  findElement,
  isText,
  type PageDocument,
  type PageElement,
  PageTooLarge,
  parsePage,
  spacedText,
  startOfText,
  textContent,
  tidy,
} from './page/page-tree';
import { textInState } from './page/state-text';
import {
  evidenceOf,
  judgedTree,
  mainTree,
  partTree,
  type Place,
  threadTree,
  wholeTree,
  withoutPictures,
} from './tree/clean-tree';

/** A page as clean text with what the page states about itself. */
export interface Article {
  title: string | null;
  authors: string[];
  siteName: string | null;
  /** ISO 8601, with its zone where the page states one. */
  publishedAt: string | null;
  modifiedAt: string | null;
  language: string | null;
  excerpt: string | null;
  leadImageUrl: string | null;
  /** The icon of its site. */
  iconUrl: string | null;
  /** The page's own word for its address; the caller decides whether to believe it. */
  canonicalUrl: string | null;
  licenceUrl: string | null;
  facts: Fact[];
  /** False when the page says that its text is not free to read. */
  accessibleForFree: boolean;
  /** The number of words that the page itself claims, if it does. */
  statedWordCount: number | null;
  /** Where an article that is cut into several pages goes on. */
  nextPageUrl: string | null;
  /** Sanitised; `img` still has the publisher's absolute address as its `src`. */
  tree: Root;
  /** The tree's plain text (core/text), without the title. */
  text: string;
  wordCount: number;
  minutes: number;
  pictureCount: number;
  cameThrough: CameThrough;
  /** Blocks of the tree that are not surely text. */
  doubts: Doubt[];
}

export const PAGE_LENGTH_LIMIT = 12_000_000;

/**
 * Strips a page to its text.
 *
 * @param html the decoded page
 * @param url the address it came from, for relative addresses
 * @param howMuch to keep of it: the text with its pictures, the words alone, all that the page shows, only what it
 *   states of itself, or a part of a page that is all text
 * @param forest that judges the lines of the page; null for the rules alone, to be measured beside it
 * @throws PageTooLarge for a page over 12 million characters or 400,000 nodes
 */
export function extractArticle(
  html: string,
  url: string,
  howMuch: HowMuch = 'words-and-pictures',
  forest: Forest | null = FOREST,
): Article {
  if (html.length > PAGE_LENGTH_LIMIT) throw new PageTooLarge('page-too-long');
  const document = parsePage(html);
  const place = { address: url, base: baseOf(document, url) };
  const elements = descendants(document);
  const metadata = readMetadata(document, place.base, elements);
  const evidence = shownBy(document, elements);
  const isArticle = howMuch === 'words-and-pictures' || howMuch === 'words-only';
  const nextPageUrl = isArticle ? findNextPage(elements, url) : null;
  const thread = isArticle ? threadTree(document, place, metadata.statedThread) : null;
  const page = { html, document, place, metadata, visibleText: evidence.visibleText, thread: thread?.tree, forest };
  const { tree, kept, consentWords } = treeOf(howMuch, page);
  const measures = measured(tree, metadata.language);
  return {
    title: metadata.title,
    authors: thread?.by ? [thread.by] : metadata.authors,
    siteName: metadata.siteName,
    publishedAt: metadata.publishedAt,
    modifiedAt: metadata.modifiedAt,
    excerpt: metadata.description ?? firstWords(measures.text),
    leadImageUrl: metadata.leadImageUrl,
    iconUrl: metadata.iconUrl,
    canonicalUrl: metadata.canonicalUrl,
    licenceUrl: metadata.licenceUrl,
    facts: [...metadata.facts, ...readLabelledFacts(tree)].slice(0, MAX_FACTS),
    accessibleForFree: metadata.accessibleForFree,
    statedWordCount: metadata.statedWordCount,
    nextPageUrl,
    ...measures,
    cameThrough:
      howMuch === 'address-only'
        ? { verdict: 'whole', signs: [] }
        : checkArrival({ address: url, ...evidence, ...measures, consentWords, likely: likelyText(kept), metadata }),
    doubts: forest === null ? [] : doubtsOf(tree, kept, forest),
  };
}

/** How likely what was kept is text, over its characters, 0 to 1; 0 where nothing was judged to be. */
function likelyText(kept: Judged['kept']): number {
  const length = kept.reduce((sum, { text }) => sum + text.length, 0);
  return kept.reduce((sum, { text, likely }) => sum + text.length * likely, 0) / Math.max(1, length);
}

/** A tree with the measure of its text. */
export function measured(
  tree: Root,
  declaredLanguage: string | null,
): Pick<Article, 'tree' | 'text' | 'language' | 'wordCount' | 'minutes' | 'pictureCount'> {
  const { text } = plainText(tree);
  const language = languageOf(text, declaredLanguage);
  const pictureCount = countPictures(tree);
  const wordCount = countWords(text, language);
  return {
    tree,
    text,
    language,
    wordCount,
    minutes: readingMinutes(text, language, pictureCount, wordCount),
    pictureCount,
  };
}

/** A page while its text is looked for. */
interface PageAtHand {
  html: string;
  document: PageDocument;
  place: Place;
  metadata: Metadata;
  /** All that it shows. */
  visibleText: string;
  /** Its posts, where it is a thread. */
  thread: Root | undefined;
  forest: Forest | null;
}

/** A text, with the lines of the page that it was judged by; none where nothing was judged. */
interface Found {
  tree: Root;
  kept: Judged['kept'];
  /** Of the longest box that asked for consent, and was taken out. */
  consentWords: number;
}

const given = (tree: Root): Found => ({ tree, kept: [], consentWords: 0 });

function treeOf(howMuch: HowMuch, page: PageAtHand): Found {
  const { html, document, place } = page;
  switch (howMuch) {
    case 'address-only':
      return given({ type: 'root', children: [] });
    case 'whole-page':
      return given(wholeTree(document, place));
    case 'selected-part':
      return given(partTree(html, place));
    case 'words-only': {
      const found = textTree(page);
      return { ...found, tree: withoutPictures(found.tree) };
    }
    case 'words-and-pictures':
    case 'picture':
      return textTree(page);
  }
}

function textTree({ html, document, place, metadata, visibleText, thread, forest }: PageAtHand): Found {
  if (thread) return given(thread);
  const judged = forest && judgedTree(document, place, statedBy(metadata), forest);
  let found: Found = {
    tree: judged?.tree ?? mainTree(parsePage(html), place, metadata.title, 'by all evidence'),
    kept: judged?.kept ?? [],
    consentWords: judged?.consentWords ?? 0,
  };
  const take = (other: Root, times: number) => {
    if (wordsIn(other) > times * wordsIn(found.tree)) found = given(other);
  };
  const isShort = () => toString(found.tree).length < MAX_SHORT && wordsIn(found.tree) < MIN_WORDS;
  // A page whose class names mislead comes to nothing; then only what can never be text is left out.
  if (isShort() && countWords(visibleText, null) > 3 * MIN_WORDS)
    take(mainTree(parsePage(html), place, metadata.title, 'by the surest evidence'), 2);
  // A page that script builds may carry its text beside its markup.
  const stated = metadata.articleBody;
  if (stated !== null) take(partTree(stated, place), 3);
  const state = isShort() ? textInState(parsePage(html)) : null;
  if (state !== null) take(partTree(state, place), 3);
  return found;
}

function statedBy({ title, statedTexts }: Metadata): Stated {
  return { title, texts: statedTexts.own, others: statedTexts.others };
}

/** The lines of a page with their features, for making a forest. */
export function pageEvidence(html: string, url: string): (Evidence & { asked: PageElement[] }) | null {
  const document = parsePage(html);
  const place = { address: url, base: baseOf(document, url) };
  return evidenceOf(document, place, statedBy(readMetadata(document, place.base)));
}

/** A line of a page with what was made of it. */
export interface JudgedLine {
  text: string;
  /** How likely it is text, 0 to 1, as far as the forest can tell. */
  likelihood: number;
  isText: boolean;
  /** What decided it: beside what decides of lines, that it was asked of readers, with what they answered. */
  by: Decision['by'] | 'asked';
  /** What spoke for it (above 0) and against it, the strongest first. */
  reasons: { feature: string; weight: number }[];
}

const MOST_REASONS = 5;

/** Why each line of a page came through or did not; those that were taken out before any was judged come last. */
export function whyLines(html: string, url: string): JudgedLine[] {
  const evidence = pageEvidence(html, url);
  if (!evidence) return [];
  const decisions = decide(evidence, FOREST);
  const judged = evidence.page.lines.flatMap(({ text }, at): JudgedLine[] => {
    const [features, decision] = [evidence.features[at], decisions[at]];
    if (!features || !decision) return [];
    const { isText: isKept, by } = decision;
    const likely = likelihood(FOREST, features);
    return [
      { text, likelihood: likely, isText: isKept, by, reasons: reasons(FOREST, features).slice(0, MOST_REASONS) },
    ];
  });
  const asked = evidence.asked.flatMap((box) =>
    linesOf(box).lines.map(({ text }): JudgedLine => ({
      text,
      likelihood: 0,
      isText: false,
      by: 'asked',
      reasons: [],
    })),
  );
  return [...judged, ...asked];
}

/** A text shorter than this is looked for a second time. */
const MIN_WORDS = 40;
/** What has more characters has more words than that, in any language. */
const MAX_SHORT = 2000;

function wordsIn(tree: Root): number {
  return countWords(plainText(tree).text, null);
}

function baseOf(document: PageDocument, url: string): string {
  const base = findElement(document, (e) => e.tagName === 'base' && attribute(e, 'href') !== undefined);
  try {
    return new URL((base && attribute(base, 'href')) ?? '', url).href;
  } catch {
    // A base address that is not one is ignored, as browsers do.
    return url;
  }
}

/** More are not looked at, nor longer ones: they may stand inside one another. */
const MOST_HEADINGS = 50;
const MOST_HEADING = 500;

function shownBy(document: PageDocument, elements: readonly PageElement[]) {
  let scriptLength = 0;
  let hasPasswordField = false;
  for (const element of elements) {
    if (element.tagName === 'script')
      scriptLength += element.childNodes.reduce((sum, node) => sum + (isText(node) ? node.value.length : 0), 0);
    if (element.tagName === 'input' && attribute(element, 'type')?.toLowerCase() === 'password')
      hasPasswordField = true;
  }
  const mains = elements.filter((each) => each.tagName === 'main' || attribute(each, 'role') === 'main');
  const noscript = elements.filter((e) => e.tagName === 'noscript').flatMap((e) => e.childNodes.map(textContent));
  return {
    scriptLength,
    hasPasswordField,
    headings: elements
      .filter(({ tagName }) => /^h[123]$/.test(tagName))
      .slice(0, MOST_HEADINGS)
      .map((each) => startOfText(each, MOST_HEADING)),
    mainText: mains.length === 1 && mains[0] ? tidy(spacedText(mains[0])) : '',
    visibleText: tidy(`${spacedText(document)} ${noscript.join(' ')}`).slice(0, 200_000),
  };
}

function countPictures(tree: Root): number {
  let count = 0;
  visit(tree, 'element', ({ tagName }) => {
    if (tagName === 'img') count += 1;
  });
  return count;
}

function firstWords(text: string): string | null {
  const paragraph = text.split('\n\n').find((block) => block.length > 60) ?? text.split('\n\n')[0] ?? '';
  const flat = paragraph.replace(/\s+/g, ' ').trim();
  if (flat === '') return null;
  return flat.length <= 280 ? flat : `${flat.slice(0, 279).replace(/\s+\S*$/, '')}…`;
}

/** A text that comes with no page around it and no markup: a document that was laid out, or letters. */
export function articleOfTree(tree: Root, title: string | null, authors: readonly string[] = []): Article {
  const clean = sanitize(tree, TREE_SCHEMA) as Root;
  const measures = measured(clean, null);
  return {
    title,
    authors: [...authors],
    siteName: null,
    publishedAt: null,
    modifiedAt: null,
    excerpt: firstWords(measures.text),
    leadImageUrl: null,
    iconUrl: null,
    canonicalUrl: null,
    licenceUrl: null,
    facts: [],
    accessibleForFree: true,
    statedWordCount: null,
    nextPageUrl: null,
    ...measures,
    cameThrough:
      measures.wordCount === 0 && measures.pictureCount === 0
        ? { verdict: 'failed', signs: [{ code: 'empty-document' }] }
        : { verdict: 'whole', signs: [] },
    doubts: [],
  };
}
