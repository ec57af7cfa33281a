import { measureLine, PHRASES } from '../page/measure';
import {
  isBlank,
  isElement,
  isLink,
  isText,
  type PageElement,
  type PageNode,
  tidy,
  WITHOUT_TEXT,
} from '../page/page-tree';

type TextNode = Extract<PageNode, { value: string }>;

/** A run of phrasing inside one block, as it stands on a page: a paragraph, an entry, a label, a row of links. */
export interface PageLine {
  /** The block that it stands in directly. */
  block: PageElement;
  /** Its pieces in the page's tree. */
  pieces: TextNode[];
  text: string;
  /** Characters that are links. */
  links: number;
  /** Characters of prose; see measure. */
  prose: number;
}

/** Some of the lines of a page: the first of them, and the one behind the last. */
export interface Range {
  from: number;
  to: number;
}

export interface PageLines {
  lines: PageLine[];
  /** Of every block, which lines are in it. */
  ranges: Map<PageElement, Range>;
}

/** What is never text, whatever stands in it. */
const NEVER_TEXT = new Set([...WITHOUT_TEXT, ...'select option textarea button link meta base dialog nav'.split(' ')]);

/** All lines of an element, in their order. */
export function linesOf(root: PageElement): PageLines {
  const gathering = new Gathering();
  gathering.block(root, false);
  return gathering;
}

class Gathering implements PageLines {
  readonly lines: PageLine[] = [];
  readonly ranges = new Map<PageElement, Range>();
  private pieces: TextNode[] = [];
  private text = '';
  private links = 0;

  block(element: PageElement, linked: boolean): void {
    const from = this.lines.length;
    for (const child of element.childNodes) this.gather(child, element, linked);
    this.end(element);
    this.ranges.set(element, { from, to: this.lines.length });
  }

  private gather(node: PageNode, block: PageElement, linked: boolean): void {
    if (isText(node)) {
      this.pieces.push(node);
      if (this.text !== '' || !isBlank(node.value)) this.text += node.value;
      if (linked) this.links += node.value.trim().length;
      return;
    }
    if (!isElement(node) || NEVER_TEXT.has(node.tagName)) return;
    if (node.tagName === 'br') this.text += '\n';
    else if (node.tagName === 'math' || PHRASES.has(node.tagName)) {
      const inLink = linked || isLink(node);
      for (const child of node.childNodes) this.gather(child, block, inLink);
    } else if (FORMULA.has(node.namespaceURI)) for (const child of node.childNodes) this.gather(child, block, linked);
    else {
      this.end(block);
      this.block(node, linked || isLink(node));
    }
  }

  private end(block: PageElement): void {
    const text = this.text === '' ? '' : tidy(this.text);
    if (text !== '') {
      const { prose } = measureLine(text, this.links, block.tagName);
      this.lines.push({ block, pieces: this.pieces, text, links: this.links, prose });
    }
    if (this.pieces.length > 0) this.pieces = [];
    this.text = '';
    this.links = 0;
  }
}

const FORMULA: ReadonlySet<string> = new Set(['http://www.w3.org/1998/Math/MathML']);
