import { type AnyNode, type Document, DomHandler, type Element, hasChildren, isTag, isText } from 'domhandler';
import { getElementsByTagName } from 'domutils';
import { Parser, type ParserOptions } from 'htmlparser2';

/** Deeper than any feed, list or book. The parser looks through all open elements at each one that it opens. */
const DEEPEST = 30_000;

class TooDeep extends Error {
  override readonly name = 'TooDeep';
}

class LimitedHandler extends DomHandler {
  #depth = 0;
  override onopentag(name: string, attributes: Record<string, string>): void {
    if (++this.#depth > DEEPEST) throw new TooDeep(`nested deeper than ${DEEPEST} elements`);
    super.onopentag(name, attributes);
  }
  override onclosetag(): void {
    this.#depth--;
    super.onclosetag();
  }
}

/** @throws TooDeep */
function parse(source: string, options: ParserOptions): Document {
  const handler = new LimitedHandler();
  new Parser(handler, options).end(source);
  return handler.root;
}

/** XHTML with the named characters of HTML. @throws TooDeep */
export function parseBookHtml(source: string): Document {
  return parse(source, { recognizeSelfClosing: true });
}

/** HTML that is read for a few things only, without the rules of browsers. @throws TooDeep */
export function parseLooseHtml(source: string): Document {
  return parse(source, {});
}

/**
 * An XML document, read leniently: what is ill-formed gives what can be made of it. Entities that a document
 * defines itself are not expanded, so that none can be made to grow.
 *
 * @throws TooDeep for one that is nested deeper than 30,000 elements
 */
export function parseXml(source: string): Document {
  return parse(source.replace(/^\uFEFF/, ''), { xmlMode: true, decodeEntities: true });
}

export function elementsIn(parent: Element | Document): Element[] {
  return parent.children.filter(isTag);
}

/** The children of a name, which is in lower case and has its usual prefix. */
export function childrenOf(parent: Element | Document, name: string): Element[] {
  return elementsIn(parent).filter((each) => each.name.toLowerCase() === name);
}

/** The elements of a name at any depth. */
export function within(parent: Element, name: string): Element[] {
  return getElementsByTagName((each) => each.toLowerCase() === name, parent.children, true);
}

/** The first child of the first of the names that there is. */
export function childOf(parent: Element | Document, ...names: string[]): Element | undefined {
  for (const name of names) {
    const [found] = childrenOf(parent, name);
    if (found) return found;
  }
  return undefined;
}

/** An attribute, whatever the case of its name; null when it is missing or empty. */
export function attributeOf(element: Element, name: string): string | null {
  const found = Object.entries(element.attribs).find(([each]) => each.toLowerCase() === name);
  return filled(found?.[1].trim());
}

/** The text of an element and of all in it, trimmed; null when there is none. */
export function xmlText(element: Element | undefined): string | null {
  return filled(element && textsIn([element], () => '').trim());
}

const UNSEEN = /^(?:script|style|template|noscript)$/;
const BLOCK = /^(?:p|div|br|li|h[1-6]|tr|td|th|dt|dd|blockquote|figure|figcaption|pre|hr)$/;

/** What a fragment of HTML says in plain words, on one line. */
export function wordsOfHtml(html: string): string {
  const between = ({ name }: Element) => (UNSEEN.test(name) ? null : BLOCK.test(name) ? ' ' : '');
  return oneLine(textsIn(parseLooseHtml(html).children, between));
}

/**
 * The texts in nodes, one after the other. With a stack of its own: a document can be nested deeper than calls may be.
 *
 * @param before what stands before the text of an element; null leaves it out
 */
function textsIn(nodes: readonly AnyNode[], before: (element: Element) => string | null): string {
  const texts: string[] = [];
  const open = [...nodes].reverse();
  for (let node = open.pop(); node; node = open.pop()) {
    if (isText(node)) texts.push(node.data);
    const mark = isTag(node) ? before(node) : '';
    if (mark === null || !hasChildren(node)) continue;
    texts.push(mark);
    open.push(...[...node.children].reverse());
  }
  return texts.join('');
}

/** A text that says something; null otherwise. */
export function filled(text: string | null | undefined): string | null {
  return text === undefined || text === '' ? null : text;
}

export function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}
