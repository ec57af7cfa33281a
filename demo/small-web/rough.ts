import { type Response, Router } from 'express';
import { escape } from './page-parts';

const CONSENT =
  '<title>Tide news</title><body><div class="wall"><h1>We value your privacy</h1><p>To go on, accept all cookies of ours and of our 214 partners.</p><button>Accept</button></div>';
const CAPTCHA =
  '<title>One moment</title><body><p>Checking your browser. Please solve the captcha: how many of these are boats?</p>';
const PARKED =
  '<title>oldharbour.example</title><body><h1>oldharbour.example</h1><p>This domain is for sale. Buy this domain today.</p><p><a href="/a">Boats</a> <a href="/b">Loans</a></p>';
const NOT_FOUND =
  '<title>Page not found</title><body><h1>404</h1><p>The page you are looking for does not exist any more.</p>';
const SCRIPT_BUILT = `<title>Harbour app</title><body><div id="root"></div><noscript>Please enable JavaScript to use this page.</noscript><script>${'/* the whole of the app */'.repeat(900)}</script>`;

function send(response: Response, html: string): void {
  response.type('html').send(html);
}

/** What becomes of a page in the course of years: written, rewritten, put behind a notice, taken away. */
const TURNS = ['first', 'rewritten', 'error-page', 'gone'] as const;

/** A page by name that turns when it is posted to. */
function turningRoutes(router: Router): void {
  const at = new Map<string, number>();
  router.get('/turning/:name', (request, response) => {
    const turn = TURNS[at.get(request.params.name) ?? 0];
    if (turn === 'gone') response.status(410).type('html').send('<h1>Gone</h1>');
    else if (turn === 'error-page') send(response, NOT_FOUND);
    else send(response, timetable(request.params.name, turn === 'rewritten'));
  });
  router.post('/turning/:name/next', (request, response) => {
    const next = Math.min(TURNS.length - 1, (at.get(request.params.name) ?? 0) + 1);
    at.set(request.params.name, next);
    response.json({ turn: TURNS[next] });
  });
}

function timetable(name: string, rewritten: boolean): string {
  const place = name
    .split('-')
    .map((word) => word.charAt(0).toUpperCase() + word.slice(1))
    .join(' ');
  const fare = rewritten ? 'five' : 'four';
  return `<!doctype html><html lang="en"><title>Crossing to ${escape(place)}</title><body><article><h1>Crossing to ${escape(place)}</h1>
<p>The boat leaves from the inner steps at nine on weekdays, and at ten on Sundays when there is somebody to take.</p>
<p>The fare is ${fare} for the crossing and the same for the way back, to be put in the box; children and dogs go free, and bicycles do not.</p>
${rewritten ? '<p>From December there is a crossing at two as well, on Wednesdays, for those who have been to the surgery.</p>' : '<p>In January and February there is no boat, since there is nobody to steer it.</p>'}
<p>If the flag on the pier is down the boat does not go. Nobody will telephone you about it, so look at the flag before you put your boots on.</p>
<p>This sheet is printed by the harbour office free of charge and may be left on the bench.</p></article></body></html>`;
}

/** A feed by name that has one entry more each time it is posted to, until it lapses. */
function feedRoutes(router: Router): void {
  const LAPSES_AT = 6;
  const count = new Map<string, number>();
  router.get('/feed/:name', (request, response) => {
    const entries = count.get(request.params.name) ?? 1;
    if (entries >= LAPSES_AT) {
      response.status(410).type('html').send('<h1>Gone</h1>');
      return;
    }
    const items = Array.from({ length: entries }, (_, at) => entries - at)
      .map(
        (n) =>
          `<item><title>Notice ${n} of the harbour office</title><link>/turning/${encodeURIComponent(request.params.name)}-notice-${n}</link><description>The ${n}. notice of this winter.</description></item>`,
      )
      .join('');
    response
      .type('application/rss+xml')
      .send(
        `<rss version="2.0"><channel><title>Harbour notices: ${escape(request.params.name)}</title><link>/</link>${items}</channel></rss>`,
      );
  });
  router.post('/feed/:name/next', (request, response) => {
    const { name } = request.params;
    const to = Number(request.query.to) || (count.get(name) ?? 1) + 1;
    count.set(name, to);
    response.json({ entries: to });
  });
}

/** The unpleasant side of the web, for trying what becomes of a save: a stand-in, on the host `rough`. */
export function roughRoutes(): Router {
  const router = Router();
  let askedBusy = 0;
  router.get('/hangs', () => undefined);
  router.get('/circle', (_request, response) => response.redirect('/circle-2'));
  router.get('/circle-2', (_request, response) => response.redirect('/circle'));
  router.get('/endless/:n', (request, response) => response.redirect(`/endless/${Number(request.params.n) + 1}`));
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
  router.get('/consent', (_request, response) => send(response, CONSENT));
  router.get('/captcha', (_request, response) => send(response, CAPTCHA));
  router.get('/parked', (_request, response) => send(response, PARKED));
  router.get('/not-found-as-200', (_request, response) => send(response, NOT_FOUND));
  router.get('/script-built', (_request, response) => send(response, SCRIPT_BUILT));
  turningRoutes(router);
  feedRoutes(router);
  router.get('/strict/:name', (request, response) => {
    response.set('content-security-policy', "default-src 'none'");
    send(response, timetable(request.params.name, true));
  });
  router.get('/closed/:name', (request, response) => {
    response.set('content-security-policy', "default-src 'none'; form-action 'none'");
    send(response, timetable(request.params.name, true));
  });
  router.get('/members/:name', (request, response) => {
    if (/\bmember=yes\b/.test(request.get('cookie') ?? '')) send(response, timetable(request.params.name, true));
    else
      send(
        response,
        '<title>Sign in</title><h1>For members</h1><form method="post"><label>Name <input name="name"></label><label>Password <input type="password" name="word"></label><button>Sign in</button></form>',
      );
  });
  // Its text stands in a shadow root that a script has built: markup alone does not have it.
  router.get('/built/:name', (request, response) => {
    const { name } = request.params;
    send(
      response,
      `<title>Log of the ${name}</title><h1>Log of the ${name}</h1><ship-log></ship-log><script>
document.querySelector('ship-log').attachShadow({mode:'open'}).innerHTML='<article>'+'<p>The ${name} left the quay at seven, and met a long swell off the point, as she does in the autumn.</p>'.repeat(6)+'</article>';
</script>`,
    );
  });
  // A page that searches the web, as far as the extension is concerned.
  router.get('/search', (request, response) => {
    const words = escape(typeof request.query.words === 'string' ? request.query.words : '');
    send(
      response,
      `<title>${words}</title><main><form><label>Search <input name="words" value="${words}"></label><button>Go</button></form><p>Nothing was found on the small web.</p></main>`,
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
