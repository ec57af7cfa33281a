// npm run bench -- structure: what is more than words. Headings, emphasis, links with where they lead, lists, code, tables and
// pictures of the text, counted against the truth of the development pages as markup, for Dorvel and the libraries side by
// side. Each is the multiset of its elements' texts (of a link with its address, of a picture its file), over all pages.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { extractArticle, treeToHtml } from '@dorvel/core/extract';
import { extractFromHtml } from '@extractus/article-extractor';
import { Readability } from '@mozilla/readability';
import { Defuddle } from 'defuddle/node';
import { JSDOM, VirtualConsole } from 'jsdom';
import { parseHTML } from 'linkedom';
import { builtPages } from './development-pages.mjs';

const domOf = (html, url) => new JSDOM(html, { url, virtualConsole: new VirtualConsole() }).window.document;

const ENGINES = {
  Dorvel: (html, url) => {
    const { tree, title, siteName } = extractArticle(html, url);
    return { content: treeToHtml(tree), title, site: siteName };
  },
  '@mozilla/readability 0.6.0, jsdom': (html, url) => {
    const article = new Readability(domOf(html, url)).parse();
    return { content: article?.content, title: article?.title, site: article?.siteName };
  },
  'defuddle 0.19.4, linkedom': (html, url) => Defuddle(parseHTML(html).document, url),
  '@extractus/article-extractor 9.0.1': async (html, url) => {
    const article = await extractFromHtml(html, url);
    return { content: article?.content, title: article?.title, site: article?.source };
  },
};

const CJK = '[\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}]';
const textOf = (element) =>
  element.textContent
    .replace(/\s+/g, ' ')
    // A line break in the source between two of these is no space (CSS Text 3, 4.1.3).
    .replace(new RegExp(`(?<=${CJK}) (?=${CJK})`, 'gu'), '')
    .trim()
    .toLowerCase();
const fileOf = (address) => {
  try {
    const file = decodeURIComponent(new URL(address).pathname.split('/').at(-1) ?? '');
    // The same picture in another size or format.
    return file.replace(/\.\w+$/, '').replace(/[-_]\d{2,4}x\d{2,4}.*$/, '');
  } catch {
    return '';
  }
};
const isDataTable = (table) =>
  table.querySelectorAll('tr').length > 1 && [...table.querySelectorAll('tr')].some((row) => row.children.length > 1);

