import { extractArticle, type Article } from '@dorvel/core/extract';

/** Runs in a thread of the pool, so that a heavy page never blocks a request. */
export default function extract(page: { html: string; url: string }): Article {
  return extractArticle(page.html, page.url);
}
