import { expect, type Page } from '@playwright/test';
import { smallWebAddresses } from '../../demo/small-web/server';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { SMALL_WEB_PORT } from '../ports';
import { openInYou } from '../reader';
import { type ExtendedBrowser, extendedBrowser, pairWith } from './browser';

let browser: ExtendedBrowser;
test.beforeEach(async () => {
  browser = await extendedBrowser();
});
test.afterEach(() => browser.end());

/** A page that is in no library. */
const REPORT = smallWebAddresses(SMALL_WEB_PORT).find(({ slug }) => slug === 'on-being-rowed')?.address ?? '';

const OURS = 'aside[aria-label="Echoes of your library"]';
const layer = (page: Page) => page.getByRole('complementary', { name: 'Echoes of your library' });
const card = (page: Page) => layer(page).getByRole('region');

/** Notes down all that the extension's background asks of anybody. */
const watchBackground = () =>
  browser.worker.evaluate(() => {
    const watched = globalThis as typeof globalThis & { asked?: string[] };
    const fetchAsBefore = fetch;
    watched.asked = [];
    globalThis.fetch = (...words) => {
      watched.asked?.push(String(words[0] instanceof Request ? words[0].url : words[0]));
      return fetchAsBefore(...words);
    };
  });
const askedByBackground = () =>
  browser.worker.evaluate(() => (globalThis as typeof globalThis & { asked?: string[] }).asked);
const itemsKnown = () =>
  browser.worker.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const opening = indexedDB.open('echoes');
        opening.onsuccess = () => {
          const counting = opening.result.transaction('items').objectStore('items').count();
          counting.onsuccess = () => resolve(counting.result);
        };
      }),
  );

test('a page of the web shows what of it stands in the library, and nobody learns that it was opened', async ({
  seeded,
}) => {
  const app = await pairWith(browser, seeded, 'Browser with echoes');
  const plain = await browser.context.newPage();
  await plain.goto(REPORT);
  await expect(layer(plain)).toHaveCount(0);
  await plain.close();

  const options = await browser.open('options.html');
  await options.getByLabel('Echoes are shown').selectOption('On all pages');
  await options.getByLabel('How many').selectOption('More');
  await expectAccessible(options, 'the settings of echoes');
  await options.close();
  await expect.poll(itemsKnown).toBeGreaterThan(20);
  await watchBackground();

  const page = await browser.context.newPage();
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(REPORT);
  await expect(layer(page)).toContainText(/\d echoes|One echo/);
  const count = Number(
    /\d+/.exec(
      await layer(page)
        .getByText(/echo(?:es)?$/)
        .innerText(),
    )?.[0] ?? 1,
  );
  expect(count).toBeGreaterThan(1);
  expect(asked.filter((url) => new URL(url).host !== new URL(REPORT).host)).toEqual([]);
  expect(await askedByBackground()).toEqual([]);
  // The page's own scripts do not see what is marked.
  expect(await page.evaluate(() => [...CSS.highlights.keys()])).toEqual([]);

  await test.step('from echo to echo, by keys, and the passage in the library', async () => {
    await layer(page).getByRole('button', { name: 'The next echo' }).press('Enter');
    await expect(card(page)).toContainText(`Echo 1 of ${count} on this page`);
    await layer(page).getByRole('button', { name: 'The echo before' }).press('Enter');
    await expect(card(page)).toContainText(`Echo ${count} of ${count} on this page`);
    await expectAccessible(page, 'an echo on a page', OURS);
    await expectTargets(page, 'an echo on a page', OURS);
    const term = /^“(.*)” in your library$/.exec((await card(page).getAttribute('aria-label')) ?? '')?.[1] ?? '';
    await expect(card(page).getByRole('blockquote').first()).toContainText(new RegExp(term.slice(0, 4), 'i'));
    const opening = browser.context.waitForEvent('page');
    await card(page).getByRole('link').first().click();
    const item = await opening;
    await expect
      .poll(() =>
        item.evaluate(() => [...(CSS.highlights.get('found') ?? [])].map((range) => (range as Range).toString())),
      )
      .toEqual([expect.stringMatching(new RegExp(term.slice(0, 4), 'i'))]);
    await item.close();
    await page.keyboard.press('Escape');
    await expect(card(page)).toHaveCount(0);
  });

  await test.step('a term is silenced here and everywhere, and brought back there', async () => {
    await layer(page).getByRole('button', { name: 'The next echo' }).click();
    const term = /^“(.*)” in your library$/.exec((await card(page).getAttribute('aria-label')) ?? '')?.[1] ?? '';
    await card(page).getByRole('button', { name: 'Not this word' }).click();
    await expect(layer(page).getByRole('status')).toContainText(`“${term}” is silenced`);
    await layer(page).getByRole('button', { name: 'Undo' }).click();
    await expect(layer(page)).toContainText(`${count} echoes`);
    await layer(page).getByRole('button', { name: 'The next echo' }).click();
    await card(page).getByRole('button', { name: 'Not this word' }).click();
    await page.reload();
    await expect(layer(page)).toBeAttached();
    await layer(page).getByRole('button', { name: 'The next echo' }).click();
    await expect(card(page)).not.toContainText(`“${term}” in your library`);
    await openInYou(app, 'Pace and silenced words');
    await app.getByRole('button', { name: `Allow “${term}” again` }).click();
  });

  await test.step('a site is left out', async () => {
    await card(page).getByRole('button', { name: 'Not on this site' }).click();
    await expect(layer(page).getByRole('status')).toContainText('No more echoes on this site');
    await page.reload();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(layer(page)).toHaveCount(0);
    const settings = await browser.open('options.html');
    await expect(settings.getByRole('list', { name: 'Never on' })).toContainText(new URL(REPORT).hostname);
  });
});
