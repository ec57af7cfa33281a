import { defaultTreeAdapter, type DefaultTreeAdapterMap, parse } from 'parse5';

export type PageNode = DefaultTreeAdapterMap['node'];
export type PageElement = DefaultTreeAdapterMap['element'];
type PageParent = DefaultTreeAdapterMap['parentNode'];
export type PageDocument = DefaultTreeAdapterMap['document'];

/** Deeper than any honest page (WHATWG-conforming pages rarely pass 60); below it only the text is kept. */
const DEPTH_LIMIT = 200;
const NODE_LIMIT = 400_000;
/** Elements that are open at once. With more, looking for the one that is meant takes longer than all the rest. */
const OPEN_LIMIT = 100_000;

/** A page that is not worth, or not safe, to take apart. `code` says in what way; see Cause. */
export class PageTooLarge extends Error {
  override readonly name = 'PageTooLarge';
  constructor(readonly code: 'page-too-long' | 'page-too-deep' | 'page-too-many-parts') {
    super(code);
  }
}

/**
 * Parses a page as browsers do (WHATWG HTML, by parse5) and cuts the tree at a depth that recursion can
 * walk safely, so that hostile nesting ends in text instead of in a full stack.
 *
 * @throws PageTooLarge when the tree has more than 400,000 nodes, or more than 100,000 elements stand inside one another
 */
export function parsePage(html: string): PageDocument {
  const document = parse(html.replace(CLOSED_ANCHOR, '<a$1></a>'), {
    scriptingEnabled: false,
    treeAdapter: limitedAdapter(),
  });
  let nodes = 0;
  let level: PageParent[] = [document];
  for (let depth = 0; level.length > 0; depth++) {
    const below: PageElement[] = [];
    for (const { childNodes } of level) {
      nodes += childNodes.length;
      if (nodes > NODE_LIMIT) throw tooManyParts();
      for (const child of childNodes)
        if (isElement(child)) {
          if (depth < DEPTH_LIMIT) below.push(child);
          else flatten(child);
        }
    }
    level = below;
  }
  return document;
}

/**
 * `<a id="x"/>`, as XHTML writes it, never closes in HTML, and would wrap all that follows. Bounded, so that a hostile page
 * cannot make it look far.
 */
const CLOSED_ANCHOR = /<a(\s{1,4}(?:id|name)="[^"<>]{1,200}")\s{0,4}\/>/gi;

const tooManyParts = () => new PageTooLarge('page-too-many-parts');

/** parse5's own tree, of which the making ends where it would grow beyond the limits: afterwards would be too late. */
function limitedAdapter(): typeof defaultTreeAdapter {
  let made = 0;
  let open = 0;
  return {
    ...defaultTreeAdapter,
    createElement(...words) {
      if (++made > NODE_LIMIT) throw tooManyParts();
      return defaultTreeAdapter.createElement(...words);
    },
    onItemPush() {
      if (++open > OPEN_LIMIT) throw new PageTooLarge('page-too-deep');
    },
    onItemPop() {
      open--;
    },
  };
}

function flatten(element: PageElement): void {
  const texts: string[] = [];
  const open: PageNode[] = [...element.childNodes].reverse();
  for (let node = open.pop(); node; node = open.pop()) {
    if (isText(node)) texts.push(node.value);
    if (!isElement(node) || node.tagName === 'script' || node.tagName === 'style') continue;
    for (let at = node.childNodes.length - 1; at >= 0; at--) open.push(node.childNodes[at] as PageNode);
  }
  element.childNodes = [];
  defaultTreeAdapter.insertText(element, texts.join(' '));
}

const NUMBER_SIGN = 35;

export function isElement(node: PageNode): node is PageElement {
  // What is no element is called `#text`, `#comment` and so on (DOM standard, nodeName). Asked a million times a page.
  return node.nodeName.charCodeAt(0) !== NUMBER_SIGN;
}

export function isText(node: PageNode): node is DefaultTreeAdapterMap['textNode'] {
  return node.nodeName === '#text';
}

export function attribute(element: PageElement, name: string): string | undefined {
  for (const each of element.attrs) if (each.name === name) return each.value;
  return undefined;
}

/** True for a link that leads somewhere: an `a` without an address is only a place to lead to. */
export function isLink(element: PageElement): boolean {
  return element.tagName === 'a' && attribute(element, 'href') !== undefined;
}

