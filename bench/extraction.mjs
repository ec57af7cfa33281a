import { performance } from 'node:perf_hooks';
import { extractArticle } from '@dorvel/core/extract';
import { Readability } from '@mozilla/readability';
import { JSDOM, VirtualConsole } from 'jsdom';
import { marked } from 'marked';
import { readArticles } from '../demo/small-web/articles';
import { PUBLICATIONS } from '../demo/small-web/publications';
import { wordOverlap } from './word-overlap.mjs';

/**
 * Our extraction beside @mozilla/readability on jsdom, over every article page of the small web: CPU time, and how
 * much of the words that were written came out (F1 over the multiset of words; the truth is the article's source).
 * The small web is ours, so the second figure flatters us; the first does not.
 */
const ROUNDS = 5;
const articles = readArticles();
const pages = articles.map((article) => {
  const publication = PUBLICATIONS.find((each) => each.host === article.publication);
  if (!publication) throw new Error(article.publication);
  const html = publication.page(
    article,
    articles.filter((each) => each !== article && each.publication === article.publication).slice(0, 5),
  );
  const truth =
    JSDOM.fragment(marked.parse(`${article.standfirst}\n\n${article.caption}\n\n${article.markdown}`, { async: false }))
      .textContent ?? '';
  return { html, url: `https://${article.publication}.example/x`, truth };
});

function ours({ html, url }) {
  return extractArticle(html, url).text;
}
function readability({ html, url }) {
  const { window } = new JSDOM(html, { url, virtualConsole: new VirtualConsole() });
  const text = new Readability(window.document).parse()?.textContent ?? '';
  window.close();
  return text;
}

function measure(extract) {
  for (const page of pages) extract(page);
  const times = [];
  for (let round = 0; round < ROUNDS; round++) {
    const before = performance.now();
    for (const page of pages) extract(page);
    times.push(performance.now() - before);
  }
  times.sort((x, y) => x - y);
  const quality = pages.reduce((total, page) => total + wordOverlap(extract(page), page.truth).f1, 0) / pages.length;
  return { ms: times[Math.floor(ROUNDS / 2)] / pages.length, quality };
}

const mine = measure(ours);
const theirs = measure(readability);
console.log(`Extraction, ${pages.length} pages of the small web, median of ${ROUNDS} rounds:`);
console.log(`  ours                         ${mine.ms.toFixed(2)} ms a page, word F1 ${mine.quality.toFixed(3)}`);
console.log(`  @mozilla/readability, jsdom  ${theirs.ms.toFixed(2)} ms a page, word F1 ${theirs.quality.toFixed(3)}`);
console.log(
  `  ratio of time                ${(mine.ms / theirs.ms).toFixed(3)} (${(theirs.ms / mine.ms).toFixed(1)} times as fast)`,
);
