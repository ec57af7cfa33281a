import escape from 'escape-html';
import { type BookPackage, chapterBody, packagePathOf, readBookPackage } from '../formats';
import { type Findings, type Found, UNSAID } from './found';
import { isPicture, withPicturesInside } from './inline-pictures';
import { decodedText, pathIn, unpacked } from './packed';

const INSIDE = 'https://book.invalid/';
/** A part of a book that says less is its title page, a dedication, or white. In characters of markup without its tags. */
const LEAST = 400;

/** The chapters of an e-book (EPUB 3.3), each a text of its own, in the order of reading; those that say hardly anything left out. */
export function chaptersOf(bytes: Uint8Array): Findings {
  const read = unpacked(bytes, (path) => /\.(?:xml|opf|x?html?)$/i.test(path) || isPicture(path));
  if (!read.ok) return { found: [], faults: [{ written: '', says: read.says }] };
  const { files } = read;
  const textAt = (path: string): string | null => (files[path] ? decodedText(files[path]) : null);
  const packagePath = packagePathOf(textAt('META-INF/container.xml') ?? '');
  const source = packagePath === null ? null : textAt(packagePath);
  if (packagePath === null || source === null)
    return { found: [], faults: [{ written: '', says: 'That e-book does not say what is in it.' }] };
  const book = readBookPackage(source);
  const pictureAt = (address: string) =>
    address.startsWith(INSIDE) ? files[pathIn(address.slice(INSIDE.length))] : undefined;
  const found = book.chapters.flatMap((written, n): Found[] => {
    if (!URL.canParse(written, INSIDE + packagePath)) return [];
    const url = new URL(written, INSIDE + packagePath);
    const markup = textAt(pathIn(url.pathname.slice(1)));
    if (markup === null) return [];
    const body = chapterBody(markup, url.href);
    const words = body.replace(/<[^>]*>/g, ' ').replace(/\s+/g, ' ');
    if (words.length < LEAST) return [];
    const heading = /<h[1-3]\b[^>]*>([\s\S]*?)<\/h[1-3]>/i
      .exec(body)?.[1]
      ?.replace(/<[^>]*>/g, ' ')
      .replace(/\s+/g, ' ')
      .trim();
    const title = [heading ? unescaped(heading) : `Part ${n + 1}`, book.title].filter(Boolean).join(' — ');
    const page = pageOf(title, book, withPicturesInside(body, url.href, pictureAt));
    return [{ ...UNSAID, title, text: { type: 'text/html', body: page, name: `${title}.html` } }];
  });
  return { found, faults: found.length > 0 ? [] : [{ written: '', says: 'There are no chapters in that e-book.' }] };
}

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: ' ' };
const unescaped = (markup: string): string =>
  markup.replace(/&(\w+);/g, (whole, name: string) => ENTITIES[name] ?? whole);

function pageOf(title: string, book: BookPackage, body: string): string {
  const said = [
    ...book.authors.map((author) => ['author', author] as const),
    ...(book.publishedAt ? [['article:published_time', book.publishedAt] as const] : []),
    ...(book.title ? [['og:site_name', book.title] as const] : []),
  ];
  const meta = said.map(
    ([name, value]) => `<meta ${name.includes(':') ? 'property' : 'name'}="${name}" content="${escape(value)}">`,
  );
  const lang = book.language ? ` lang="${escape(book.language)}"` : '';
  return `<!doctype html><html${lang}><head><meta charset="utf-8"><title>${escape(title)}</title>${meta.join('')}</head><body><article>${body}</article></body></html>`;
}
