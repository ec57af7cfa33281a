import render from 'dom-serializer';
import { getElementsByTagName } from 'domutils';
import { parseBookHtml } from './xml';

/**
 * What is between the body tags of a book's document, as HTML, its pictures by their whole addresses. Books are written in
 * XHTML, in which an element may close itself (EPUB 3.3, 6.1.1).
 *
 * @param url the document's
 * @throws TooDeep
 */
export function chapterBody(markup: string, url: string): string {
  const document = parseBookHtml(markup);
  const [body] = getElementsByTagName('body', document, true, 1);
  for (const image of getElementsByTagName((name) => name === 'img' || name === 'image', document, true))
    for (const name of ['src', 'xlink:href']) {
      const source = image.attribs[name];
      if (source !== undefined && URL.canParse(source, url)) image.attribs[name] = new URL(source, url).href;
    }
  return render(body?.children ?? document.children, { encodeEntities: 'utf8' });
}
