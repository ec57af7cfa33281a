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
  await page.getByRole('link', { name: /Ferry vote goes to the post/ }).waitFor();
  // Everything of Inbox and Queue should be on the device in the pictures.
  await page.waitForTimeout(6000);
  await steps.then({
    page,
    shot,
    place: (name) => page.getByRole('link', { name: new RegExp(`^${name}`) }).click(),
  });
  await page.context().close();
}

const phone = { width: 390, height: 844 };
await visit(phone, 'light', {
  signIn: 'sign-in',
  then: async ({ page, shot, place }) => {
    await shot('inbox');
    await page.getByRole('button', { name: /Larch or oak/ }).click();
    await shot('item-sheet');
    await page.keyboard.press('Escape');
    await place('Library');
    await shot('library');
    await place('You');
    await shot('you');
    await place('Queue');
    await shot('queue');
    await page.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await shot('reader-day');
  },
});
await visit(phone, 'dark', {
  then: async ({ page, shot, place }) => {
    await place('Queue');
    await page.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await shot('reader-night');
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
