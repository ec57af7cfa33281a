import type { Element, Root } from 'hast';
import { MAX_PICTURES } from '../../model';
import { type Article, articleOfTree } from '../article';
import { absolute } from '../metadata/metadata';
import {
  attribute,
  descendants,
  findElement,
  isElement,
  type PageElement,
  parsePage,
  textContent,
  tidy,
} from '../page/page-tree';
import { element } from '../tree/phrases';

/** Pictures that stand in the markup itself (RFC 2397), as a device sends those that it was given. */
const IN_PLACE = /^data:image\/(?:png|jpeg|gif|webp);base64,[A-Za-z0-9+/]+={0,2}$/;
const MAX_CAPTION = 1000;

/**
 * What is saved as pictures: a page of `figure`s, each with its picture and perhaps its caption, and after them in a `blockquote`
 * the lines between which it stood, with a link to the page that it is from.
 *
 * @param url for relative addresses
 */
export function givenPictures(html: string, url: string): Article {
  const document = parsePage(html);
  const all = descendants(document);
  const figures = all
    .filter(({ tagName }) => tagName === 'img')
    .slice(0, MAX_PICTURES)
    .flatMap((image) => figureOf(image, url) ?? []);
  const quote = findElement(document, ({ tagName }) => tagName === 'blockquote');
  const title = findElement(document, ({ tagName }) => tagName === 'title');
  const tree: Root = { type: 'root', children: [...figures, ...(quote ? quoted(quote, url) : [])] };
  const article = articleOfTree(tree, title ? tidy(textContent(title)) || null : null);
  return { ...article, leadImageUrl: sourceOf(figures[0]) };
}

function figureOf(image: PageElement, url: string): Element | null {
  const own = attribute(image, 'src') ?? '';
  const src = IN_PLACE.test(own) ? own : absolute(own, url);
  if (!src) return null;
  const figure = image.parentNode && isElement(image.parentNode) ? image.parentNode : null;
  const caption = figure && findElement(figure, ({ tagName }) => tagName === 'figcaption');
  const words = caption ? tidy(textContent(caption)).slice(0, MAX_CAPTION) : '';
  const picture = element('img', [], { src, alt: tidy(attribute(image, 'alt') ?? '').slice(0, MAX_CAPTION) });
  return element(
    'figure',
    words === '' ? [picture] : [picture, element('figcaption', [{ type: 'text', value: words }])],
  );
}

const sourceOf = (figure: Element | undefined): string | null => {
  const [image] = figure?.children ?? [];
  return image?.type === 'element' && typeof image.properties.src === 'string' ? image.properties.src : null;
};

/** The lines of the page, and where they are. */
function quoted(quote: PageElement, url: string): Element[] {
  const lines = descendants(quote)
    .filter(({ tagName }) => tagName === 'p')
    .slice(0, 5)
    .flatMap((line) => {
      const text = tidy(textContent(line)).slice(0, MAX_CAPTION);
      if (text === '') return [];
      const link = findElement(line, ({ tagName }) => tagName === 'a');
      const href = link ? absolute(attribute(link, 'href'), url) : null;
      const words = { type: 'text' as const, value: text };
      return [element('p', [href ? element('a', [words], { href }) : words])];
    });
  return lines.length === 0 ? [] : [element('blockquote', lines)];
}
