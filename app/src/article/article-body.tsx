import { cardWords } from '@dorvel/core/model';
import { isRightToLeft } from '@dorvel/core/text';
import type { Root } from 'hast';
import { toJsxRuntime } from 'hast-util-to-jsx-runtime';
import {
  type ComponentProps,
  createContext,
  createElement,
  memo,
  type MouseEvent,
  type ReactElement,
  type Ref,
  use,
  useState,
} from 'react';
// React's own runtime: the clean text has no NativeWind classes in it.
import { Fragment, jsx, jsxs } from 'react/jsx-runtime';
import type { InParts } from './progressive-rendering';
import { TableFrame } from './table-frame';

/** What pressing a part of the text opens. Without it, a picture is only seen, and a note's mark leads to the note. */
export const ArticlePresses = createContext<{
  openFootnote(id: string): void;
  /** Called before a link leads to another place in the text. */
  leave(): void;
  openPicture(picture: { src: string; alt: string }): void;
} | null>(null);

/** A piece of a picture: left, top, width and height in thousandths of the picture's. */
export type Piece = readonly [left: number, top: number, width: number, height: number];

/** Pieces of pictures to be outlined, by the address of the picture. */
export const PiecesOutlined = createContext<ReadonlyMap<string, readonly Piece[]>>(new Map());

interface ArticleBodyProps {
  /** The text in the parts that are to be set by now; see readyTree. */
  parts: InParts['parts'];
  language: string | null;
  style: Record<string, string>;
  ref: Ref<HTMLDivElement>;
}

/** The clean text as real elements. */
export function ArticleBody({ parts, language, style, ref }: ArticleBodyProps) {
  return (
    <div
      ref={ref}
      className="article"
      style={style}
      lang={language ?? undefined}
      dir={isRightToLeft(language) ? 'rtl' : 'ltr'}
    >
      {parts.map((blocks, at) => (
        <Part key={at} blocks={blocks} />
      ))}
    </div>
  );
}

const Part = memo(function Part({ blocks }: { blocks: InParts['parts'][number] }) {
  return asElements({ type: 'root', children: [...blocks] });
});

/** A clean tree as React elements. */
export function asElements(tree: Root): ReactElement {
  return toJsxRuntime(tree, {
    Fragment,
    jsx,
    jsxs,
    components: { a: Link, img: Picture, math: Formula, pre: Code, table: TableFrame },
  }) as ReactElement;
}

function Code(props: ComponentProps<'pre'>) {
  // Lines longer than the page scroll in their frame, by keyboard too.
  // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
  return <pre {...props} tabIndex={0} />;
}

type LinkProps = ComponentProps<'a'> & { 'data-card'?: string };

function Link({ children, href, title, 'data-card': dataCard, ...rest }: LinkProps) {
  if (dataCard !== undefined)
    return (
      <a {...rest} href={href} className="card" target="_blank" rel="noreferrer noopener">
        {children}
        <span className="card-words">{cardWords({ dataCard, title, href })}</span>
      </a>
    );
  if (href?.startsWith('#'))
    return (
      <InsideLink {...rest} href={href}>
        {children}
      </InsideLink>
    );
  return (
    <a {...rest} href={href} title={title} target="_blank" rel="noreferrer noopener">
      {children}
    </a>
  );
}

/** A raised mark opens its note over the text; any other link inside the text leads there. */
function InsideLink({ children, href, ...rest }: ComponentProps<'a'> & { href: string }) {
  const presses = use(ArticlePresses);
  const pressed = (event: MouseEvent<HTMLAnchorElement>) => {
    event.preventDefault();
    const link = event.currentTarget;
    const article = link.closest<HTMLElement>('.article');
    if (presses && link.closest('sup')) presses.openFootnote(href.slice(1));
    else if (article) goInside(article, href.slice(1), presses?.leave);
  };
  return (
    <a {...rest} href={href} onClick={pressed}>
      {children}
    </a>
  );
}

/**
 * To a place inside the scrolled text; the address of the screen stays.
 *
 * @param leave called when there is such a place, before going there
 */
export function goInside(article: HTMLElement, id: string, leave: (() => void) | undefined): void {
  const target = article.querySelector<HTMLElement>(`#${CSS.escape(id)}`);
  if (!target) return;
  leave?.();
  target.scrollIntoView({ block: 'center' });
  target.tabIndex = -1;
  target.focus({ preventScroll: true });
}

function Picture({ alt, src, 'data-linked': linked, ...rest }: ComponentProps<'img'> & { 'data-linked'?: unknown }) {
  const presses = use(ArticlePresses);
  const pieces = use(PiecesOutlined).get(src ?? '');
  const [failed, setFailed] = useState(false);
  if (!src) return <MissingPicture says="A picture that did not come through" alt={alt} />;
  if (failed)
    return <MissingPicture says="A picture that is not here now" alt={alt} onAgain={() => setFailed(false)} />;
  const picture = <img {...rest} src={src} alt={alt ?? ''} decoding="async" onError={() => setFailed(true)} />;
  if (!presses || linked !== undefined) return picture;
  return (
    <span className="picture">
      {picture}
      {pieces?.map(([left, top, width, height]) => (
        <span
          key={`${left} ${top}`}
          className="piece-outlined"
          style={{ left: `${left / 10}%`, top: `${top / 10}%`, width: `${width / 10}%`, height: `${height / 10}%` }}
        />
      ))}
      <button
        type="button"
        className="enlarge"
        aria-label={alt ? `Enlarge: ${alt}` : 'Enlarge the picture'}
        onClick={() => presses.openPicture({ src, alt: alt ?? '' })}
      />
    </span>
  );
}

function MissingPicture({ says, alt, onAgain }: { says: string; alt: string | undefined; onAgain?(): void }) {
  return (
    <span className="picture-missing">
      <span className="what">
        {says}
        {alt ? <span className="described">: {alt}</span> : null}
      </span>
      {onAgain && (
        <button type="button" onClick={onAgain}>
          Try again
        </button>
      )}
    </span>
  );
}

function Formula(props: ComponentProps<'div'> & { display?: string }) {
  const formula = createElement('math', props);
  if (props.display !== 'block') return formula;
  return (
    // A formula wider than the page scrolls in its frame, by keyboard too.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
    <span className="formula-frame" role="group" aria-label="Formula" tabIndex={0}>
      {formula}
    </span>
  );
}
