import express, { type Express, type Request, type Router } from 'express';
import { readArticles, type WebArticle } from './articles';
import { DAY_BOOKS, dayBookArticle, dayBookEntries, dayBookPage, dayBookPages } from './day-books';
import { drawing } from './drawings';
import { feedLink, feedOf } from './feeds';
import { iconOf, withIcon } from './icons';
import { body, pagesOf, type Publication } from './page-parts';
import { postOfficeRoutes } from './post-office';
import { printOf } from './prints';
import { PUBLICATIONS } from './publications';
import { roughRoutes } from './rough';

/**
 * All the small web's publications on one port, told apart by host: `http://tidewater.localhost:PORT/…`.
 *
 * @param mailPort where the post office sends to
 * @param letters what it has received
 */
export function createSmallWeb(mailPort: number, letters: Router): Express {
  const articles = readArticles();
  const app = express();
  app.disable('x-powered-by');
  const hostOf = (request: Request) => (request.get('host') ?? '').split('.')[0] ?? '';
  const siteOf = (request: Request) => `http://${request.get('host') ?? ''}`;

  app.get('/icon.png', async (request, response) => {
    response.type('png').send(await iconOf(hostOf(request)));
  });
  app.get('/prints/:name.:format', async (request, response, next) => {
    const print = printOf(request.params.name);
    if (!print) {
      next();
      return;
    }
    response.type(print.format).send(await print.made);
  });
  app.get('/pictures/:name-:width.:format', async (request, response, next) => {
    const { name, width, format } = request.params;
    const made = drawing(name, Math.min(2000, Number(width) || 0), format === 'png' ? 'png' : 'jpeg');
    if (!made || !Number(width)) {
      next();
      return;
    }
    response.type(format).send(await made);
  });

  app.use((request, response, next) => {
    const publication = PUBLICATIONS.find((each) => each.host === hostOf(request));
    if (!publication) {
      next();
      return;
    }
    const own = articles.filter((article) => article.publication === publication.host);
    const found = findPage(publication, own, request.path);
    if (found) {
      const more = own.filter((each) => each !== found.article).slice(0, 5);
      response.type('html').send(withIcon(publication.page(found.article, more, found.page)));
    } else if (request.path === feedOf(publication)?.path) {
      const latest = [...own].sort((a, b) => b.publishedAt.getTime() - a.publishedAt.getTime());
      const feed = feedOf(publication);
      // Express makes an ETag of it, and answers 304 to who has it.
      response.type(feed?.type ?? '').send(feed?.write(publication, latest, siteOf(request)));
    } else if (request.path === '/') {
      const list = own.map((each) => `<li><a href="${publication.path(each.slug)}">${each.title}</a></li>`).join('');
      response
        .type('html')
        .send(
          `<!doctype html><html lang="en"><title>${publication.name}</title>${feedLink(publication)}<h1>${publication.name}</h1><ul>${list}</ul></html>`,
        );
    } else next();
  });

  const dayBooks = new Map(
    [...dayBookPages(), ...DAY_BOOKS.flatMap(({ host }) => dayBookEntries(host))].map((page) => [
      `${page.host}/d/${page.slug}`,
      page,
    ]),
  );
  app.use((request, response, next) => {
    const page = dayBooks.get(`${hostOf(request)}${request.path}`);
    const column = DAY_BOOKS.find(({ host }) => host === hostOf(request));
    const path = column && feedOf(column)?.path;
    if (page) {
      const article = dayBookArticle(page);
      response.type('html').send(withIcon(dayBookPage(article, body(article))));
    } else if (column && request.path === path) {
      const entries = dayBookEntries(column.host).map(dayBookArticle);
      const feed = feedOf(column);
      response.type(feed?.type ?? '').send(feed?.write(column, entries, siteOf(request)));
    } else next();
  });

  const postOffice = postOfficeRoutes(mailPort);
  postOffice.use(letters);
  app.use((request, response, next) => (hostOf(request) === 'post' ? postOffice(request, response, next) : next()));

  const rough = roughRoutes();
  app.use((request, response, next) => (hostOf(request) === 'rough' ? rough(request, response, next) : next()));

  app.get('/minutes/:meeting', (request, response, next) => {
    if (hostOf(request) !== 'parish') {
      next();
      return;
    }
    response
      .type('html')
      .send(
        '<!doctype html><html lang="en"><head><title>Sign in – Skerrow Parish</title></head><body><h1>Skerrow Parish</h1><p>The minutes are for residents. Please sign in to read them.</p><form method="post"><label>Name <input name="name"></label><label>Password <input type="password" name="word"></label><button>Sign in</button></form></body></html>',
      );
  });

  app.use((_request, response) => {
    response.status(404).type('html').send('<!doctype html><title>Not found</title><h1>There is nothing here.</h1>');
  });
  return app;
}

/** The article at a path, and which of its pages: `/read/title` is the first, `/read/title/2` the second. */
function findPage(
  publication: Publication,
  own: readonly WebArticle[],
  path: string,
): { article: WebArticle; page: number } | undefined {
  for (const article of own) {
    const at = publication.path(article.slug);
    if (path === at) return { article, page: 1 };
    const page = path.startsWith(`${at}/`) ? Number(path.slice(at.length + 1)) : 0;
    if (page >= 2 && page <= pagesOf(article).length) return { article, page };
  }
  return undefined;
}

/** The addresses of all articles, for the seed and the tests. */
export function smallWebAddresses(port: number): { slug: string; address: string; daysAgo: number }[] {
  return readArticles().map((article) => {
    const publication = PUBLICATIONS.find((each) => each.host === article.publication);
    if (!publication) throw new Error(`no publication ${article.publication}`);
    return {
      slug: article.slug,
      address: `http://${publication.host}.localhost:${port}${publication.path(article.slug)}`,
      daysAgo: article.daysAgo,
    };
  });
}