/** The elements directly inside. */
export function elementsIn(parent: PageParent): PageElement[] {
  return parent.childNodes.filter(isElement);
}

/** Every element below `parent`, in document order. */
export function descendants(parent: PageParent): PageElement[] {
  const found: PageElement[] = [];
  const stack = reversedElements(parent);
  for (let element = stack.pop(); element; element = stack.pop()) {
    found.push(element);
    pushElements(element, stack);
  }
  return found;
}

/** The first element below `parent` in document order that is wanted. */
export function findElement(parent: PageParent, wanted: (element: PageElement) => boolean): PageElement | undefined {
  const stack = reversedElements(parent);
  for (let element = stack.pop(); element; element = stack.pop()) {
    if (wanted(element)) return element;
    pushElements(element, stack);
  }
  return undefined;
}

function reversedElements(parent: PageParent): PageElement[] {
  const stack: PageElement[] = [];
  pushElements(parent, stack);
  return stack;
}

/** The elements directly inside, the last one first. A stack, since recursion would cost a page's depth. */
function pushElements({ childNodes }: PageParent, stack: PageElement[]): void {
  for (let at = childNodes.length - 1; at >= 0; at--) {
    const child = childNodes[at];
    if (child && isElement(child)) stack.push(child);
  }
}

/** Elements whose text never shows. */
export const WITHOUT_TEXT = new Set(['script', 'style', 'noscript', 'template', 'svg', 'iframe', 'object']);

/** The text below a node, as it is, without what never shows. */
export function textContent(node: PageNode): string {
  if (isText(node)) return node.value;
  if (isElement(node) && WITHOUT_TEXT.has(node.tagName)) return '';
  return 'childNodes' in node ? node.childNodes.map(textContent).join('') : '';
}

/** The text below a node with a space between the texts of its elements: what stands in two boxes runs together otherwise. */
export function spacedText(node: PageNode): string {
  if (isText(node)) return node.value;
  if (isElement(node) && WITHOUT_TEXT.has(node.tagName)) return '';
  return 'childNodes' in node ? node.childNodes.map(spacedText).join(' ') : '';
}

/**
 * The beginning of the text below a node, tidied. Asking for no more than is needed keeps the work of looking at many
 * nested elements in proportion to the page.
 *
 * @param most about how many characters are enough; a text that goes on comes out longer than this
 */
export function startOfText(node: PageNode, most: number): string {
  let text = '';
  const stack: PageNode[] = [node];
  for (let at = stack.pop(); at && text.length <= 2 * most; at = stack.pop()) {
    if (isText(at)) text += at.value;
    else if ('childNodes' in at && !(isElement(at) && WITHOUT_TEXT.has(at.tagName)))
      for (let child = at.childNodes.length - 1; child >= 0; child--) {
        const next = at.childNodes[child];
        if (next) stack.push(next);
      }
  }
  return tidy(text);
}

/** True for white space that an ASCII page has (WHATWG, ASCII whitespace), and for nothing at all. */
export function isBlank(text: string): boolean {
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code !== 32 && code !== 10 && code !== 9 && code !== 13 && code !== 12) return false;
  }
  return true;
}

const UNTIDY = /[\t\n\f\r\u200b\ufeff]| {2}/;

/** Text with its white space collapsed as a browser does outside `<pre>`. */
export function tidy(text: string): string {
  return (UNTIDY.test(text) ? text.replace(/[\t\n\f\r \u200b\ufeff]+/g, ' ') : text).trim();
}

export function remove(node: PageElement): void {
  defaultTreeAdapter.detachNode(node);
}

/** Class and id of an element as one lower-cased string, for evidence. */
export function label(element: PageElement): string {
  return written(element).toLowerCase();
}

/** The same with words apart that are written together by their capitals: `commentText` is `comment-text`. */
export function labelApart(element: PageElement): string {
  return written(element)
    .replace(/([a-z])([A-Z])/g, '$1-$2')
    .toLowerCase();
}

function written(element: PageElement): string {
  let classes = '';
  let id = '';
  for (const { name, value } of element.attrs)
    if (name === 'class') classes = value;
    else if (name === 'id') id = value;
  return `${classes} ${id}`.trim();
}
