import type { ArticleTree } from '@dorvel/core/model';
import { type RefObject, useEffect } from 'react';

/** What is told apart by colour in code, by the names that highlight.js has for it. */
const SHADES: Readonly<Record<string, readonly string[]>> = {
  'code-word': ['hljs-keyword', 'hljs-built_in', 'hljs-literal', 'hljs-selector-tag', 'hljs-tag', 'hljs-name'],
  'code-text': ['hljs-string', 'hljs-regexp', 'hljs-symbol', 'hljs-meta-string'],
  'code-number': ['hljs-number', 'hljs-attr', 'hljs-attribute', 'hljs-variable'],
  'code-aside': ['hljs-comment', 'hljs-doctag', 'hljs-meta'],
  'code-title': ['hljs-title', 'hljs-type', 'hljs-class'],
};

interface ShadeNode {
  type: string;
  value?: string;
  properties?: { className?: unknown };
  children?: ShadeNode[];
}

/** Parts of a code with the shade that each is to have. */
function shadesOf(node: ShadeNode): { start: number; end: number; shade: string }[] {
  const found: { start: number; end: number; shade: string }[] = [];
  let at = 0;
  const visit = (each: ShadeNode, shade: string | null) => {
    if (each.type === 'text') {
      const start = at;
      at += each.value?.length ?? 0;
      if (shade) found.push({ start, end: at, shade });
      return;
    }
    const classes = Array.isArray(each.properties?.className) ? each.properties.className.map(String) : [];
    const own = Object.keys(SHADES).find((name) => classes.some((name_) => SHADES[name]?.includes(name_)));
    each.children?.forEach((child) => visit(child, own ?? shade));
  };
  visit(node, null);
  return found;
}

/**
 * Colours code by its language. The text itself stays as it is (CSS Custom Highlight API), so that places in it, and marks,
 * stand where they stood.
 *
 * @param shown how much of the text is set
 */
export function useCodeColours(article: RefObject<HTMLElement | null>, tree: ArticleTree, shown: number): void {
  useEffect(() => {
    const codes = [...(article.current?.querySelectorAll<HTMLElement>('pre > code[class^="language-"]') ?? [])];
    if (codes.length === 0 || !('highlights' in CSS)) return undefined;
    let wanted = true;
    void import('lowlight').then(({ common, createLowlight }) => {
      if (!wanted) return;
      const lowlight = createLowlight(common);
      const ranges = new Map<string, Range[]>();
      for (const code of codes) {
        const language = code.className.replace('language-', '');
        const text = code.firstChild;
        if (!lowlight.registered(language) || !(text instanceof Text)) continue;
        for (const { start, end, shade } of shadesOf(lowlight.highlight(language, text.data))) {
          const range = new Range();
          range.setStart(text, start);
          range.setEnd(text, end);
          ranges.set(shade, [...(ranges.get(shade) ?? []), range]);
        }
      }
      for (const [shade, all] of ranges) CSS.highlights.set(shade, new Highlight(...all));
    });
    return () => {
      wanted = false;
      for (const shade of Object.keys(SHADES)) CSS.highlights.delete(shade);
    };
  }, [article, tree, shown]);
}
