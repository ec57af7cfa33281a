import { createHash } from 'node:crypto';
import { HowMuch, Id, MAX_ADDRESS_LENGTH } from '@dorvel/core/model';
import type { HybridClock } from '@dorvel/core/sync';
import escapeHtml from 'escape-html';
import express, { type Response, Router } from 'express';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { Tokens } from '../accounts/tokens';
import type { Library } from '../library/library';
import { saveFor } from '../library/save-for';
import { takeMutation } from '../library/take-mutations';
import { limitRate } from './tries';

interface SavePageParts {
  tokens: Tokens;
  library(accountId: string): Library;
  clockOf(accountId: string): HybridClock;
  bell: { ring(accountId: string): void };
  wakeRunner(): void;
}

/** A page with more markup than this is fetched by the server instead. */
const MAX_HTML_SIZE = 3_000_000;
const SaveForm = z.object({
  token: z.string().min(1).max(200),
  address: z.string().trim().min(1).max(MAX_ADDRESS_LENGTH),
  howMuch: HowMuch.optional().catch(undefined),
  html: z
    .string()
    .optional()
    .transform((html) => (html && html.trim() !== '' && html.length <= MAX_HTML_SIZE ? html : undefined)),
});
const UndoForm = z.object({ token: z.string().min(1).max(200), item: Id });

const REVOKED = 'The token in this bookmark is not known here: it was revoked, or is of another library.';

/**
 * The small page that a bookmarklet posts to, from any site: who holds a token may save, and take that back. It has no script, and
 * no session counts here, so that a foreign page can do nothing with either.
 */
export function savePageRoutes(parts: SavePageParts): Router {
  const router = Router();
  const limited = limitRate(120, 1);
  const form = express.urlencoded({ extended: false, limit: '12mb' });

  router.post('/save', limited, form, async (request, response) => {
    send(response, await save(request.body, parts));
  });
  router.post('/save/undo', limited, form, async (request, response) => {
    send(response, await undo(request.body, parts));
  });
  return router;
}

/** What the reader is shown. */
interface Page {
  status: number;
  title: string;
  says: string;
  /** The name of the token, which its owner gave it. */
  token?: string;
  /** Markup, escaped already. */
  more?: string;
}

async function save(body: unknown, parts: SavePageParts): Promise<Page> {
  const not = { title: 'Not saved' };
  const parsed = SaveForm.safeParse(body);
  if (!parsed.success) return { ...not, status: 400, says: 'What the bookmark sent could not be read.' };
  const { token, address, howMuch, html } = parsed.data;
  const used = await parts.tokens.use(token, 'save');
  if (!used) return { ...not, status: 403, says: REVOKED };
  const { account } = used;
  const saved = await parts.library(account.id).change((write) =>
    saveFor(
      write,
      {
        address,
        ...(howMuch ? { howMuch } : {}),
        ...(html ? { given: { type: 'text/html', body: html, encoding: 'utf8' } } : {}),
      },
      { clock: parts.clockOf(account.id), now: Date.now },
    ),
  );
  if (!saved.ok) return { ...not, status: 400, says: saved.says, token: used.name };
  parts.bell.ring(account.id);
  parts.wakeRunner();
  const { item, wasThere } = saved;
  if (!wasThere) await parts.tokens.remember(used.id, item.id, Date.now() - UNDO_MS);
  const undoForm = `<form method="post" action="/save/undo"><input type="hidden" name="token" value="${escapeHtml(token)}"><input type="hidden" name="item" value="${item.id}"><button>Undo</button></form>`;
  return {
    status: 200,
    title: wasThere ? 'Already there' : 'Saved to Inbox',
    // Who holds the token may save, and is told nothing of what was there before.
    says: wasThere
      ? 'This page is in the library. It is on top again.'
      : html
        ? 'The page goes along as you see it; its text is there in a moment.'
        : 'Its text is fetched, and there in a moment.',
    token: used.name,
    more: `<p class="page">${escapeHtml(item.address)}</p>
<p><a href="/inbox/${item.id}">Open it in Dorvel</a></p>${wasThere ? '' : undoForm}`,
  };
}

/** A save can be taken back for so long, by the token that made it; the token is for saving, not for emptying the library. */
const UNDO_MS = 60 * 60 * 1000;

async function undo(body: unknown, parts: SavePageParts): Promise<Page> {
  const not = { title: 'Not taken back' };
  const parsed = UndoForm.safeParse(body);
  const used = parsed.success ? await parts.tokens.use(parsed.data.token, 'save') : null;
  if (!parsed.success || !used) return { ...not, status: 403, says: REVOKED };
  const itemId = parsed.data.item;
  const { account } = used;
  const isItsOwn = await parts.tokens.hasSaved(used.id, itemId, Date.now() - UNDO_MS);
  if (isItsOwn) {
    const clock = parts.clockOf(account.id);
    await parts.library(account.id).change(async (write) => {
      const base = { id: uuidv7(), itemId, stamp: clock.next() };
      const mutation = { ...base, type: 'choose', set: { stage: 'let-go' } };
      await takeMutation(write, mutation, { clock, now: Date.now });
    });
    parts.bell.ring(account.id);
  }
  return isItsOwn
    ? {
        status: 200,
        title: 'Taken back',
        says: 'It is let go. It can be brought back for 30 days.',
        token: used.name,
      }
    : {
        ...not,
        status: 404,
        says: 'It was not saved by this bookmark, or too long ago. Let it go in the library.',
        token: used.name,
      };
}

const STYLE = `:root{color-scheme:light dark;--ground:#F7F4EE;--ink:#2B2033;--soft:#5E5268;--accent:#6E2F6B;--on:#FFF9F2}
@media(prefers-color-scheme:dark){:root{--ground:#18121D;--ink:#EEE6DA;--soft:#B9ADBF;--accent:#D7A0D6;--on:#2A1030}}
body{margin:0;background:var(--ground);color:var(--ink);font:17px/1.5 system-ui,sans-serif}
main{max-width:30rem;margin:0 auto;padding:2.5rem 1.25rem}h1{font-size:1.5rem;line-height:1.25;margin:0 0 .5rem}
p,form{margin:0 0 1rem}.page{font-weight:600}.account{color:var(--soft);font-size:.9rem}a{color:var(--accent)}
a{display:inline-block;min-height:44px;line-height:44px}
button{font:inherit;font-weight:600;min-height:48px;padding:.5rem 1.25rem;border:0;border-radius:14px;background:var(--accent);color:var(--on)}
:focus-visible{outline:3px solid var(--accent);outline-offset:2px}`;
const POLICY = `default-src 'none'; style-src 'sha256-${createHash('sha256').update(STYLE).digest('base64')}'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'`;

function send(response: Response, { status, title, says, token, more = '' }: Page): void {
  const whose = token ? `<p class="account">By the bookmark “${escapeHtml(token)}”</p>` : '';
  response
    .status(status)
    .set({ 'content-security-policy': POLICY, 'cache-control': 'no-store' })
    .type('html')
    .send(
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escapeHtml(title)}</title><style>${STYLE}</style></head><body><main><h1>${escapeHtml(title)}</h1><p>${escapeHtml(says)}</p>${more}${whose}</main></body></html>`,
    );
}
