import { type BookPackage, chapterBody, packagePathOf, readBookPackage } from '@dorvel/core/formats';
import type { Cause } from '@dorvel/core/model';
import { type Unzipped, unzipSync } from 'fflate';
import type { Attached } from './mime';

type Book = { ok: true; html: string; about: BookPackage; attached: Attached[] } | { ok: false; cause: Cause };

/** Where the files of a book are thought to lie. Reserved by RFC 2606. */
const INSIDE = 'https://book.invalid/';
/** What a small archive may grow to: more is an attempt to fill the memory. */
const MAX_BYTES = 80_000_000;
const MAX_FILES = 3000;
const WANTED = /\.(?:xml|opf|x?html?|png|jpe?g|gif|webp|svg)$/i;

/** An e-book as one long page, with its pictures. */
export function readEpub(bytes: Buffer): Book {
  const files = unzip(bytes);
  if (!files.ok) return files;
  const textAt = (path: string) => {
    const file = files.unzipped[path];
    return file && Buffer.from(file).toString('utf8');
  };
  const packagePath = packagePathOf(textAt('META-INF/container.xml') ?? '');
  const source = packagePath === null ? undefined : textAt(packagePath);
  if (packagePath === null || source === undefined) return { ok: false, cause: { code: 'book-without-text' } };
  const about = readBookPackage(source);
  const base = INSIDE + packagePath;
  const chapters = about.chapters.flatMap((address) => {
    if (!URL.canParse(address, base)) return [];
    const url = new URL(address, base);
    const markup = textAt(decodeURIComponent(url.pathname.slice(1)));
    return markup === undefined ? [] : [chapterBody(markup, url.href)];
  });
  if (chapters.length === 0) return { ok: false, cause: { code: 'book-empty' } };
  const attached = Object.entries(files.unzipped).flatMap(([path, body]): Attached[] =>
    /\.(?:png|jpe?g|gif|webp)$/i.test(path)
      ? [{ address: new URL(encodeURI(path), INSIDE).href, body: Buffer.from(body) }]
      : [],
  );
  return { ok: true, html: `<body><article>${chapters.join('\n')}</article></body>`, about, attached };
}

function unzip(bytes: Buffer): { ok: true; unzipped: Unzipped } | { ok: false; cause: Cause } {
  const seen = { bytes: 0, files: 0 };
  const isTooMuch = () => seen.bytes > MAX_BYTES || seen.files > MAX_FILES;
  try {
    const unzipped = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!WANTED.test(name)) return false;
        seen.bytes += originalSize;
        seen.files += 1;
        return !isTooMuch();
      },
    });
    return isTooMuch() ? { ok: false, cause: { code: 'book-too-large' } } : { ok: true, unzipped };
  } catch (error) {
    return {
      ok: false,
      cause: { code: 'book-damaged' },
    };
  }
}
