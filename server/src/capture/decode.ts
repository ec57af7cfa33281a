import type { Cause } from '@dorvel/core/model';
import { parse } from 'content-type';
import escapeHtml from 'escape-html';
import sniffEncoding from 'html-encoding-sniffer';
import { decode, labelToName } from 'whatwg-encoding';

/** `text` as it was sent; `html` the same, with plain text in paragraphs. */
export type Decoded = { ok: true; text: string; html: string } | { ok: false; cause: Cause };

/**
 * A page's bytes as HTML. Encoding from BOM, header or meta (WHATWG Encoding; HTML 13.2.3.2). Plain text is
 * wrapped in paragraphs; anything that is no text is refused in words.
 */
export function decodePage(body: Buffer, contentType: string): Decoded {
  const { type: kind, charset } = mediaTypeOf(contentType);
  if (body.length === 0) return { ok: false, cause: { code: 'empty' } };
  const refused = notText(body, kind);
  if (refused) return { ok: false, cause: refused };
  const encoding = sniffEncoding(body, {
    ...(charset ? { transportLayerEncodingLabel: charset } : {}),
    defaultEncoding: looksLikeUtf8(body) ? 'UTF-8' : 'windows-1252',
  });
  const text = decode(body, encoding);
  if (text.trim() === '') return { ok: false, cause: { code: 'empty' } };
  return { ok: true, text, html: kind === 'text/plain' ? asParagraphs(text) : text };
}

/**
 * The bytes of an XML or JSON file as text. Encoding from BOM, header or XML declaration (XML 1.0, appendix F; RFC 7303);
 * UTF-8 where they say nothing and it is that, windows-1252 otherwise.
 */
export function decodeData(body: Buffer, contentType: string): string {
  const declared = /^\s*<\?xml[^>]*encoding\s*=\s*["']([\w.:-]+)["']/i.exec(
    body.subarray(0, 200).toString('latin1'),
  )?.[1];
  const { charset } = mediaTypeOf(contentType);
  const encoding = [charset, declared].map((label) => label && labelToName(label)).find(Boolean);
  return decode(body, encoding ?? (looksLikeUtf8(body) ? 'UTF-8' : 'windows-1252'));
}

/** Markdown by its type (RFC 7763), or plain text by the name of its file. */
export function isMarkdown(kind: string, url: string): boolean {
  return (
    kind === 'text/markdown' ||
    kind === 'text/x-markdown' ||
    (kind === 'text/plain' && /\.(?:md|markdown)(?:$|[?#])/i.test(url))
  );
}

const SIGNATURES: readonly [starts: string, what: string][] = [
  ['504b0304', 'a ZIP file'],
  ['25504446', 'a PDF document'],
  ['89504e47', 'a picture'],
  ['ffd8ff', 'a picture'],
  ['47494638', 'a picture'],
  ['1f8b', 'a compressed file'],
  ['377abcaf', 'a compressed file'],
  ['494433', 'a sound file'],
];

function notText(body: Buffer, kind: string): Cause | null {
  const start = body.subarray(0, 8).toString('hex');
  const signature = SIGNATURES.find(([starts]) => start.startsWith(starts))?.[1];
  const declared =
    /^(image|video|audio|font)\//.exec(kind)?.[1] ??
    (/\/(zip|pdf|octet-stream|x-.*compressed)/.exec(kind) ? 'file' : null);
  const what = signature ?? (declared === 'image' ? 'a picture' : declared ? `a ${declared} file` : null);
  if (what) return { code: 'leads-to', what };
  // UTF-16 has NULs too, but begins with a byte order mark.
  const hasByteOrderMark = start.startsWith('fffe') || start.startsWith('feff');
  return !hasByteOrderMark && body.subarray(0, 4096).includes(0) ? { code: 'not-text' } : null;
}

function looksLikeUtf8(body: Buffer): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(body);
    return true;
  } catch {
    // A fatal decoder says by throwing that these bytes are not UTF-8.
    return false;
  }
}

function asParagraphs(text: string): string {
  const [first = '', ...rest] = text
    .replace(/\r\n?/g, '\n')
    .split(/\n\s*\n/)
    .filter((each) => each.trim() !== '');
  const paragraphs = [first, ...rest].map((each) => `<p>${escapeHtml(each)}</p>`).join('');
  return `<title>${escapeHtml(first.split('\n')[0]?.slice(0, 120) ?? '')}</title><body><article>${paragraphs}</article></body>`;
}

/** The kind and the encoding that a Content-Type header states (RFC 9110, 8.3), as far as it can be read. */
export function mediaTypeOf(header: string): { type: string; charset: string | undefined } {
  const { type, parameters } = parse(header);
  // Some servers put it in the wrong quotation marks, or say it twice.
  const charset = parameters.charset?.split(',')[0]?.replace(/^'|'$/g, '').trim();
  return { type, charset };
}
