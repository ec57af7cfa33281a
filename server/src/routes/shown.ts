import { createHash } from 'node:crypto';
import {
  dossierFeed,
  dossierPage,
  dossierStyle,
  oneLine,
  PAGE_ACCENTS,
  shownItems,
  writeAtom,
  writeJsonFeed,
} from '@dorvel/core/formats';
import { ContentHash, DossierAccent, DossierDesign, DossierTypeface } from '@dorvel/core/model';
import { parse as parseCookies } from 'cookie';
import escape from 'escape-html';
import express, { type Request, type Response, Router } from 'express';
import { z } from 'zod';
import type { FileStore } from '../files/files';
import { coverPicture } from '../publish/documents/pictures';
import { type Dossiers, isKeyOf, keyOf, type OpenedDossier, type PublicationRow } from '../publish/dossiers';
import { originOf } from './origin';
import { sendPicture } from './picture';
import { limitRate } from './tries';

const Secret = z.string().regex(/^[A-Za-z0-9_-]{32}$/);
/** A browser that has given the passphrase is let in for so long. */
const KEY_LIFE_MS = 30 * 24 * 60 * 60 * 1000;
const keyName = (secret: string): string => `shown_${secret.slice(0, 8)}`;

/** Tells the page around how high the fragment is. */
const EMBED_SCRIPT = `new ResizeObserver(()=>parent.postMessage({dorvelHeight:Math.ceil(document.documentElement.getBoundingClientRect().height)},'*')).observe(document.documentElement)`;
/** In the page around: makes each fragment as high as it says it is. */
const FIT_SCRIPT = `addEventListener('message',(event)=>{const height=event.data&&event.data.dorvelHeight;if(typeof height!=='number'||!(height>0&&height<100000))return;for(const frame of document.querySelectorAll('iframe'))if(frame.contentWindow===event.source)frame.style.height=height+'px'})`;
const hashOf = (script: string): string => `'sha256-${createHash('sha256').update(script).digest('base64')}'`;

interface ShownParts {
  dossiers: Dossiers;
  files: FileStore;
  secure: boolean;
}

type Shown = { row: PublicationRow } & OpenedDossier;

/**
 * What readers hand on, for anybody: no session is looked at. A wrong address is answered as if there were nothing here; one that
 * was withdrawn says that it is gone.
 */
export function shownRoutes({ dossiers, files, secure }: ShownParts): Router {
  const router = Router();
  router.use(limitRate(300, 1));
  router.use((_request, response, next) => {
    response.set({ 'cache-control': 'no-cache', 'x-robots-tag': 'noindex', ...policy("'none'") });
    next();
  });

  router.get('/style.css', (request, response) => {
    const { of } = request.query;
    const [design, accent, typeface] = typeof of === 'string' ? of.split('.') : [];
    const look = Look.safeParse({ design, accent, typeface });
    if (!look.success) {
      message(response, 404, 'There is nothing here.');
      return;
    }
    response.set('cache-control', 'public, max-age=3600').type('text/css').send(dossierStyle(look.data));
  });
  router.get('/fit.js', (_request, response) => {
    response
      .set({ 'cache-control': 'public, max-age=3600', 'cross-origin-resource-policy': 'cross-origin' })
      .type('text/javascript')
      .send(FIT_SCRIPT);
  });

  // What this server shows to everybody.
  router.get('/', async (request, response) => {
    const rows = await dossiers.listed();
    const titles = await Promise.all(
      rows.map(async ({ accountId, dossierId, secret }) => {
        const open = await dossiers.open(accountId, dossierId);
        return open ? { secret, title: oneLine(open.handedOn.compiled.title) } : null;
      }),
    );
    const list = titles.flatMap((each) =>
      each ? [`<li><p class="title"><a href="/shown/${each.secret}">${escape(each.title)}</a></p></li>`] : [],
    );
    response.removeHeader('x-robots-tag');
    response.send(
      plainPage(
        'Shown here',
        list.length > 0 ? `<ul class="found">${list.join('')}</ul>` : '<p>Nothing is shown to everybody here.</p>',
      ),
    );
  });

  /** Who may see it is let through; others are answered here. */
  const shown = async (request: Request, response: Response): Promise<Shown | null> => {
    const secret = Secret.safeParse(request.params.secret);
    const row = secret.success ? await dossiers.at(secret.data) : null;
    if (!row) {
      message(response, 404, 'There is nothing here. The address may be cut off.');
      return null;
    }
    if (row.withdrawnAt !== null) {
      message(response, 410, 'What stood here was withdrawn by its owner.');
      return null;
    }
    const key = parseCookies(request.headers.cookie ?? '')[keyName(row.secret)];
    if (row.access === 'passphrase' && !isKeyOf(row, key)) {
      response.status(401).send(passphrasePage(row.secret, null));
      return null;
    }
    const open = await dossiers.open(row.accountId, row.dossierId);
    if (!open) {
      message(response, 410, 'What stood here is gone.');
      return null;
    }
    if (row.access === 'listed') response.removeHeader('x-robots-tag');
    return { row, ...open };
  };

  const guessing = limitRate(20, 15);
  router.post(
    '/:secret',
    guessing,
    express.urlencoded({ extended: false, limit: '4kb' }),
    async (request, response) => {
      const secret = Secret.safeParse(request.params.secret);
      const row = secret.success ? await dossiers.at(secret.data) : null;
      if (row?.access !== 'passphrase' || row.withdrawnAt !== null) {
        message(response, 404, 'There is nothing here. The address may be cut off.');
        return;
      }
      const given = z.object({ passphrase: z.string().max(200) }).safeParse(request.body);
      if (!given.success || !(await dossiers.isPassphrase(row, given.data.passphrase))) {
        response
          .status(401)
          .send(passphrasePage(row.secret, 'That is not the passphrase. Ask who gave you the address.'));
        return;
      }
      response.cookie(keyName(row.secret), keyOf(row), {
        ...{ httpOnly: true, sameSite: 'lax', secure, path: `/shown/${row.secret}`, maxAge: KEY_LIFE_MS },
      });
      response.redirect(303, `/shown/${row.secret}`);
    },
  );

  router.get('/:secret', async (request, response) => {
    const open = await shown(request, response);
    if (open) response.send(pageOf(open, `${originOf(request)}/shown/${open.row.secret}`));
  });

  router.get('/:secret/embed', async (request, response) => {
    const open = await shown(request, response);
    if (!open) return;
    response.set(policy('*', hashOf(EMBED_SCRIPT)));
    response.removeHeader('x-frame-options');
    response.send(pageOf(open, `${originOf(request)}/shown/${open.row.secret}`, `<script>${EMBED_SCRIPT}</script>`));
  });

  router.get('/:secret/feed.:as', async (request, response) => {
    const open = await shown(request, response);
    if (!open) return;
    const home = `${originOf(request)}/shown/${open.row.secret}`;
    const isJson = request.params.as === 'json';
    const feed = dossierFeed(open.handedOn, open.entries, {
      address: `${home}/feed.${isJson ? 'json' : 'atom'}`,
      home,
    });
    response.type(isJson ? 'application/feed+json' : 'application/atom+xml');
    response.send(isJson ? writeJsonFeed(feed) : writeAtom(feed));
  });

  router.get('/:secret/cover.png', async (request, response) => {
    const open = await shown(request, response);
    if (!open) return;
    const { compiled, accent } = open.handedOn;
    const minutes = shownItems(compiled).flatMap(({ capture }) => capture.page?.minutes ?? []);
    response.type('image/png').send(await coverPicture(files, compiled.lead, minutes, PAGE_ACCENTS[accent].day));
  });

  router.get('/:secret/pictures/:file', async (request, response) => {
    const open = await shown(request, response);
    if (!open) return;
    const hash = ContentHash.safeParse(request.params.file.replace(/\.webp$/, ''));
    if (!hash.success || !open.pictures.has(hash.data)) {
      message(response, 404, 'That picture is not shown here.');
      return;
    }
    await sendPicture(response, files, hash.data, 'private, max-age=86400');
  });
  return router;
}

