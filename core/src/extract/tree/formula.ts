import type { Element, ElementContent } from 'hast';
import { MATHML_ELEMENTS, TREE_SCHEMA } from '../../model';
import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  isElement,
  isText,
  label,
  type PageElement,
  remove,
  textContent,
  tidy,
} from '../page/page-tree';
import { element } from './phrases';

const PRESENTATION = new Set(MATHML_ELEMENTS);

/** A formula as MathML where the page has it, its TeX source beside it; as its TeX source where there is only that. */
export function formula(node: PageElement): ElementContent[] {
  const source = texOf(node) ?? attribute(node, 'alttext');
  const children = node.childNodes.flatMap((child) => (isElement(child) ? presentation(child) : []));
  if (children.length > 0) {
    const properties = attributesOf(node);
    if (source) properties.alttext = source.slice(0, 2000);
    return [element('math', children, properties)];
  }
  const value = source ?? tidy(textContent(node));
  return value ? [element('code', [{ type: 'text', value }])] : [];
}

function texOf(math: PageElement): string | undefined {
  const source = findElement(
    math,
    (each) => each.tagName === 'annotation' && /tex/i.test(attribute(each, 'encoding') ?? ''),
  );
  return source && tidy(textContent(source));
}

function presentation(node: PageElement): ElementContent[] {
  if (node.tagName.startsWith('annotation')) return [];
  const isLeaf = /^m(?:i|n|o|s|text)$/.test(node.tagName);
  const children = node.childNodes.flatMap((child): ElementContent[] => {
    if (isElement(child)) return isLeaf ? [] : presentation(child);
    const value = isLeaf && isText(child) ? tidy(child.value) : '';
    return value === '' ? [] : [{ type: 'text', value }];
  });
  // `semantics` and what else is not presentation stands for what is in it.
  return PRESENTATION.has(node.tagName) ? [element(node.tagName, children, attributesOf(node))] : children;
}

function attributesOf(node: PageElement): Element['properties'] {
  const allowed = (TREE_SCHEMA.attributes?.[node.tagName] ?? []).map((each) =>
    typeof each === 'string' ? each : each[0],
  );
  return Object.fromEntries(
    node.attrs.filter(({ name }) => allowed.includes(name)).map(({ name, value }) => [name, value]),
  );
}

/**
 * Brings out the formulas that a page hides behind a picture or a rendering of its own: MathML that is there for
 * screen readers only, and TeX in script elements.
 */
export function restoreFormulas(body: PageElement): void {
  for (const node of descendants(body)) {
    if (node.tagName === 'math') showFormula(node);
    if (node.tagName === 'script' && /^math\/tex/i.test(attribute(node, 'type') ?? '')) {
      const drawn = node.parentNode && elementsIn(node.parentNode);
      const before = drawn?.[drawn.indexOf(node) - 1];
      if (before && label(before).includes('mathjax')) remove(before);
      node.tagName = 'code';
      node.nodeName = 'code';
      node.attrs = [];
    }
  }
}

/** How far up a formula may be hidden, or have its picture beside it. */
const HIDDEN_UP_TO = 3;
const MAX_BESIDE = 40;

function showFormula(math: PageElement): void {
  let at: PageElement = math;
  for (let up = 0; up < HIDDEN_UP_TO; up++) {
    const parent = at.parentNode;
    if (!parent || !isElement(parent) || /^(?:p|div|li|td|body|section|article)$/.test(parent.tagName)) return;
    parent.attrs = parent.attrs.filter(
      ({ name, value }) => !(name === 'hidden' || (name === 'style' && /display\s*:\s*none/i.test(value))),
    );
    // What stands beside a formula is its picture; in a long row of formulas there is none to look for.
    for (const beside of parent.childNodes.length > MAX_BESIDE ? [] : elementsIn(parent))
      if (beside !== at && /math|tex|fallback|katex-html/.test(label(beside)) && !holdsMath(beside)) remove(beside);
    at = parent;
  }
}

function holdsMath(element: PageElement): boolean {
  return findElement(element, (each) => each.tagName === 'math') !== undefined;
}
