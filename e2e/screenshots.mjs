// npm run screenshots: docs/screenshots again, from a demo that is running (PORT, default 4800).
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { chromium } from '@playwright/test';
import sharp from 'sharp';
import { root } from '../scripts/steps.mjs';

const origin = `http://127.0.0.1:${process.env.PORT ?? 4800}`;
const executablePath = ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);
const browser = await chromium.launch({
  executablePath,
  args: '--no-sandbox --disable-gpu --no-first-run --disable-background-networking'.split(' '),
});

async function visit(viewport, colorScheme, steps) {
  const page = await (await browser.newContext({ viewport, colorScheme, reducedMotion: 'reduce' })).newPage();
  const shot = async (name) => {
    await page.waitForTimeout(900);
    await page.screenshot({ path: path.join(root, 'docs/screenshots', `${name}.png`) });
  };
  await page.goto(`${origin}/sign-in`);
  await page.getByRole('button', { name: 'Fill in the demo account' }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('region', { name: 'Come back' }).waitFor();
  // Everything of Inbox and Queue should be on the device in the pictures.
  await page.waitForTimeout(6000);
  await steps.then({
    page,
    shot,
    place: (name) =>
      page
        .getByRole('navigation', { name: 'Places' })
        .getByRole('link', { name: new RegExp(`^${name}`) })
        .click(),
  });
  await page.context().close();
}

/** As a reader scrolls: the place is held against what else moves the text. */
async function scrollBy(page, height) {
  const box = await page.getByTestId('reader').boundingBox();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.waitForTimeout(600);
  await page.mouse.wheel(0, height);
}

async function listen(page) {
  await page.getByRole('button', { name: 'Listen', exact: true }).click();
  await page.getByRole('button', { name: 'Pause', exact: true }).waitFor();
  await page.waitForTimeout(2500);
}

const phone = { width: 390, height: 844 };
await visit(phone, 'light', {
  then: async ({ page, shot, place }) => {
    await shot('now-day');
    await page.goto(`${origin}/from-memory`);
    await page.getByRole('button', { name: 'Show the answer' }).click();
    await shot('from-memory');
    await page.goto(`${origin}/doing`);
    await page.getByRole('img', { name: /^Minutes by week/ }).waitFor();
    await shot('doing-day');
    await place('Inbox');
    await shot('inbox');
    await page.getByRole('button', { name: 'Sort, one at a time' }).click();
    await page.getByRole('region', { name: 'Gist' }).waitFor();
    await shot('sort-day');
    await place('Inbox');
    await page.getByRole('button', { name: /^Feeds/ }).click();
    await page.getByRole('list', { name: 'New in your feeds' }).waitFor();
    await shot('feeds');
    await place('Library');
    await page.getByRole('searchbox', { name: 'Find' }).fill('harbour silt');
    await page.locator('mark').first().waitFor();
    await shot('found');
    await page.getByRole('button', { name: 'Clear the search' }).click();
    await place('Queue');
    await page.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await shot('reader-day');
    await listen(page);
    await shot('player-day');
    await page.getByRole('button', { name: 'Stop listening' }).click();
    await page.waitForFunction(() => (CSS.highlights.get('echo')?.size ?? 0) > 0);
    await page.keyboard.press('o');
    await page.getByRole('list', { name: 'Where else' }).waitFor();
    await shot('echoes');
    await page.keyboard.press('Escape');
    await page
      .getByRole('button', { name: /^Back to/ })
      .first()
      .click();
    await place('Queue');
    await page.getByRole('link', { name: /What amber did on the pier/ }).click();
    await page.getByRole('switch', { name: 'Pass over what I know' }).click();
    await scrollBy(page, 190);
    await page.waitForTimeout(1500);
    await shot('new-to-you');
    await page.goto(`${origin}/look-back`);
    const subjects = page.getByRole('list', { name: 'Subjects' });
    // On a Monday morning there is nothing yet to look back on.
    await subjects
      .waitFor({ timeout: 5000 })
      .catch(() => page.getByRole('button', { name: 'The week before' }).click());
    await subjects.waitFor();
    await shot('look-back');
  },
});
await visit(phone, 'dark', {
  then: async ({ page, shot, place }) => {
    await page.goto(`${origin}/marks`);
    await page.getByText('Roots hold sand.').waitFor();
    await shot('marks');
    await place('Queue');
    await page.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await shot('reader-night');
  },
});
await visit({ width: 1280, height: 800 }, 'light', {
  then: async ({ page, shot, place }) => {
    await shot('now-wide');
    await place('Queue');
    await page.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await page
      .getByRole('button', { name: /^“.*” elsewhere/ })
      .nth(3)
      .scrollIntoViewIfNeeded();
    await page.waitForTimeout(1500);
    await shot('wide');
    await place('Inbox');
    await page.getByRole('button', { name: 'Sort in bulk' }).click();
    await page.getByRole('row').nth(2).click();
    await page
      .getByRole('row')
      .nth(4)
      .click({ modifiers: ['Shift'] });
    await page.waitForTimeout(1500);
    await shot('bulk');
  },
});
/** Several pictures beside one another, as one. @param width of them all, and of what is between them */
async function sideBySide(name, pictures, width = pictures.length * 400 - 10) {
  const page = await (await browser.newContext({ viewport: { width, height: 844 } })).newPage();
  const images = pictures.map((each) => `<img src="data:image/png;base64,${each.toString('base64')}">`);
  await page.setContent(
    `<body style="margin:0;display:flex;gap:10px;background:#888;align-items:flex-start">${images.join('')}</body>`,
  );
  await page.screenshot({ path: path.join(root, 'docs/screenshots', `${name}.png`) });
  await page.context().close();
}

await visit(phone, 'light', {
  then: async ({ page }) => {
    const pictures = [];
    const look = async (of = page) => {
      await of.waitForTimeout(1200);
      pictures.push(await of.screenshot());
    };
    await page.goto(`${origin}/dossiers`);
    await page.getByRole('link', { name: /A new engine/ }).click();
    await page.getByRole('radio', { name: 'Page' }).waitFor();
    await look();
    for (const way of ['Wall', 'Facts']) {
      await page.getByRole('radio', { name: way }).click();
      await page.getByRole('radio', { name: way }).scrollIntoViewIfNeeded();
      await look();
    }
    await page.getByRole('button', { name: 'Hand it on…' }).click();
    const put = page.getByRole('button', { name: 'Put it at an address' });
    const address = page.getByRole('note', { name: 'Address of the page' });
    await put.or(address).waitFor();
    if (await put.isVisible()) await put.click();
    await address.waitFor();
    const shown = await (await browser.newContext({ viewport: phone })).newPage();
    await shown.goto(await address.innerText());
    await look(shown);
    await shown.context().close();
    await sideBySide('dossier', pictures);
  },
});

/** The wall of pictures, and on a phone a word that was found in one of them. */
const ofPictures = [];
for (const [size, theme] of [
  [{ width: 1280, height: 800 }, 'light'],
  [phone, 'dark'],
])
  await visit(size, theme, {
    then: async ({ page }) => {
      await page.goto(`${origin}/pictures`);
      const chandler = page.getByRole('link', { name: /chandler/ });
      await chandler.waitFor();
      if (size === phone) await chandler.scrollIntoViewIfNeeded();
      await page.waitForTimeout(2500);
      ofPictures.push(await page.screenshot());
    },
  });
await visit(phone, 'light', {
  then: async ({ page, place }) => {
    await place('Library');
    await page.getByRole('searchbox', { name: 'Find' }).fill('shackle sheave');
    await page
      .getByRole('link', { name: /chandler/ })
      .first()
      .click();
    await page.locator('.piece-outlined').first().waitFor();
    await page.waitForTimeout(1500);
    ofPictures.push(await page.screenshot());
  },
});
await sideBySide('pictures', ofPictures, 1280 + 2 * (10 + 390));

const made = (name) => path.join(root, 'docs/screenshots', `${name}.png`);
await sideBySide('reader', [readFileSync(made('reader-day')), readFileSync(made('reader-night'))]);
await sideBySide('inbox', [readFileSync(made('inbox')), readFileSync(made('feeds'))]);

/** The tour at the head of the README: what a reader does, one after the other. */
const TOUR = 'now-day sort-day reader-day player-day echoes new-to-you found from-memory look-back'.split(' ');
const frames = await Promise.all(TOUR.map((name) => sharp(made(name)).resize({ width: 312 }).png().toBuffer()));
await sharp(frames, { join: { animated: true } })
  .webp({ delay: TOUR.map(() => 2200), loop: 0, quality: 82 })
  .toFile(path.join(root, 'docs/screenshots/tour.webp'));
for (const name of ['reader-day', 'reader-night', 'feeds']) rmSync(made(name));

await browser.close();

/** The panel of the browser's button, over a page of the small web that is in the library. */
const extension = path.join(root, 'extension/dist/granted');
const extended = await chromium.launchPersistentContext('', {
  executablePath,
  args: ['--no-sandbox', '--disable-gpu', `--disable-extensions-except=${extension}`, `--load-extension=${extension}`],
  ignoreDefaultArgs: ['--disable-extensions'],
});
const worker = extended.serviceWorkers()[0] ?? (await extended.waitForEvent('serviceworker'));
const at = (name) => `chrome-extension://${new URL(worker.url()).host}/${name}`;
const app = await extended.newPage();
await app.goto(`${origin}/sign-in`);
await app.getByRole('button', { name: 'Fill in the demo account' }).click();
await app.getByRole('button', { name: 'Sign in' }).click();
await app.getByRole('heading', { name: 'Now', level: 1 }).waitFor();
await app.goto(`${origin}/you/elsewhere`);
await app.getByRole('button', { name: 'Make a pairing code' }).click();
const code = await app.getByRole('note', { name: 'Pairing code' }).textContent();
const panel = await extended.newPage();
await panel.setViewportSize({ width: 380, height: 844 });
await panel.goto(at('options.html'));
await panel.getByLabel('Pairing code').fill(code);
await panel.getByRole('button', { name: 'Pair', exact: true }).click();
await panel.getByText('It saves to the library of').waitFor();
const smallWeb = `http://tidewater.localhost:${Number(process.env.PORT ?? 4800) + 10}`;
await app.goto(smallWeb);
await app.getByRole('link', { name: 'Forty-one crossings' }).click();
const tab = await worker.evaluate(
  async (url) => (await globalThis.chrome.tabs.query({})).find((each) => each.url === url).id,
  app.url(),
);
// What is related is gone through behind the first answer.
for (let tries = 0; tries < 20; tries++) {
  await panel.goto(at(`panel.html?tab=${tab}`));
  await panel.mouse.move(10, 10);
  const related = panel.getByText('Related, from your library');
  if (
    await related.waitFor({ timeout: 3000 }).then(
      () => true,
      () => false,
    )
  )
    break;
}
await panel.waitForTimeout(900);
await panel.screenshot({ path: path.join(root, 'docs/screenshots/panel.png') });
await extended.close();
