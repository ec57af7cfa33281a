import { createRequire } from 'node:module';
import path from 'node:path';
import { constants, inflateSync } from 'node:zlib';
import type { PlacedPage, PlacedText } from '@dorvel/core/extract';
import type { Cause } from '@dorvel/core/model';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
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

/** What stands on a page that was scanned has at least so many pixels in all; what has fewer is a stamp or a sign. */
const LEAST_SCANNED = 200_000;
/** A page is drawn so wide, in pixels, on its shorter side (200 to the inch on A4), and no larger than that in all. */
const DRAWN_SIDE = 1700;
const MOST_DRAWN = 12_000_000;
/** One picture in it may have so many pixels. */
const MOST_PIXELS = 60_000_000;

/**
 * The pages of a PDF that was scanned, drawn one after the other, each as a JPEG file: however its pictures were packed, in however
 * many strips, and whichever way it is turned. Pages without pictures are left out.
 *
 * @param bytes of what readPdf has read
 * @param most of its first so many pages
 */
export async function scannedPages(bytes: Buffer, most: number): Promise<Buffer[]> {
  const { getDocument, OPS, ...options } = await openingOf(bytes);
  const loading = getDocument({ ...options, maxImageSize: MOST_PIXELS });
  const drawn: Buffer[] = [];
  try {
    const document = await loading.promise;
    for (let number = 1; number <= Math.min(document.numPages, most); number++) {
      const page = await document.getPage(number);
      try {
        if (pixelsOn(await page.getOperatorList(), OPS) >= LEAST_SCANNED) drawn.push(await drawnPage(document, page));
      } catch (_notDrawn) {
        // One that cannot be drawn is left out; where none is left, the item says that only pictures were there.
      }
      page.cleanup();
    }
  } finally {
    await loading.destroy();
  }
  return drawn;
}

/** How many pixels the pictures on a page have in all. */
function pixelsOn(
  { fnArray, argsArray }: { fnArray: readonly number[]; argsArray: readonly unknown[] },
  OPS: Readonly<Record<'paintImageXObject' | 'paintInlineImageXObject' | 'paintImageMaskXObject', number>>,
): number {
  const pictures = new Set<number>([OPS.paintImageXObject, OPS.paintInlineImageXObject, OPS.paintImageMaskXObject]);
  return fnArray.reduce((sum, operation, at) => {
    if (!pictures.has(operation)) return sum;
    const [first, width, height] = argsArray[at] as unknown[];
    const size = Sized.safeParse(typeof first === 'string' ? { width, height } : first).data;
    return sum + (size ? size.width * size.height : 0);
  }, 0);
}
const Sized = z.object({ width: z.number(), height: z.number() });

/** What pdfjs-dist brings for drawing in Node (@napi-rs/canvas), as far as it is needed here. */
interface CanvasFactory {
  create(width: number, height: number): { canvas: Canvas; context: unknown };
  destroy(made: object): void;
}
interface Canvas {
  toBuffer(type: 'image/jpeg', quality: number): Buffer;
}

async function drawnPage(document: PDFDocumentProxy, page: PDFPageProxy): Promise<Buffer> {
  const { width, height } = page.getViewport({ scale: 1 });
  const scale = Math.min(DRAWN_SIDE / Math.min(width, height), Math.sqrt(MOST_DRAWN / (width * height)));
  const viewport = page.getViewport({ scale });
  const factory = document.canvasFactory as CanvasFactory;
  const made = factory.create(Math.max(1, Math.round(viewport.width)), Math.max(1, Math.round(viewport.height)));
  // Its types are those of a browser.
  await page.render({ canvasContext: made.context as never, canvas: made.canvas as never, viewport }).promise;
  const file = made.canvas.toBuffer('image/jpeg', 88);
  factory.destroy(made);
  return file;
}

/** How a PDF is opened: without running anything that stands in it. */
async function openingOf(bytes: Buffer) {
  // Loaded when the first PDF comes: few threads ever need it.
  const { getDocument, OPS, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  // By the process's own folder: this is built into a file that lies elsewhere.
  const find = createRequire(path.join(process.cwd(), 'from.js'));
  return {
    ...{ getDocument, OPS },
    // Decoders for what scanners pack pages in: JBIG2, JPEG 2000.
    wasmUrl: `${path.dirname(find.resolve('pdfjs-dist/package.json'))}/wasm/`,
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    verbosity: VerbosityLevel.ERRORS,
  };
}

/** The placed text of a PDF's pages, by pdfjs-dist. Scripts and forms in it are never run. */
export async function readPdf(bytes: Buffer): Promise<Pdf> {
  if (!unpacksWithinBounds(bytes)) return { ok: false, cause: { code: 'pdf-too-large' } };
  const { getDocument, OPS: _OPS, ...options } = await openingOf(bytes);
  const loading = getDocument(options);
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
