// A demo and a browser for measuring what readers feel.
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { ensureBuilt, ensureChromium, root, start } from '../scripts/steps.mjs';

/** Starts a demo of its own, waits until its captures are done, and signs in on a phone. */
export async function openDemo(port) {
  ensureBuilt();
  const executablePath = ensureChromium();
  if (executablePath === null) throw new Error('These measurements need Chromium: sudo apt-get install chromium');
  const demo = start(process.execPath, [path.join(root, 'scripts/demo.mjs'), '--fresh'], {
    PORT: String(port),
    DORVEL_DATA: path.join(tmpdir(), `dorvel-bench-${port}`),
  });
  for (let tries = 0; tries < 1200; tries++) {
    const setup = await fetch(`http://127.0.0.1:${port}/readyz`).then(
      (response) => response.json(),
      () => null,
    );
    if (setup?.jobsOpen === 0 && tries > 100) break;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  const browser = await chromium.launch({
    executablePath,
    args: '--no-sandbox --disable-gpu --no-first-run --disable-background-networking'.split(' '),
  });
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })).newPage();
  await page.goto(`http://127.0.0.1:${port}/`);
  await page.getByRole('button', { name: 'Fill in the demo account' }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Now', level: 1 }).waitFor();
  return {
    page,
    async end() {
      await browser.close();
      demo.kill('SIGINT');
    },
  };
}
