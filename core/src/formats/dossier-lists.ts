import escape from 'escape-html';
import { type Item, tagsOf } from '../model';
import { sourceOf, titleOf } from '../wording';
import { type HandedOn, oneLine, shownItems, shownParts, tableInWords, webAddress } from './dossier-handed-on';
import { type OutlinePart, writeOutline } from './opml';
import { writeTable } from './table';

/** The facts of a dossier as CSV (RFC 4180): the columns that are shown; of what no page states, nothing. */
export function dossierCsv({ table, compiled }: Pick<HandedOn, 'table' | 'compiled'>): string {
  const { head, rows } = table ? tableInWords(table) : { head: [], rows: shownItems(compiled).map(asRow) };
  return writeTable(
    ['Title', 'Address', 'Source', ...head],
    rows.map(({ item, cells }) => [
      oneLine(titleOf(item)),
      item.address,
      oneLine(sourceOf(item)),
      ...cells.map((each) => each ?? ''),
    ]),
  );
}

const asRow = (item: Item): { item: Item; cells: (string | null)[] } => ({ item, cells: [] });

/** Titles and addresses, one after the other, and nothing else. */
export function dossierLinks({ compiled }: Pick<HandedOn, 'compiled'>): string {
  return shownItems(compiled)
    .map((item) => `${oneLine(titleOf(item))}\n${item.address}\n`)
    .join('\n');
}

/** Pages under the headings that they stand under, as an outline (OPML 2.0); each page once. */
export function dossierOpml({ compiled, updatedAt }: Pick<HandedOn, 'compiled' | 'updatedAt'>): string {
  interface Section extends OutlinePart {
    parts: OutlinePart[];
  }
  const section = (text: string): Section => ({ text, address: null, parts: [] });
  const root = section(compiled.title);
  let open = [root];
  const seen = new Set<string>();
  const add = (item: Item) => {
    if (seen.has(item.id)) return;
    seen.add(item.id);
    open.at(-1)?.parts.push({ text: oneLine(titleOf(item)), address: webAddress(item), parts: [] });
  };
  for (const part of shownParts(compiled)) {
    if (part.kind === 'heading') {
      const begun = section(oneLine(part.text));
      open = open.slice(0, part.depth);
      open.at(-1)?.parts.push(begun);
      open.push(begun);
    } else if (part.kind === 'item') add(part.item);
    else if (part.kind === 'search') part.items.forEach(add);
    else if (part.kind === 'passage' || part.kind === 'picture') add(part.of);
  }
  return writeOutline(oneLine(compiled.title), updatedAt, root.parts);
}

/** Bookmarks in a folder. */
export const dossierBookmarks = ({ compiled }: Pick<HandedOn, 'compiled'>): string =>
  bookmarkFile(compiled.title, shownItems(compiled));

/**
 * Pages as bookmarks in a folder, as browsers read them ("Netscape Bookmark File Format", Microsoft Learn, aa753582), with their
 * tags and the days on which they were saved. What is nowhere on the web is left out.
 */
export function bookmarkFile(folder: string, items: readonly Item[]): string {
  const { head, foot } = bookmarksAround(folder);
  return head + items.map(bookmarkLine).join('') + foot;
}

/** What stands before and after the lines of a file of bookmarks, which may be too many to have at once. */
export const bookmarksAround = (folder: string) => ({
  head: `${[
    '<!DOCTYPE NETSCAPE-Bookmark-file-1>',
    '<META HTTP-EQUIV="Content-Type" CONTENT="text/html; charset=UTF-8">',
    '<TITLE>Bookmarks</TITLE>',
    '<H1>Bookmarks</H1>',
    '<DL><p>',
    `    <DT><H3>${escape(oneLine(folder))}</H3>`,
    '    <DL><p>',
  ].join('\n')}\n`,
  foot: '    </DL><p>\n</DL><p>\n',
});

/** An item's line in a file of bookmarks; empty for one that is nowhere on the web. */
export function bookmarkLine(item: Item): string {
  const address = webAddress(item);
  if (address === null) return '';
  const saved = Math.floor(item.savedAt / 1000);
  const tags = tagsOf(item).map((tag) => tag.replaceAll(',', ' '));
  const tagged = tags.length > 0 ? ` TAGS="${escape(tags.join(','))}"` : '';
  const title = escape(oneLine(titleOf(item)));
  return `        <DT><A HREF="${escape(address)}" ADD_DATE="${saved}"${tagged}>${title}</A>\n`;
}
