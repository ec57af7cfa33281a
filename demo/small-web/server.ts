import express, { type Express, type Request } from 'express';
import { readArticles } from './articles';
import { drawing } from './drawings';
import { PUBLICATIONS } from './publications';
import { roughRoutes } from './rough';

/** All the small web's publications on one port, told apart by host: `http://tidewater.localhost:PORT/…`. */
export function createSmallWeb(): Express {
  const articles = readArticles();
  const app = express();
  app.disable('x-powered-by');
  const hostOf = (request: Request) => (request.get('host') ?? '').split('.')[0] ?? '';

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
    const article = own.find((each) => publication.path(each.slug) === request.path);
    if (article) {
      const more = own.filter((each) => each !== article).slice(0, 5);
      response.type('html').send(publication.page(article, more));
    } else if (request.path === '/') {
      const list = own
        .map((each) => `<li><a href="${publication.path(each.slug)}">${each.title}</a></li>`)
        .join('');
      response
        .type('html')
        .send(
          `<!doctype html><html lang="en"><title>${publication.name}</title><h1>${publication.name}</h1><ul>${list}</ul></html>`,
        );
    } else next();
  });

  const rough = roughRoutes();
  app.use((request, response, next) =>
    hostOf(request) === 'rough' ? rough(request, response, next) : next(),
  );

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
    response
      .status(404)
      .type('html')
      .send('<!doctype html><title>Not found</title><h1>There is nothing here.</h1>');
  });
  return app;
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