const Look = z.object({ design: DossierDesign, accent: DossierAccent, typeface: DossierTypeface });

/** Pages of others' words: no script but a known one, nothing from elsewhere. @param frames who may frame it */
const policy = (frames: string, script = "'none'") => ({
  'content-security-policy': `default-src 'none';style-src 'self';img-src 'self';font-src 'self';form-action 'self';base-uri 'none';frame-ancestors ${frames};script-src ${script}`,
});

function pageOf({ row, handedOn, pictures }: Shown, home: string, foot = ''): string {
  const { design, accent, typeface, compiled } = handedOn;
  const title = escape(oneLine(compiled.title));
  const isOpen = row.access !== 'passphrase';
  const head = [
    '<link rel="stylesheet" href="/fonts/fonts.css">',
    row.access === 'listed' ? '' : '<meta name="robots" content="noindex">',
    // Who fetches for a preview gives no passphrase.
    isOpen ? `<meta property="og:title" content="${title}"><meta property="og:type" content="article">` : '',
    isOpen
      ? `<meta property="og:image" content="${escape(home)}/cover.png"><meta property="og:url" content="${escape(home)}">`
      : '',
    isOpen
      ? `<link rel="alternate" type="application/atom+xml" href="${escape(home)}/feed.atom" title="${title}">`
      : '',
  ];
  return dossierPage(handedOn, {
    style: { href: `/shown/style.css?of=${design}.${accent}.${typeface}` },
    picture: (hash) => (pictures.has(hash) ? `/shown/${row.secret}/pictures/${hash}.webp` : null),
    head: head.join(''),
    foot: `${isOpen && foot === '' ? `<p class="no-print"><a href="/shown/${row.secret}/feed.atom">What is added, as a feed</a></p>` : ''}${foot}`,
  });
}

function plainPage(title: string, body: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${title}</title><link rel="stylesheet" href="/fonts/fonts.css"><link rel="stylesheet" href="/shown/style.css?of=quiet.plum.literata"></head><body><header><h1>${title}</h1></header><main>${body}</main></body></html>`;
}

function message(response: Response, status: number, words: string): void {
  response
    .status(status)
    .type('html')
    .send(plainPage(status === 410 ? 'Gone' : 'Not found', `<p>${escape(words)}</p>`));
}

function passphrasePage(secret: string, fault: string | null): string {
  return plainPage(
    'A passphrase is needed',
    `<form method="post" action="/shown/${secret}"><p><label for="passphrase">Passphrase</label></p><p><input id="passphrase" name="passphrase" type="password" autocomplete="off" required${fault === null ? '' : ' aria-describedby="fault"'}> <button>Open it</button></p>${fault === null ? '' : `<p id="fault" role="alert">${escape(fault)}</p>`}</form>`,
  );
}
