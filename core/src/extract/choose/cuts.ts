import { isElement, type PageElement, type PageNode } from '../page/page-tree';

/** What is taken out of a page's tree, so that it can be put back. */
export class Cuts {
  private readonly before: [PageElement, PageElement['childNodes']][] = [];
  /** What was taken out, and why. */
  readonly taken = new Map<PageElement, 'around' | 'box'>();

  /** Takes elements out of their parent: all at once, or thousands of siblings would cost the square of their number. */
  take(parent: PageElement, gone: ReadonlySet<PageNode>, why: 'around' | 'box'): void {
    if (gone.size === 0) return;
    this.before.push([parent, parent.childNodes]);
    parent.childNodes = parent.childNodes.filter((node) => !gone.has(node));
    for (const node of gone) if (isElement(node)) this.taken.set(node, why);
  }

  /** Puts all back where it was. */
  undo(): void {
    for (const [parent, nodes] of this.before.reverse()) parent.childNodes = nodes;
    this.before.length = 0;
  }
}
