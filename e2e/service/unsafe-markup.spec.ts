import { readFileSync } from 'node:fs';
import path from 'node:path';
import { extractArticle, treeToHtml } from '@dorvel/core/extract';
import { HowMuch } from '@dorvel/core/model';
import { expect, type Page, test } from '@playwright/test';
import { nextFrames } from '../reader';

/** The inputs of bluemonday's tests (BSD-3-clause, see LICENCE.txt beside them), the OWASP cheat sheet's among them. */
const VECTORS = JSON.parse(
  readFileSync(path.join(import.meta.dirname, '../vectors/unsafe-markup.json'), 'utf8'),
) as string[];

const SHELF = 'https://shelf.example/';
const PROSE =
  '<p>A paragraph of honest prose stands here, long enough to be taken for the text, with commas, and a full stop.</p>';
const pageWith = (vector: string) =>
  `<html><head><title>A page</title></head><body><article>${PROSE}${PROSE}<div>${vector}</div>${PROSE}<p>${vector}</p></article></body></html>`;

/** What the server does with a picture that did not come through; one that did is a file of its own. */
const withoutSources = (html: string) => html.replace(/(<img[^>]*?) src="[^"]*"/g, '$1');

/** Puts each piece into a page without any policy, touches all that is in it, and tells what ran and what was asked for. */
async function render(page: Page, pieces: readonly string[]): Promise<{ ran: string[]; requests: string[] }> {
  const requests: string[] = [];
  const ran: string[] = [];
  const html = `<!doctype html><title>Kept</title>${pieces.map((piece) => `<section>${piece}</section>`).join('')}`;
  await page.exposeFunction('somethingRan', (what: string) => ran.push(what));
  await page.addInitScript(() => {
    const tell = (window as unknown as { somethingRan(what: string): void }).somethingRan;
    for (const name of ['alert', 'confirm', 'prompt', 'open', 'print'] as const)
      Object.defineProperty(window, name, {
        value: (...words: unknown[]) => tell(`${name}(${words.map(String).join()})`),
      });
  });
  await page.route('**/*', (route) => {
    const { href } = new URL(route.request().url());
    if (href === SHELF) return route.fulfill({ contentType: 'text/html', body: html });
    if (!href.endsWith('/favicon.ico')) requests.push(href);
    return route.abort();
  });
  await page.goto(SHELF);
  // Whatever waits for the pointer, the focus or a key gets it.
  await page.evaluate(() => {
    const types = 'mouseover mouseenter focus click toggle load error animationstart'.split(' ');
    for (const element of document.querySelectorAll('section *'))
      for (const type of types)
        if (!(type === 'click' && element.closest('a'))) element.dispatchEvent(new Event(type, { bubbles: true }));
  });
  await nextFrames(page, 20);
  return { ran, requests };
}

test('the vectors do run and load where nothing cleans them', async ({ page }) => {
  // One of them alone: together, one that is never closed swallows the others.
  const { ran, requests } = await render(
    page,
    VECTORS.filter((vector) => /^<img [^<]*onmouseover/i.test(vector)),
  );
  expect(VECTORS.length).toBeGreaterThan(400);
  expect(ran.length + requests.length).toBeGreaterThan(0);
});

for (const howMuch of HowMuch.options.filter((each) => each !== 'address-only'))
  test(`no vector runs, loads or submits in what is kept as ${howMuch}`, async ({ page }) => {
    const pieces = VECTORS.map((vector) =>
      withoutSources(treeToHtml(extractArticle(pageWith(vector), 'https://pages.example/a/', howMuch).tree)),
    );
    expect(await render(page, pieces)).toEqual({ ran: [], requests: [] });
    await expect(page.locator('section')).toHaveCount(VECTORS.length);
    const unsafe = await page.evaluate(() => {
      const found: string[] = [];
      for (const element of document.querySelectorAll('section *')) {
        if (/^(?:script|style|iframe|object|embed|form|input|button|link|meta|base|svg)$/i.test(element.tagName))
          found.push(element.tagName);
        for (const { name, value } of element.attributes) {
          if (/^(?:on|style|srcdoc|action|formaction|background|xlink)/i.test(name))
            found.push(`${element.tagName} ${name}`);
          if (name === 'href' && !/^(?:https?:\/\/|#in-)/.test(value)) found.push(`href ${value}`);
        }
      }
      return found;
    });
    expect(unsafe).toEqual([]);
  });
