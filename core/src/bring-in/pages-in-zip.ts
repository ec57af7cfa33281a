import { parse } from 'yaml';
import { z } from 'zod';
import { TagName } from '../model';
import { type Findings, type Found, UNSAID } from './found';
import { isPicture, withPicturesInside } from './inline-pictures';
import { declaredEncoding, decodedText, pathIn, unpacked } from './packed';

/** Where the files of an archive are thought to lie. Reserved by RFC 2606. */
const INSIDE = 'https://file.invalid/';
const TYPES: Readonly<Record<string, 'text/html' | 'text/markdown' | 'text/plain'>> = {
  html: 'text/html',
  htm: 'text/html',
  xhtml: 'text/html',
  md: 'text/markdown',
  markdown: 'text/markdown',
  txt: 'text/plain',
};
const endingOf = (path: string): string => /\.(\w+)$/.exec(path)?.[1]?.toLowerCase() ?? '';
/** What systems put into archives by themselves. */
const isLitter = (path: string): boolean => /(?:^|\/)(?:__MACOSX\/|\.)/.test(path);

/**
 * The pages of a ZIP file of HTML, Markdown or plain text, each with the pictures that it shows where they lie beside it. What
 * Markdown says of itself in front (YAML 1.2) is believed.
 */
export function pagesInZip(bytes: Uint8Array): Findings {
  const read = unpacked(bytes, (path) => !isLitter(path) && (endingOf(path) in TYPES || isPicture(path)));
  if (!read.ok) return { found: [], faults: [{ written: '', says: read.says }] };
  const { files } = read;
  const pictureAt = (address: string): Uint8Array | undefined =>
    address.startsWith(INSIDE) ? files[pathIn(address.slice(INSIDE.length))] : undefined;
  const found = Object.entries(files).flatMap(([path, content]): Found[] => {
    const type = TYPES[endingOf(path)];
    if (type === undefined) return [];
    const url = INSIDE + path.split('/').map(encodeURIComponent).join('/');
    const name = path.split('/').at(-1) ?? path;
    const body = decodedText(content, type === 'text/html' ? declaredEncoding(content) : 'utf-8');
    if (body.trim() === '') return [];
    if (type !== 'text/html') return [ofWords(body, type, name)];
    return [
      {
        ...UNSAID,
        address: statedAddress(body),
        text: { type, body: withPicturesInside(body, url, pictureAt), name },
      },
    ];
  });
  return {
    found,
    faults: found.length > 0 ? [] : [{ written: '', says: 'There are no pages in it: HTML, Markdown or text.' }],
  };
}

/** A page says what it is before this. In characters. */
const MOST_HEAD = 20_000;

/** Where a page says that it is from (RFC 6596, HTML 4.6.6 canonical). */
function statedAddress(html: string): string | null {
  const link = /<link\b[^>]*\brel\s*=\s*["']?canonical\b[^>]*>/i.exec(html.slice(0, MOST_HEAD))?.[0];
  const address = link && /\bhref\s*=\s*["']([^"']+)/i.exec(link)?.[1];
  return address && /^https?:\/\//i.test(address) ? address : null;
}

const word = z.coerce.string().trim().min(1);
const FrontMatter = z.object({
  title: word.optional().catch(undefined),
  address: word.optional().catch(undefined),
  url: word.optional().catch(undefined),
  source: word.optional().catch(undefined),
  link: word.optional().catch(undefined),
  saved: z.unknown().optional(),
  date: z.unknown().optional(),
  created: z.unknown().optional(),
  tags: z
    .union([z.array(z.unknown()), z.string().transform((list) => list.split(','))])
    .catch([])
    .default([]),
});

/** A text with what stands in front of it, between lines of three hyphens. */
function ofWords(source: string, type: 'text/markdown' | 'text/plain', name: string): Found {
  const front = /^---\r?\n([\s\S]*?)\r?\n---[ \t]*(?:\r?\n|$)/.exec(source);
  const about = FrontMatter.safeParse(yamlIn(front?.[1] ?? '')).data;
  const body = front && about ? source.slice(front[0].length) : source;
  const address = [about?.address, about?.url, about?.link, about?.source].find((each) =>
    /^https?:\/\//i.test(each ?? ''),
  );
  return {
    ...UNSAID,
    title: about?.title ?? null,
    address: address ?? null,
    savedAt: instantIn(about?.saved) ?? instantIn(about?.date) ?? instantIn(about?.created),
    tags: (about?.tags ?? []).flatMap((each) => TagName.safeParse(each).data ?? []),
    text: body.trim() === '' ? null : { type, body: withTitle(body, about?.title, type), name },
  };
}

/** A text whose title stands only in front of it has it as its heading. */
function withTitle(body: string, title: string | undefined, type: string): string {
  return title === undefined || type !== 'text/markdown' || /^#\s/m.test(body) ? body : `# ${title}\n\n${body}`;
}

function yamlIn(source: string): unknown {
  try {
    // An alias that is followed without end would fill the memory.
    return parse(source, { maxAliasCount: 20 });
  } catch {
    // Not YAML: nothing is said in front.
    return null;
  }
}

function instantIn(value: unknown): number | null {
  const instant = value instanceof Date ? value.getTime() : typeof value === 'string' ? Date.parse(value) : NaN;
  return Number.isNaN(instant) || instant <= 0 ? null : instant;
}
