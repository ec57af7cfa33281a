import { Parser } from 'htmlparser2';
import { TagName } from '../model';

/** A page in a file of bookmarks. */
export interface Bookmark {
  /** As it is written there. */
  address: string;
  title: string | null;
  /** The folders it lies in as one nested tag, and the tags that it has. */
  tags: string[];
  /** When it was saved, as the file says: milliseconds since 1970; null where it does not. */
  savedAt: number | null;
}

/** True for bookmarks as browsers write them. */
export function isBookmarkFile(source: string): boolean {
  return /^\s*<!DOCTYPE NETSCAPE-Bookmark-file-1>/i.test(source.replace(/^\uFEFF/, ''));
}

/** Folders that every browser has: they say nothing of what lies in them. */
const OF_THE_BROWSER = ['personal_toolbar_folder', 'unfiled_bookmarks_folder'];

/**
 * Reads bookmarks as browsers write them ("Netscape Bookmark File Format", Microsoft Learn, aa753582). A list is nested in the
 * folder whose heading stands before it; `TAGS` is what some browsers add. Leniently: what is left open ends with the file.
 *
 * @returns in the order of the file, each address as often as it stands there
 */
export function readBookmarks(source: string): Bookmark[] {
  const found: Bookmark[] = [];
  /** The folders around, null for one of the browser's own. */
  const around: (string | null)[] = [];
  let folder: string | null = null;
  let open: Bookmark | null = null;
  let words: string | null = null;
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (name === 'dl') {
          around.push(folder);
          folder = null;
        } else if (name === 'h3') {
          words = '';
          folder = OF_THE_BROWSER.some((each) => each in attributes) ? null : '';
        } else if (name === 'a' && attributes.href) {
          words = '';
          open = {
            address: attributes.href,
            title: null,
            tags: bookmarkTags(around, attributes.tags ?? ''),
            savedAt: instantIn(attributes.add_date ?? ''),
          };
        }
      },
      ontext(text) {
        if (words !== null) words += text;
      },
      onclosetag(name) {
        if (name === 'dl') around.pop();
        else if (name === 'h3' && folder !== null) folder = words;
        else if (name === 'a' && open) {
          const title = words?.trim() ?? '';
          found.push({ ...open, title: title === '' ? null : title });
          open = null;
        }
        if (name === 'h3' || name === 'a') words = null;
      },
    },
    { decodeEntities: true, lowerCaseTags: true, lowerCaseAttributeNames: true },
  );
  parser.end(source);
  return found;
}

/** Beyond these a number of seconds would be after the year 5000: some write milliseconds, some microseconds. */
const [AS_MILLISECONDS, AS_MICROSECONDS] = [1e11, 1e14];

function instantIn(written: string): number | null {
  const stated = /^\d{1,17}$/.test(written.trim()) ? Number(written) : 0;
  if (stated <= 0) return null;
  return Math.round(stated >= AS_MICROSECONDS ? stated / 1000 : stated >= AS_MILLISECONDS ? stated : stated * 1000);
}

function bookmarkTags(folders: readonly (string | null)[], written: string): string[] {
  const nested = folders.flatMap((folder) => folder?.replaceAll('/', ' ') ?? []).join('/');
  return [nested, ...written.split(',')].flatMap((name) => {
    const tag = TagName.safeParse(name);
    return tag.success ? [tag.data] : [];
  });
}
