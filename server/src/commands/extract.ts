import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { treeToHtml, treeToMarkdown, whyLines } from '@dorvel/core/extract';
import { HowMuch } from '@dorvel/core/model';
import { causeWords } from '@dorvel/core/wording';
import { z } from 'zod';
import { decodePage } from '../capture/decode';
import { articleFrom } from '../capture/inputs';

/** Prints one JSON line a page: how anyone tries the extraction engine on pages of their own. */
const USAGE = `Usage: npm run -s extract -- [--url U] [--how-much words-only] FILE…
       npm run -s extract -- --list pages.jsonl     one {"file": …, "url": …} a line
       npm run -s extract -- --why FILE             each line of the page, and what spoke for it and against it`;
const ListedPage = z.object({ file: z.string(), url: z.string().optional() });

const { values, positionals } = parseArgs({
  options: {
    url: { type: 'string' },
    list: { type: 'string' },
    'how-much': { type: 'string' },
    why: { type: 'boolean' },
  },
  allowPositionals: true,
});
const howMuch = HowMuch.default('words-and-pictures').parse(values['how-much']);
// npm runs scripts in the workspace's folder; the reader's own is where the paths are meant.
const from = process.env.INIT_CWD ?? process.cwd();
const pages: { file: string; url: string | undefined; base: string }[] = positionals.map((file) => ({
  file,
  url: values.url,
  base: from,
}));
if (values.list) {
  const list = path.resolve(from, values.list);
  for (const line of (await readFile(list, 'utf8')).split('\n').filter((each) => each.trim() !== '')) {
    const { file, url } = ListedPage.parse(JSON.parse(line));
    pages.push({ file, url, base: from });
  }
}
if (pages.length === 0) {
  console.error(USAGE);
  process.exit(2);
}

for (const page of pages) {
  const url = page.url ?? 'https://unknown.invalid/';
  try {
    const bytes = await readPage(page.file, page.base);
    if (values.why) {
      const decoded = decodePage(bytes, typeOf(page.file));
      if (!decoded.ok) throw new Error(causeWords(decoded.cause));
      for (const line of whyLines(decoded.html, url)) console.log(JSON.stringify(line));
      continue;
    }
    const before = process.cpuUsage();
    const taken = await articleFrom({ body: bytes, contentType: typeOf(page.file), url, howMuch });
    if (!taken.ok) throw new Error(causeWords(taken.cause));
    const { tree, ...article } = taken.article;
    const spent = process.cpuUsage(before);
    console.log(
      JSON.stringify({
        file: page.file,
        url,
        title: article.title,
        byline: article.authors.join(', ') || null,
        authors: article.authors,
        siteName: article.siteName,
        publishedAt: article.publishedAt,
        modifiedAt: article.modifiedAt,
        language: article.language,
        leadImageUrl: article.leadImageUrl,
        canonicalUrl: article.canonicalUrl,
        licenceUrl: article.licenceUrl,
        facts: article.facts,
        nextPageUrl: article.nextPageUrl,
        text: article.text,
        html: treeToHtml(tree),
        markdown: treeToMarkdown(tree),
        wordCount: article.wordCount,
        minutes: Math.round(article.minutes * 100) / 100,
        cameThrough: article.cameThrough,
        cpuMs: Math.round((spent.user + spent.system) / 10) / 100,
      }),
    );
  } catch (error) {
    console.log(
      JSON.stringify({ file: page.file, url, error: error instanceof Error ? error.message : String(error) }),
    );
  }
}

/** The type that a file's name speaks for; bytes that say otherwise are believed more. */
function typeOf(file: string): string {
  const types: Readonly<Record<string, string>> = {
    '.txt': 'text/plain',
    '.md': 'text/markdown',
    '.mht': 'multipart/related',
    '.mhtml': 'multipart/related',
    '.eml': 'message/rfc822',
  };
  return types[path.extname(file).toLowerCase()] ?? 'text/html';
}

/** A listed file may stand beside the list or where the command was called. */
async function readPage(file: string, base: string): Promise<Buffer> {
  const places = [
    path.resolve(base, file),
    ...(values.list ? [path.resolve(path.dirname(path.resolve(base, values.list)), file)] : []),
  ];
  for (const place of places.slice(0, -1)) {
    try {
      return await readFile(place);
    } catch (error) {
      if (!(error instanceof Error && 'code' in error && error.code === 'ENOENT')) throw error;
    }
  }
  return readFile(places.at(-1) ?? file);
}
