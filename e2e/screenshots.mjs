// npm run screenshots: docs/screenshots anew, from a demo that is running (PORT, default 4800).
import { existsSync } from 'node:fs';
import path from 'node:path';
import { chromium } from '@playwright/test';
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
  if (steps.signIn) await shot(steps.signIn);
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

async function listen(page) {
  await page.getByRole('button', { name: 'Listen', exact: true }).click();
  await page.getByRole('button', { name: 'Pause', exact: true }).waitFor();
  await page.waitForTimeout(2500);
}

const phone = { width: 390, height: 844 };
await visit(phone, 'light', {
  signIn: 'sign-in',
  then: async ({ page, shot, place }) => {
    await shot('now-day');
    await page.getByRole('button', { name: 'You', exact: true }).click();
    await shot('you');
    await page.goto(`${origin}/doing`);
    await page.getByRole('img', { name: /^Minutes by week/ }).waitFor();
    await shot('doing-day');
    await place('Inbox');
    await shot('inbox');
    await page.getByRole('button', { name: /Larch or oak/ }).click();
    await shot('item-sheet');
    await page.keyboard.press('Escape');
    await place('Library');
    await shot('library');
    await place('Queue');
    await shot('queue');
    await page.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await shot('reader-day');
    await listen(page);
    await shot('player-day');
    await page.getByRole('button', { name: 'Stop listening' }).click();
    await page.getByRole('region', { name: 'Related' }).scrollIntoViewIfNeeded();
    await page.getByTestId('reader').evaluate((view) => (view.scrollTop = view.scrollHeight));
    await shot('related');
  },
});
await visit(phone, 'dark', {
  then: async ({ page, shot, place }) => {
    await shot('now-night');
    await page.goto(`${origin}/doing`);
    await page.getByRole('img', { name: /^Minutes by week/ }).waitFor();
    await shot('doing-night');
    await place('Queue');
    await page.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await shot('reader-night');
    await listen(page);
    await shot('player-night');
  },
});
await visit({ width: 1280, height: 800 }, 'light', {
  then: async ({ page, shot, place }) => {
    await place('Queue');
    await page.getByRole('link', { name: /The oven behind the net loft/ }).click();
    await shot('wide');
  },
});
await browser.close();
