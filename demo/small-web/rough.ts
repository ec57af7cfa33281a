import { Router } from 'express';

/** The unpleasant side of the web, for trying what becomes of a save: a stand-in, on the host `rough`. */
export function roughRoutes(): Router {
  const router = Router();
  let askedBusy = 0;
  router.get('/hangs', () => undefined);
  router.get('/circle', (_request, response) => response.redirect('/circle-2'));
  router.get('/circle-2', (_request, response) => response.redirect('/circle'));
  router.get('/endless/:n', (request, response) =>
    response.redirect(`/endless/${Number(request.params.n) + 1}`),
  );
  router.get('/inside', (_request, response) => response.redirect('http://127.0.0.1:9/'));
  router.get('/huge', (_request, response) => {
    response.type('html');
    const chunk = Buffer.alloc(1_000_000, 'The same words again and again. ');
    let sent = 0;
    const send = () => {
      while (sent++ < 60) if (!response.write(chunk)) return void response.once('drain', send);
      response.end();
    };
    response.on('close', () => (sent = 61));
    send();
  });
  router.get('/zip', (_request, response) =>
    response.type('application/zip').send(Buffer.from('504b030414000000080000002100', 'hex')),
  );
  router.get('/empty', (_request, response) => response.type('html').send(''));
  router.get('/not-text', (_request, response) =>
    response.type('html').send(Buffer.from(Array.from({ length: 2000 }, (_, i) => (i * 37) % 256))),
  );
  router.get('/broken', (_request, response) =>
    response
      .type('html')
      .send(
        `<html><body><div><p>The first paragraph is <b>never closed, and it goes on for long enough to be taken for one, with a comma.<p>The second is <i>in the middle of</b> a tangle</i> of ends, which browsers sort out, and we with them.<table><tr><td>and a cell <div>with a box<p>A third paragraph that stands in a place where none may stand, but which must not be lost.`,
      ),
  );
  router.get('/charset', (_request, response) => {
    // The header says nothing of the charset; only the meta tells. (Express's own send() would add one.)
    response.setHeader('content-type', 'text/html');
    response.end(
      Buffer.from(
        '<meta charset="windows-1252"><title>Fähre</title><p>Die Fähre fährt früh über den Sund, und die Möwen schreien darüber, als wäre es ihre.',
        'latin1',
      ),
    );
  });
  router.get('/gone', (_request, response) => void response.status(410).type('html').send('<h1>Gone</h1>'));
  router.get('/busy', (_request, response) => {
    askedBusy++;
    if (askedBusy === 1) response.status(503).set('retry-after', '1').send('busy');
    else
      response
        .type('html')
        .send(
          `<title>Not busy any more</title><article>${'<p>The second time it was asked, the page answered, and all was well with it.</p>'.repeat(5)}</article>`,
        );
  });
  router.get('/moved', (_request, response) => response.redirect(301, '/settled?utm_source=elsewhere'));
  router.get('/settled', (_request, response) =>
    response
      .type('html')
      .send(
        `<title>Settled</title><link rel="canonical" href="/settled"><article>${'<p>This page has moved once, and now it stays where it is, as pages should.</p>'.repeat(5)}</article>`,
      ),
  );
  router.get('/long', (_request, response) => {
    const paragraph =
      '<p>A long page goes on, and on; it says little, but it says it at length, with commas, so that it looks like prose to whoever measures it.</p>';
    response.type('html').send(`<title>Long</title><article>${paragraph.repeat(35_000)}</article>`);
  });
  router.get('/n/:n', (request, response) => {
    setTimeout(
      () =>
        response
          .type('html')
          .send(
            `<title>Page ${request.params.n}</title><article>${`<p>Page number ${request.params.n} says something of its own, slowly, and then it says it again, for good measure.</p>`.repeat(4)}</article>`,
          ),
      150,
    );
  });
  return router;
}
