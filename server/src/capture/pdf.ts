import { constants, inflateSync } from 'node:zlib';
import type { PlacedPage, PlacedText } from '@dorvel/core/extract';
import type { Cause } from '@dorvel/core/model';
import { z } from 'zod';

type Pdf =
  | {
      ok: true;
      pages: PlacedPage[];
      title: string | null;
      author: string | null;
      /** ISO 8601. */
      createdAt: string | null;
    }
  | { ok: false; cause: Cause };

/** So many pages are a book, and more than a page's worth of text. */
const MAX_PAGES = 400;

const Info = z.object({
  Title: z.string().trim().min(1).optional().catch(undefined),
  Author: z.string().trim().min(1).optional().catch(undefined),
  CreationDate: z.string().optional().catch(undefined),
});
const Run = z.object({
  str: z.string(),
  width: z.number(),
  /** a, b, c, d, x, y of the text matrix (ISO 32000-1, 9.4.4). */
  transform: z.array(z.number()).length(6),
});

/** What one stream of a PDF may grow to, and all of them together. A page's text is a thousandth of it. */
const STREAM_LIMIT = 32_000_000;
const ALL_STREAMS_LIMIT = 160_000_000;
/** How much of what stands before a stream may be its dictionary. */
const DICTIONARY_LENGTH = 1000;

/**
 * Whether the packed streams of a PDF (ISO 32000-1, 7.3.8 and 7.4.4) stay within bounds when they are unpacked. Pictures do
 * not count: for the text nobody unpacks them.
 */
function unpacksWithinBounds(bytes: Buffer): boolean {
  let left = ALL_STREAMS_LIMIT;
  for (let at = bytes.indexOf('stream'); at !== -1; at = bytes.indexOf('stream', at + 6)) {
    if (bytes.toString('latin1', at - 3, at) === 'end') continue;
    const start = at + 'stream'.length + (bytes[at + 6] === 0x0d ? 2 : 1);
    // A zlib header (RFC 1950, 2.2).
    if (((bytes[start] ?? 0) & 0x0f) !== 8) continue;
    const before = bytes.toString('latin1', Math.max(0, at - DICTIONARY_LENGTH), at);
    const dictionary = before.slice(before.lastIndexOf(' obj') + 1);
    if (!dictionary.includes('/FlateDecode') || /\/Subtype\s*\/Image/.test(dictionary)) continue;
    const end = bytes.indexOf('endstream', start);
    try {
      const packed = bytes.subarray(start, end === -1 ? undefined : end);
      left -= inflateSync(packed, {
        maxOutputLength: STREAM_LIMIT,
        finishFlush: constants.Z_SYNC_FLUSH,
      }).length;
    } catch (error) {
      if (error instanceof RangeError) return false;
      // Damaged, or packed in another way: that is for the reader of the whole to say.
    }
    if (left < 0) return false;
  }
  return true;
}

/** A page that was scanned is not smaller than this; what is, is a stamp or a sign. */
const LEAST_SCAN = 8000;

/**
 * The pages of a PDF that was scanned, each as the JPEG file that it was put in as (ISO 32000-1, 7.4.8: DCTDecode), in the order of
 * the file. Pages that were packed in another way are not among them.
 *
 * @param most so many at most
 */
export function scannedPages(bytes: Buffer, most: number): Buffer[] {
  const found: Buffer[] = [];
  for (let at = bytes.indexOf('stream'); at !== -1 && found.length < most; at = bytes.indexOf('stream', at + 6)) {
    if (bytes.toString('latin1', at - 3, at) === 'end') continue;
    const before = bytes.toString('latin1', Math.max(0, at - DICTIONARY_LENGTH), at);
    const dictionary = before.slice(before.lastIndexOf(' obj') + 1);
    if (!/\/Subtype\s*\/Image/.test(dictionary) || !/\/Filter[\s[]*\/DCTDecode/.test(dictionary)) continue;
    const start = at + 'stream'.length + (bytes[at + 6] === 0x0d ? 2 : 1);
    const end = bytes.indexOf('endstream', start);
    const page = bytes.subarray(start, end === -1 ? undefined : end);
    if (page.length >= LEAST_SCAN && page[0] === 0xff && page[1] === 0xd8) found.push(page);
  }
  return found;
}

/** The placed text of a PDF's pages, by pdfjs-dist. Scripts and forms in it are never run. */
export async function readPdf(bytes: Buffer): Promise<Pdf> {
  if (!unpacksWithinBounds(bytes)) return { ok: false, cause: { code: 'pdf-too-large' } };
  // Loaded when the first PDF comes: few threads ever need it.
  const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const loading = getDocument({
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    verbosity: VerbosityLevel.ERRORS,
  });
  try {
    const document = await loading.promise;
    const info = Info.safeParse((await document.getMetadata()).info).data ?? {};
    const pages: PlacedPage[] = [];
    for (let number = 1; number <= Math.min(document.numPages, MAX_PAGES); number++) {
      const page = await document.getPage(number);
      const { width, height } = page.getViewport({ scale: 1 });
      const { items } = await page.getTextContent();
      pages.push({ width, height, items: items.flatMap(placed) });
      page.cleanup();
    }
    return {
      ok: true,
      pages,
      title: info.Title ?? null,
      author: info.Author ?? null,
      createdAt: pdfDate(info.CreationDate),
    };
  } catch (error) {
    const name = error instanceof Error ? error.name : '';
    if (name === 'PasswordException') return { ok: false, cause: { code: 'pdf-locked' } };
    if (/^(?:InvalidPDF|Format|MissingPDF|UnknownError)/.test(name))
      return { ok: false, cause: { code: 'pdf-damaged' } };
    throw error;
  } finally {
    await loading.destroy();
  }
}

function placed(item: unknown): PlacedText[] {
  const run = Run.safeParse(item);
  if (!run.success) return [];
  const [, b = 0, , d = 0, x = 0, y = 0] = run.data.transform;
  return [{ text: run.data.str, x, y, width: run.data.width, size: Math.hypot(b, d) }];
}

/** `D:20261103094500+01'00'` (ISO 32000-1, 7.9.4). */
function pdfDate(value: string | undefined): string | null {
  const [, year, month = '01', day = '01'] = /^D:(\d{4})(\d\d)?(\d\d)?/.exec(value ?? '') ?? [];
  return year === undefined ? null : `${year}-${month}-${day}`;
}
