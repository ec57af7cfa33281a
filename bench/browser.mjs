// A demo and a browser for measuring what readers feel.
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { ensureBuilt, ensureChromium, root } from '../scripts/steps.mjs';

/** Starts a demo of its own, and waits until it is ready. */
export async function startDemo(port) {
  ensureBuilt();
  if (ensureChromium() === null) throw new Error('These measurements need Chromium: sudo apt-get install chromium');
  const demo = spawn(process.execPath, [path.join(root, 'scripts/demo.mjs'), '--fresh'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, PORT: String(port), DORVEL_DATA: path.join(tmpdir(), `dorvel-bench-${port}`) },
  });
  process.on('exit', () => demo.kill('SIGTERM'));
  await new Promise((resolve, reject) => {
    demo.stdout.on('data', (words) => String(words).includes('demo is ready') && resolve());
    demo.on('exit', () => reject(new Error('The demo did not start.')));
  });
  return { origin: `http://127.0.0.1:${port}`, end: () => demo.kill('SIGTERM') };
}

/** The same, signed in to on a phone. */
export async function openDemo(port) {
  const demo = await startDemo(port);
  const browser = await chromium.launch({
    executablePath: ensureChromium(),
    args: '--no-sandbox --disable-gpu --no-first-run --disable-background-networking'.split(' '),
  });
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })).newPage();
  await page.goto(`${demo.origin}/`);
  await page.getByRole('button', { name: 'Fill in the demo account' }).click();
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.getByRole('heading', { name: 'Now', level: 1 }).waitFor();
  return {
    page,
    async end() {
      await browser.close();
      demo.end();
    },
  };
}
