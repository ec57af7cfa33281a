import { canonicalAddress, fileAddress, readAddress, readAddresses } from '@dorvel/core/address';
import type { AddressTable, Findings, Found, TableColumns } from '@dorvel/core/bring-in';
import type { Bookmark } from '@dorvel/core/formats';
import { type GivenText, inBase64, inBase64Url, isPushable } from '@dorvel/core/model';
import type { Remote } from 'comlink';
import type { ToSave } from '@/device/store/changes';
import { type BringIn, readApart, type ReadTable } from '@/device/workers/bring-in/bring-in';
import { isPicture, NotAPicture, pictureRequest } from './pictures';

/** What is to be saved: a page by its address, or a file with what is in it. */
export interface SaveRequest extends ToSave {
  /** How it is shown before it is saved. */
  shown: string;
}

export interface SaveList {
  requests: SaveRequest[];
  /** What cannot be saved, each with its reason. */
  faults: { written: string; says: string }[];
  /** A table whose columns the reader may put right. */
  table?: ReadTable;
  /** An e-book that may be taken by its chapters. */
  book?: File;
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

const endings = (list: readonly string[]): string => list.map((ending) => `.${ending}`).join();
/** The files whose text can be read, as the browser's file dialog wants them. */
export const TEXT_FILES = endings(Object.keys(TYPES));
/** Those, and the files in which many pages are. */
export const ALL_FILES = endings([
  ...Object.keys(TYPES),
  'csv',
  'tsv',
  'json',
  'xml',
  'atom',
  'rss',
  'warc',
  'gz',
  'zip',
]).concat(',image/*');

/** Addresses that were pasted. */
export function saveListOfText(text: string): SaveList {
  const { addresses, faults } = readAddresses(text);
  return { requests: addresses.map((address) => ({ address, shown: address })), faults };
}

/** What is in files: lists of addresses give their pages, all else is an item itself. @param signal ends the reading */
export async function saveListOfFiles(files: readonly File[], signal?: AbortSignal): Promise<SaveList> {
  const read = await readApart(
    (from) => Promise.all(files.map((file) => orSaysSo(file.name, readFile(from, file)))),
    signal,
  ).catch((error: unknown) => files.map(({ name }) => unreadable(name, error)));
  const wishes = new Map(read.flatMap((each) => each.requests).map((wish) => [wish.address, wish]));
  const [only] = read.length === 1 ? read : [];
  return { ...only, requests: [...wishes.values()], faults: read.flatMap(({ faults }) => faults) };
}

/** What a file has; one that cannot be read, in whatever way it was made so, is told of among what cannot be saved. */
const orSaysSo = (written: string, read: Promise<SaveList>): Promise<SaveList> =>
  read.catch((error: unknown) => unreadable(written, error));

const unreadable = (written: string, error: unknown): SaveList => ({
  requests: [],
  faults: [
    error instanceof NotAPicture
      ? { written, says: error.message }
      : { written, says: `It cannot be read (${error instanceof Error ? error.message : 'damaged'}).` },
  ],
});

async function readFile(from: Remote<BringIn>, file: File): Promise<SaveList> {
  const fault = (says: string): SaveList => ({ requests: [], faults: [{ written: file.name, says }] });
  const ending = endingOf(file);
  if (isPicture(file)) return { requests: [await pictureRequest([file])], faults: [] };
  if (ending === 'opml') return fault('That is a list of feeds. Bring it in under “Feeds”.');
  if (ending === 'jsonld') return fault('Those are highlights. Bring them in under “Highlights”.');
  const list = await listIn(from, ending, file);
  if (list) return list.requests.length + list.faults.length > 0 ? list : fault('There are no addresses in it.');
  const read = await givenOf(file);
  if (!read.ok) return fault(read.says);
  const one = await fileRequest(read.given, file.name, await file.arrayBuffer());
  return { requests: [one], faults: [], ...(ending === 'epub' ? { book: file } : {}) };
}

/** @param bytes by which it is known, however often it is given */
async function fileRequest(given: GivenText, shown: string, bytes: BufferSource): Promise<SaveRequest> {
  const hash = await crypto.subtle.digest('SHA-256', bytes);
  return { address: fileAddress(inBase64Url(new Uint8Array(hash))), shown, given };
}

/** The chapters of an e-book, each to be saved as an item of its own. @param signal ends the reading */
export async function saveListOfChapters(book: File, signal: AbortSignal): Promise<SaveList> {
  const read = readApart((from) => from.chapters(book), signal).then((found) => saveListOf(found, book.name));
  return { ...(await orSaysSo(book.name, read)), book };
}

/** The pages of a table, by what its columns are said to be. @param signal ends the reading */
export async function saveListOfTable(
  table: AddressTable,
  columns: TableColumns,
  signal: AbortSignal,
): Promise<SaveList> {
  const read = readApart((from) => from.inTable(table, columns), signal).then((found) =>
    saveListOf(found, 'The table'),
  );
  return { ...(await orSaysSo('The table', read)), table: { table, columns } };
}

/** The pages that a file lists or has in it; null when it is a text itself. */
async function listIn(from: Remote<BringIn>, ending: string, file: File): Promise<SaveList | null> {
  if (ending === 'html' || ending === 'htm') {
    const bookmarks = await from.bookmarks(file);
    return bookmarks && saveListOfBookmarks(bookmarks);
  }
  if (ending === 'zip') return saveListOf(await from.zip(file), file.name);
  if (ending === 'warc' || (ending === 'gz' && /\.warc\.gz$/i.test(file.name)))
    return saveListOf(await from.warc(file), file.name);
  if (['json', 'xml', 'atom', 'rss'].includes(ending)) {
    const found = await from.feed(file);
    return found && saveListOf(found, file.name);
  }
  if (!['csv', 'tsv', 'txt', 'md'].includes(ending)) return null;
  const text = await file.text();
  const isTable = ending === 'csv' || ending === 'tsv';
  const read = isTable ? await from.table(text) : null;
  if (read) return { ...(await saveListOf(await from.inTable(read.table, read.columns), file.name)), table: read };
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const isList = isTable || lines.filter((line) => /https?:\/\//i.test(line)).length * 2 > lines.length;
  return isList ? saveListOfText(text) : null;
}

/** What a file from elsewhere has, as what is to be saved: each page once, with all that is said of it. */
async function saveListOf({ found, faults }: Findings, name: string): Promise<SaveList> {
  const wishes = new Map<string, SaveRequest>();
  const wrong = faults.map(({ written, says }) => ({ written: written === '' ? name : written, says }));
  for (const each of found) {
    const read = await requestOf(each);
    if ('says' in read) wrong.push(read);
    else {
      const key = canonicalAddress(read.address);
      const known = wishes.get(key);
      wishes.set(
        key,
        known ? { ...read, ...known, tags: [...new Set([...(known.tags ?? []), ...(read.tags ?? [])])] } : read,
      );
    }
  }
  return { requests: [...wishes.values()], faults: wrong };
}

async function requestOf({
  address,
  text,
  title,
  tags,
  savedAt,
  note,
  isRead,
}: Found): Promise<SaveRequest | { written: string; says: string }> {
  const given: GivenText | undefined =
    text && isPushable(text.body) ? { ...text, name: text.name.slice(0, 200), encoding: 'utf8' } : undefined;
  const about = {
    tags,
    // One that is still to come is a slip of some clock.
    ...(savedAt !== null && savedAt > 0 && savedAt <= Date.now() ? { savedAt } : {}),
    ...(note === null ? {} : { note }),
    ...(isRead === null ? {} : { isRead }),
    // Of a text, its own title holds.
    ...(title === null || text ? {} : { title }),
  };
  if (address !== null) {
    const reading = readAddress(address);
    if (!reading.ok) return { written: address, says: reading.says };
    return { ...about, address: reading.address, shown: title ?? reading.address, ...(given ? { given } : {}) };
  }
  const shown = title ?? text?.name ?? 'A text';
  if (!given) return { written: shown, says: TOO_LARGE };
  return { ...(await fileRequest(given, shown, new TextEncoder().encode(given.body))), ...about };
}

/** A page that lies in several folders is saved once, with the tags of all. */
function saveListOfBookmarks(bookmarks: readonly Bookmark[]): SaveList {
  const wishes = new Map<string, SaveRequest>();
  const faults = new Map<string, string>();
  for (const { address: written, title, tags, savedAt } of bookmarks) {
    const reading = readAddress(written);
    if (!reading.ok) {
      faults.set(written, reading.says);
      continue;
    }
    const key = canonicalAddress(reading.address);
    const known = wishes.get(key) ?? { address: reading.address, shown: title ?? reading.address, tags: [] };
    // Of several dates the first; one that is still to come is a slip of some clock.
    const dates = [known.savedAt, savedAt].filter((each) => typeof each === 'number' && each <= Date.now());
    wishes.set(key, {
      ...known,
      tags: [...new Set([...(known.tags ?? []), ...tags])],
      ...(title === null ? {} : { title }),
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
