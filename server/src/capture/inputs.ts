import {
  type Article,
  articleOfTree,
  extractArticle,
  givenPictures,
  layoutToTree,
  markdownToPage,
  PageTooLarge,
} from '@dorvel/core/extract';
import { type Cause, type HowMuch, MAX_PICTURES } from '@dorvel/core/model';
import { figureOf } from '@dorvel/core/picture';
import { fileTypeFromBuffer } from 'file-type';
import { decodePage, isMarkdown, mediaTypeOf } from './decode';
import { readEpub } from './epub';
import { type Attached, readMime } from './mime';
import { readPdf, scannedPages } from './pdf';

/** What came from an address, from a file, or from the reader's hand. */
export interface Input {
  body: Uint8Array;
  /** As declared; bytes that say otherwise are believed more. */
  contentType: string;
  /** Where it is from, for relative addresses. */
  url: string;
  howMuch: HowMuch;
}

export type Taken = { ok: true; article: Article; attached: Attached[] } | { ok: false; cause: Cause };

/**
 * Makes an article of whatever was fetched or given: a page, a page saved with its pictures (MHTML), a letter, a PDF,
 * Markdown, plain text, or a picture.
 */
export async function articleFrom(input: Input): Promise<Taken> {
  try {
    return await take(input);
  } catch (error) {
    if (error instanceof PageTooLarge) return { ok: false, cause: { code: error.code } };
    throw error;
  }
}

async function take({ body, contentType, url, howMuch }: Input): Promise<Taken> {
  const bytes = Buffer.from(body);
  const { type: kind } = mediaTypeOf(contentType);
  const seen = (await fileTypeFromBuffer(bytes))?.mime;
  if (startsWith(bytes, '%PDF-')) return takePdf(bytes, url);
  if (PICTURES.has(seen ?? '') || kind === 'image/svg+xml') return takePicture(bytes, url);
  // Formats of cameras that few programs can read.
  if (seen?.startsWith('image/hei')) return { ok: false, cause: { code: 'picture-not-read' } };
  if (seen === 'application/epub+zip') return takeEpub(bytes, url);
  if (kind === 'message/rfc822' || kind === 'multipart/related' || looksLikeMime(bytes))
    return takeMime(bytes, url, howMuch);
  const decoded = decodePage(bytes, contentType);
  if (!decoded.ok) return decoded;
  if (howMuch === 'picture' && isOfPictures(decoded.html))
    return { ok: true, article: givenPictures(decoded.html, url), attached: [] };
  if (isMarkdown(kind, url)) return takeMarkdown(decoded.text, url, howMuch);
  return { ok: true, article: extractArticle(decoded.html, url, howMuch), attached: [] };
}

function startsWith(bytes: Buffer, text: string): boolean {
  return bytes.subarray(0, 1024).toString('latin1').trimStart().startsWith(text);
}

/** The raster formats that browsers show (WHATWG MIME Sniffing, 6.1). */
const PICTURES = new Set([
  'image/png',
  'image/jpeg',
  'image/gif',
  'image/webp',
  'image/bmp',
  'image/apng',
  'image/avif',
]);

/** Saved pages and letters begin with header lines, among them the version of MIME (RFC 2045). */
function looksLikeMime(bytes: Buffer): boolean {
  const start = bytes.subarray(0, 4096).toString('latin1');
  return /^[\w-]+:[^\n]*\r?\n/.test(start) && /^MIME-Version:/im.test(start) && /^Content-Type:/im.test(start);
}

/** What a device or the extension made of pictures says so in its first element. */
const isOfPictures = (html: string) => /^\s*<title>[^<]*<\/title>\s*<figure>/.test(html);

async function takePdf(bytes: Buffer, url: string): Promise<Taken> {
  const document = await readPdf(bytes);
  if (!document.ok) return document;
  const tree = layoutToTree(document.pages);
  const first = tree.children.find((block) => block.type === 'element' && /^h[1-4]$/.test(block.tagName));
  const heading = first?.type === 'element' && first.children[0]?.type === 'text' ? first.children[0].value : null;
  // A title that the writing program made up from a file's name says less than the heading on the page.
  const stated = document.title && !/\.(?:docx?|tex|indd|pdf|html?)$|^untitled/i.test(document.title);
  const title = (stated ? document.title : heading) ?? document.title ?? fileName(url);
  if (heading === title) tree.children.splice(tree.children.indexOf(first as never), 1);
  const article = articleOfTree(tree, title, document.author ? [document.author] : []);
  const scans = article.wordCount === 0 ? await scannedPages(bytes, MAX_PICTURES) : [];
  if (scans.length > 0) return { ok: true, ...ofScans(scans, title, url, document.createdAt) };
  return {
    ok: true,
    article: {
      ...article,
      publishedAt: document.createdAt,
      cameThrough:
        article.wordCount === 0 ? { verdict: 'failed', signs: [{ code: 'only-pictures' }] } : article.cameThrough,
    },
    attached: [],
  };
}

/** The pages of a scanned document as pictures, whose words are read afterwards. */
function ofScans(scans: readonly Buffer[], title: string, url: string, publishedAt: string | null) {
  const attached = scans.map((body, n): Attached => ({ address: `${url.replace(/#.*/, '')}#page-${n + 1}`, body }));
  const figures = attached.map(({ address }, n) => figureOf({ src: address, alt: `Page ${n + 1}` }));
  const article = articleOfTree({ type: 'root', children: figures }, title);
  return { article: { ...article, publishedAt, leadImageUrl: attached[0]?.address ?? null }, attached };
}

function takePicture(bytes: Buffer, url: string): Taken {
  const name = fileName(url);
  const article = articleOfTree({ type: 'root', children: [figureOf({ src: url, alt: name })] }, name);
  return { ok: true, article: { ...article, leadImageUrl: url }, attached: [{ address: url, body: bytes }] };
}

async function takeMime(bytes: Buffer, url: string, howMuch: HowMuch): Promise<Taken> {
  const read = await readMime(bytes, url);
  if (!read.ok) return read;
  const { html, address, attached, letter } = read;
  const article = extractArticle(html, address, howMuch);
  if (!letter) return { ok: true, article, attached };
  return {
    ok: true,
    article: {
      ...article,
      title: letter.subject ?? article.title,
      authors: letter.from.length > 0 ? letter.from : article.authors,
      siteName: letter.site ?? article.siteName,
      publishedAt: letter.date ?? article.publishedAt,
    },
    attached,
  };
}

/** All of a book is its text: there is no page around it to be told from. */
function takeEpub(bytes: Buffer, url: string): Taken {
  const book = readEpub(bytes);
  if (!book.ok) return book;
  const { html, about, attached } = book;
  const article = extractArticle(html, url, 'whole-page');
  return {
    ok: true,
    article: {
      ...article,
      title: about.title ?? fileName(url),
      authors: about.authors,
      language: about.language ?? article.language,
      publishedAt: about.publishedAt,
    },
    attached,
  };
}

function takeMarkdown(text: string, url: string, howMuch: HowMuch): Taken {
  const { title, html } = markdownToPage(text, fileName(url));
  const article = extractArticle(html, url, howMuch === 'whole-page' ? 'words-and-pictures' : howMuch);
  return { ok: true, article: { ...article, title }, attached: [] };
}

function fileName(url: string): string {
  const last = URL.canParse(url) ? (new URL(url).pathname.split('/').at(-1) ?? '') : '';
  try {
    return decodeURIComponent(last) || url;
  } catch {
    // A stray percent sign: the name is meant as it stands.
    return last;
  }
}
