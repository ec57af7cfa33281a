import { canonicalAddress, fileAddress, readAddress, readAddresses } from '@dorvel/core/address';
import type { Bookmark } from '@dorvel/core/formats';
import { type GivenText, inBase64, inBase64Url, isPushable } from '@dorvel/core/model';

/** What is to be saved: a page by its address, or a file with what is in it. */
export interface SaveRequest {
  address: string;
  /** How it is shown before it is saved. */
  shown: string;
  given?: GivenText;
  /** What it is tagged in the file that it comes from. */
  tags?: readonly string[];
  /** When it was saved there, as the file says: milliseconds since 1970. */
  savedAt?: number;
}

export interface SaveList {
  requests: SaveRequest[];
  /** What cannot be saved, each with its reason. */
  faults: { written: string; says: string }[];
}

const TYPES: Readonly<Record<string, GivenText['type']>> = {
  html: 'text/html',
  htm: 'text/html',
  mhtml: 'multipart/related',
  mht: 'multipart/related',
  eml: 'message/rfc822',
  md: 'text/markdown',
  txt: 'text/plain',
  pdf: 'application/pdf',
  epub: 'application/epub+zip',
};

/** What is said of a text that is too large to be sent. */
export const TOO_LARGE =
  'That is more than 6 MB as it is sent, which is more than can be sent at once. Give a part of it.';

/** The files whose text can be read, as the browser's file dialog wants them. */
export const TEXT_FILES = Object.keys(TYPES)
  .map((ending) => `.${ending}`)
  .join();

/** Addresses that were pasted. */
export function saveListOfText(text: string): SaveList {
  const { addresses, faults } = readAddresses(text);
  return { requests: addresses.map((address) => ({ address, shown: address })), faults };
}

/** What is in files: lists of addresses give their pages, all else is an item itself. */
export async function saveListOfFiles(files: readonly File[]): Promise<SaveList> {
  const read = await Promise.all(files.map(readFile));
  const wishes = new Map(read.flatMap((each) => each.requests).map((wish) => [wish.address, wish]));
  return { requests: [...wishes.values()], faults: read.flatMap(({ faults }) => faults) };
}

async function readFile(file: File): Promise<SaveList> {
  const fault = (says: string): SaveList => ({ requests: [], faults: [{ written: file.name, says }] });
  const ending = endingOf(file);
  if (ending === 'opml') return fault('That is a list of feeds. Bring it in under “Feeds”.');
  const list = await listIn(ending, file);
  if (list) return list.requests.length > 0 ? list : fault('There are no addresses in it.');
  const read = await givenOf(file);
  if (!read.ok) return fault(read.says);
  const hash = await crypto.subtle.digest('SHA-256', await file.arrayBuffer());
  const address = fileAddress(inBase64Url(new Uint8Array(hash)));
  return { requests: [{ address, shown: file.name, given: read.given }], faults: [] };
}

/** The pages that a file lists: bookmarks as browsers write them, tables, and texts of which most lines are addresses. */
async function listIn(ending: string, file: File): Promise<SaveList | null> {
  if (ending === 'html' || ending === 'htm') {
    const { isBookmarkFile, readBookmarks } = await import('@dorvel/core/formats');
    const text = await file.text();
    return isBookmarkFile(text) ? saveListOfBookmarks(readBookmarks(text)) : null;
  }
  if (ending !== 'csv' && ending !== 'txt' && ending !== 'md') return null;
  const text = await file.text();
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const isList = ending === 'csv' || lines.filter((line) => /https?:\/\//i.test(line)).length * 2 > lines.length;
  return isList ? saveListOfText(text) : null;
}

/** A page that lies in several folders is saved once, with the tags of all. */
function saveListOfBookmarks(bookmarks: readonly Bookmark[]): SaveList {
  const wishes = new Map<string, SaveRequest>();
  const faults = new Map<string, string>();
  for (const { address: written, tags, savedAt } of bookmarks) {
    const reading = readAddress(written);
    if (!reading.ok) {
      faults.set(written, reading.says);
      continue;
    }
    const key = canonicalAddress(reading.address);
    const known = wishes.get(key) ?? { address: reading.address, shown: reading.address, tags: [] };
    // Of several dates the first; one that is still to come is a slip of some clock.
    const dates = [known.savedAt, savedAt].filter((each) => typeof each === 'number' && each <= Date.now());
    wishes.set(key, {
      ...known,
      tags: [...new Set([...(known.tags ?? []), ...tags])],
      ...(dates.length > 0 ? { savedAt: Math.min(...(dates as number[])) } : {}),
    });
  }
  return {
    requests: [...wishes.values()],
    faults: [...faults].map(([written, says]) => ({ written, says })),
  };
}

/** A file as a text that is given by hand. */
export async function givenOf(file: File): Promise<{ ok: true; given: GivenText } | { ok: false; says: string }> {
  const type = TYPES[endingOf(file)];
  if (!type)
    return {
      ok: false,
      says: 'That kind of file cannot be read: give HTML, MHTML, a letter, Markdown, text, PDF or EPUB.',
    };
  const isBinary = type === 'application/pdf' || type === 'application/epub+zip';
  const body = isBinary ? inBase64(new Uint8Array(await file.arrayBuffer())) : await file.text();
  if (body.trim() === '') return { ok: false, says: 'The file is empty.' };
  return !isPushable(body)
    ? {
        ok: false,
        says: TOO_LARGE,
      }
    : {
        ok: true,
        given: { type, body, encoding: isBinary ? 'base64' : 'utf8', name: file.name.slice(0, 200) },
      };
}

function endingOf({ name }: File): string {
  return name.split('.').at(-1)?.toLowerCase() ?? '';
}