/** What each kind of structure is, and what of it is compared. */
const KINDS = {
  headings: (root) =>
    [...root.querySelectorAll('h1, h2, h3, h4, h5, h6')].map((e) =>
      textOf(e)
        .replace(/[#¶§]$/, '')
        .trim(),
    ),
  links: (root) =>
    [...root.querySelectorAll('a[href]')]
      .filter((e) => !e.closest('h1, h2, h3, h4, h5, h6') && !(e.getAttribute('href') ?? '').startsWith('#'))
      .map((e) => textOf(e) && `${textOf(e)} → ${e.href.split('#')[0]}`),
  emphasis: (root) => [...root.querySelectorAll('em, i, strong, b')].map(textOf),
  'list items': (root) => [...root.querySelectorAll('li, dt, dd')].map((e) => textOf(e).slice(0, 80)),
  'code blocks': (root) => [...root.querySelectorAll('pre')].map((e) => textOf(e).replace(/\s/g, '')),
  'code in lines': (root) =>
    [...root.querySelectorAll('code, tt, kbd, samp')].filter((e) => !e.closest('pre')).map(textOf),
  'table cells': (root) =>
    [...root.querySelectorAll('table')]
      .filter(isDataTable)
      .flatMap((table) => [...table.querySelectorAll('td, th')].map(textOf)),
  quotations: (root) => [...root.querySelectorAll('blockquote')].map((e) => textOf(e).slice(0, 80)),
  pictures: (root) => [...root.querySelectorAll('img[src]')].map((e) => fileOf(e.src)),
};

/** A name without what may stand or not: its article, the ending of a domain, signs between its words. */
const plainName = (name) =>
  (name ?? '')
    .toLowerCase()
    .replace(/^the\s|\.(?:com|org|net|uk)$/g, '')
    .replace(/[^\p{L}\p{N}]/gu, '');
/** What a page calls itself and its site: how the two are compared. */
const NAMES = {
  titles: { wanted: 'title', given: 'title', isSame: (got, wanted) => plainName(got) === plainName(wanted) },
  'site names': { wanted: 'site', given: 'site', isSame: (got, wanted) => plainName(got) === plainName(wanted) },
  'site names, one within the other': {
    wanted: 'site',
    given: 'site',
    isSame: (got, wanted) =>
      plainName(got) !== '' &&
      (plainName(got).includes(plainName(wanted)) || plainName(wanted).includes(plainName(got))),
  },
};

const tally = (values) => {
  const counts = new Map();
  for (const value of values) if (value) counts.set(value, (counts.get(value) ?? 0) + 1);
  return counts;
};

const pages = builtPages().filter(({ goldHtml }) => goldHtml);
if (pages.length === 0) {
  console.log('Build the pages of bench/pages first (rebuild.sh there).');
  process.exit(1);
}
const rootOf = (html, url) => {
  const { body } = domOf(`<body>${html ?? ''}</body>`, url);
  for (const element of body.querySelectorAll('noscript')) element.remove();
  for (const element of body.querySelectorAll('br')) element.replaceWith(' ');
  // Two blocks beside each other are two words, with or without white space in the source.
  for (const element of body.querySelectorAll(
    'p, div, li, dt, dd, tr, td, th, h1, h2, h3, h4, h5, h6, pre, blockquote',
  ))
    element.before(' ');
  return body;
};
const worst = [];
const rows = [];
for (const [engine, extract] of Object.entries(ENGINES)) {
  const sums = Object.fromEntries(Object.keys(KINDS).map((kind) => [kind, { hits: 0, got: 0, wanted: 0 }]));
  const names = Object.fromEntries(Object.keys(NAMES).map((name) => [name, 0]));
  for (const page of pages) {
    const { id, html, url, goldHtml } = page;
    let given = {};
    try {
      given = await extract(html, url);
    } catch {
      // A library that throws on a page has nothing of it; that is what is counted.
    }
    for (const [name, { wanted, given: of, isSame }] of Object.entries(NAMES))
      if (page[wanted] && isSame(given?.[of], page[wanted])) names[name]++;
    const [found, truth] = [rootOf(given?.content, url), rootOf(goldHtml, url)];
    for (const [kind, read] of Object.entries(KINDS)) {
      const [got, wanted] = [tally(read(found)), tally(read(truth))];
      const sum = sums[kind];
      let missed = 0;
      for (const n of got.values()) sum.got += n;
      for (const [value, n] of wanted) {
        const hit = Math.min(n, got.get(value) ?? 0);
        sum.wanted += n;
        sum.hits += hit;
        missed += n - hit;
      }
      const extra = [...got].filter(([value, n]) => n > (wanted.get(value) ?? 0)).map(([value]) => value);
      if (engine === 'Dorvel' && missed + extra.length > 2)
        worst.push({
          kind,
          id,
          missed,
          lost: [...wanted].filter(([value, n]) => n > (got.get(value) ?? 0)).map(([value]) => value.slice(0, 60)),
          extra: extra.map((value) => value.slice(0, 60)),
        });
    }
  }
  rows.push([engine, sums, names]);
}
const f1 = ({ hits, got, wanted }) => (got + wanted === 0 ? 1 : (2 * hits) / (got + wanted));
const kinds = Object.keys(KINDS);
const wantedOf = (kind) => rows[0]?.[1][kind].wanted;
const table = [
  `| engine | ${kinds.map((kind) => `${kind} (${wantedOf(kind)})`).join(' | ')} |`,
  `|---|${kinds.map(() => '---|').join('')}`,
  ...rows.map(([engine, sums]) => `| ${engine} | ${kinds.map((kind) => f1(sums[kind]).toFixed(3)).join(' | ')} |`),
].join('\n');
const namesTable = [
  `| engine | ${Object.keys(NAMES).join(' | ')} |`,
  `|---|${Object.keys(NAMES)
    .map(() => '---|')
    .join('')}`,
  ...rows.map(
    ([engine, , names]) =>
      `| ${engine} | ${Object.entries(NAMES)
        .map(([name, { wanted }]) => {
          const of = pages.filter((page) => page[wanted]).length;
          return `${names[name]} of ${of} (${(names[name] / of).toFixed(3)})`;
        })
        .join(' | ')} |`,
  ),
].join('\n');
console.log(`${table}\n\n${namesTable}`);
if (process.argv.includes('--each'))
  for (const { kind, id, missed, lost, extra } of worst
    .sort((a, b) => b.missed + b.extra.length - a.missed - a.extra.length)
    .slice(0, 60))
    console.log(
      `${kind} ${id}: ${missed} lost ${JSON.stringify(lost.slice(0, 4))}, ${extra.length} more ${JSON.stringify(extra.slice(0, 4))}`,
    );
if (process.argv.includes('--write'))
  writeFileSync(
    path.join(import.meta.dirname, '../docs/bench/structure.md'),
    `# What is more than words\n\n\`npm run bench -- structure --write\`, ${new Date().toISOString().slice(0, 10)}, on the ${pages.length} pages of bench/pages (they were seen while the rules were made). F1 over the elements of each kind, all pages together; in brackets how many there are in the truth. An element counts where its text is the same: of a link with the address it leads to, of a picture its file, of a list item or quotation its beginning.\n\n${table}\n\n## What the pages call themselves\n\nThe same words; of a site without its article and the ending of its domain.\n\n${namesTable}\n`,
  );
