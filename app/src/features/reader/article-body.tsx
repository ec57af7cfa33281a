import { TREE_SCHEMA, type ArticleTree } from '@dorvel/core/model';
import { isRightToLeft, plainText } from '@dorvel/core/text';
import type { Element, Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import { toJsxRuntime } from 'hast-util-to-jsx-runtime';
import { memo, type ComponentProps, type ReactElement, type Ref } from 'react';
// React's own runtime: the clean text has no NativeWind classes in it.
import { Fragment, jsx, jsxs } from 'react/jsx-runtime';

interface ArticleBodyProps {
  tree: ArticleTree;
  language: string | null;
  style: Record<string, string>;
  ref: Ref<HTMLDivElement>;
}

/** The clean text as real elements. Each leaf block carries the offset of its first character as `data-start`. */
export const ArticleBody = memo(function ArticleBody({ tree, language, style, ref }: ArticleBodyProps) {
  const content = toJsxRuntime(withOffsets(tree), {
    Fragment,
    jsx,
    jsxs,
    components: { a: Link, img: Picture, pre: Code, table: TableFrame },
  }) as ReactElement;
  return (
    <div
      ref={ref}
      className="article"
      style={style}
      lang={language ?? undefined}
      dir={isRightToLeft(language) ? 'rtl' : 'ltr'}
    >
      {content}
    </div>
  );
});

/** Marks the leaf blocks; sanitised once more, because what comes from a store is input too. */
function withOffsets(tree: ArticleTree): Root {
  const clean = sanitize(tree, TREE_SCHEMA) as Root;
  const { blocks, text } = plainText(clean);
  for (const { element, start } of blocks) element.properties.dataStart = start;
  dropRepeatedDescriptions(clean, text);
  return clean;
}

/** A description that the caption says as well would be heard twice. */
function dropRepeatedDescriptions(node: Root | Element, text: string): void {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (
      child.tagName === 'img' &&
      typeof child.properties.alt === 'string' &&
      text.includes(child.properties.alt)
    )
      child.properties.alt = '';
    dropRepeatedDescriptions(child, text);
  }
}

function Code({ node: _node, ...rest }: ComponentProps<'pre'> & { node?: Element | undefined }) {
  // Lines longer than the page scroll in their frame, by keyboard too.
  // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
  return <pre {...rest} tabIndex={0} />;
}

function Link({ children, node: _node, ...rest }: ComponentProps<'a'> & { node?: Element | undefined }) {
  return (
    <a {...rest} target="_blank" rel="noreferrer noopener">
      {children}
    </a>
  );
}

function Picture({ node: _node, alt, src, ...rest }: ComponentProps<'img'> & { node?: Element | undefined }) {
  if (!src)
    return (
      <span className="picture-missing">
        {alt ? `A picture that did not come through: ${alt}` : 'A picture that did not come through.'}
      </span>
    );
  return <img {...rest} src={src} alt={alt ?? ''} decoding="async" />;
}

function TableFrame({ node: _node, ...rest }: ComponentProps<'table'> & { node?: Element | undefined }) {
  return (
    // A table wider than the page scrolls in its frame, by keyboard too.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
    <div className="table-frame" role="group" aria-label="Table" tabIndex={0}>
      <table {...rest} />
    </div>
  );
}
