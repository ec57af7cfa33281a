import { type Article, extractArticle } from '@dorvel/core/extract';
import type { APIRequestContext } from '@playwright/test';
import { smallWebAddresses } from '../demo/small-web/server';
import { SMALL_WEB_PORT } from './ports';

/** Every article of the small web, as it is read. */
export async function smallWebArticles(request: APIRequestContext): Promise<{ address: string; article: Article }[]> {
  const articles: { address: string; article: Article }[] = [];
  for (const { address } of smallWebAddresses(SMALL_WEB_PORT)) {
    // Asked of this machine by name, whether or not its resolver knows hosts below localhost.
    const { host, port, pathname } = new URL(address);
    const answer = await request.get(`http://127.0.0.1:${port}${pathname}`, { headers: { host } });
    articles.push({ address, article: extractArticle(await answer.text(), address) });
  }
  return articles;
}
