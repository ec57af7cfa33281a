import escape from 'escape-html';
import { type Item, tagsOf } from '../model';
import { sourceOf, titleOf } from '../wording';
import { oneLine } from './dossier-handed-on';

/** Goes up when what is in an archive changes. */
export const ARCHIVE_FORMAT = 1;

/** Files of an archive; see ARCHIVE_README. */
export const ARCHIVE_FILES = {
  readme: 'README.md',
  library: 'library.json',
  records: (plural: string) => `records/${plural}.jsonl`,
  copies: 'copies.jsonl',
  picture: (hash: string) => `pictures/${hash}.webp`,
  bookmarks: 'lists/bookmarks.html',
  feeds: 'lists/feeds.opml',
  annotations: 'lists/highlights.jsonld',
} as const;

/** What an archive says of itself, so that it can be read without Dorvel. */
export const ARCHIVE_README = `# A library of Dorvel

All that was in the library on the day in \`library.json\`, in open formats.

- \`texts/\`: each item as Markdown (CommonMark, with what is known of it in front as YAML) and as a page of clean HTML. Pictures
  lie in \`pictures/\`, and the texts lead there.
- \`lists/bookmarks.html\`: all addresses as browsers take them, with tags and the days on which they were saved.
- \`lists/feeds.opml\`: the feeds that are followed.
- \`lists/highlights.jsonld\`: what was marked and noted, as W3C Web Annotations.
- \`records/\`: what Dorvel itself keeps, a file for each kind, a record a line (JSON Lines, UTF-8), in the order of their ids. In a record,
  what was decided is \`{"value": …, "at": …}\`: the value, and the stamp of when it was decided and on which device. Of two states of a record
  the later stamp of each value holds.
  - \`items\`: what was saved: address, title, stage, tags, progress, what the page states of itself
  - \`highlights\`, \`notes\`, \`cards\`: what was marked, written, and made to be recalled, each with the item that it leads back to
  - \`dossiers\`, \`entries\`: chosen sets, and what is in them in its order
  - \`feeds\`, \`searches\`, \`silences\`, \`pins\`, \`activities\`: what is followed, looked for again, not to be shown, kept in front; times spent reading
- \`copies.jsonl\`: the texts as trees (hast, the syntax tree of the unified collective), a copy a line; \`itemId\` says of which item.
- \`pictures/\`: WebP, named by the SHA-256 of their bytes.

Times are milliseconds since 1970-01-01T00:00Z, days \`YYYY-MM-DD\`.
`;

/** What the text of an item is called in an archive, without its ending: day, title, and the end of its id, as names may be everywhere. */
export function textFileName(item: Item): string {
  const title = oneLine(titleOf(item))
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '');
  const day = new Date(item.savedAt).toISOString().slice(0, 10);
  return `texts/${day}-${Array.from(title).slice(0, 60).join('')}-${item.id.slice(-8)}`;
}

/** What is known of an item, in front of its text in Markdown (YAML 1.2, whose strings may be JSON's). */
export function itemFrontMatter(item: Item): string {
  const { page } = item.capture;
  const tags = tagsOf(item);
  const lines: [string, unknown][] = [
    ['title', oneLine(titleOf(item))],
    ['address', item.address],
    ['source', oneLine(sourceOf(item))],
    ...(page && page.authors.length > 0 ? [['authors', page.authors] as [string, unknown]] : []),
    ...(page?.publishedAt ? [['published', page.publishedAt] as [string, unknown]] : []),
    ['saved', new Date(item.savedAt).toISOString()],
    ['stage', item.choices.stage.value],
    ['passed', item.progress.furthest],
    ...(tags.length > 0 ? [['tags', tags] as [string, unknown]] : []),
  ];
  return `---\n${lines.map(([name, value]) => `${name}: ${JSON.stringify(value)}`).join('\n')}\n---\n`;
}

/** A text as a page by itself. @param body its clean markup */
export function itemPage(item: Item, body: string, language: string | null): string {
  const title = escape(oneLine(titleOf(item)));
  return `<!doctype html><html lang="${escape(language ?? 'und')}"><head><meta charset="utf-8"><title>${title}</title></head><body><h1>${title}</h1><p>${escape(oneLine(sourceOf(item)))}, ${escape(item.address)}</p>${body}</body></html>\n`;
}
