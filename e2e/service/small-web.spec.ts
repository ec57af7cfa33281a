import { extractArticle } from '@dorvel/core/extract';
import { expect, test } from '@playwright/test';
import { readArticles } from '../../demo/small-web/articles';
import { pagesOf } from '../../demo/small-web/page-parts';
import { PUBLICATIONS } from '../../demo/small-web/publications';

const words = (text: string) =>
  text.toLowerCase().match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[\p{L}\p{N}]+/gu) ?? [];

/** The words of an article as it was written, without what marks them up. */
const written = (markdown: string) =>
  words(
    markdown
      .replace(/\]\([^)]*\)/g, ']')
      .replace(/<(math|video|audio|iframe)\b[\s\S]*?<\/\1>/g, ' ')
      .replace(/<[^>]+>/g, ' ')
      .replace(/^\d+\. /gm, '')
      .replace(/```\w*/g, ''),
  );

/** The share of `wanted` that is in `found`, each as often as it is wanted. */
function shareOf(wanted: readonly string[], found: readonly string[]): number {
  const left = new Map<string, number>();
  for (const word of found) left.set(word, (left.get(word) ?? 0) + 1);
  let hits = 0;
  for (const word of wanted) {
    const has = left.get(word) ?? 0;
    if (has > 0) hits++;
    left.set(word, has - 1);
  }
  return wanted.length === 0 ? 1 : hits / wanted.length;
}

/** Pages whose text does not come through whole, with the verdict that they are meant to get. */
const PARTIAL = new Set(['what-an-island-owes']);

for (const publication of PUBLICATIONS)
  test(`the pages of ${publication.host} come out whole and alone`, () => {
    const own = readArticles().filter((article) => article.publication === publication.host);
    expect(own.length).toBeGreaterThan(0);
    for (const article of own) {
      const more = own.filter((each) => each !== article);
      const pages = pagesOf(article);
      pages.forEach((markdown, index) => {
        const path = `${publication.path(article.slug)}${index === 0 ? '' : `/${index + 1}`}`;
        const address = `http://${publication.host}.example${path}`;
        const result = extractArticle(publication.page(article, more, index + 1), address);
        const beside = words(`${article.standfirst} ${article.caption}`);
        const text = words(result.text);
        const body = written(markdown);
        expect(shareOf(body, text), `${article.slug}: nothing is lost`).toBeGreaterThan(0.97);
        // What a page adds in its own hand (a table of tides, "2 answers") is a small part of it.
        const ours = article.daily ? text : [...body, ...beside, ...words(article.author)];
        expect(shareOf(text, ours), `${article.slug}: nothing is added`).toBeGreaterThan(0.94);
        expect(result.title, article.slug).toBe(article.title);
        if (pages.length === 1)
          expect(result.cameThrough.verdict, article.slug).toBe(PARTIAL.has(article.slug) ? 'partial' : 'whole');
        expect(result.nextPageUrl, article.slug).toBe(
          index + 1 < pages.length
            ? `http://${publication.host}.example${publication.path(article.slug)}/${index + 2}`
            : null,
        );
      });
    }
  });

test('the small web has sixty articles or more', () => expect(readArticles().length).toBeGreaterThanOrEqual(60));
