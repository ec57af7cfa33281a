// What a reader feels of a long text, in headless Chromium at 4x CPU throttle: from the press on a stored item of 6,000 words to
// its text, and frames while 20,000 words are scrolled.
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { PROTOCOL, PROTOCOL_HEADER } from '../core/src/sync/index.ts';
import { root } from '../scripts/steps.mjs';
import { openDemo } from './browser.mjs';

const ROUNDS = 9;
const texts = path.join(root, 'demo/small-web/texts');
const prose = readdirSync(texts)
  .filter((name) => name.endsWith('.md'))
  .map((name) => readFileSync(path.join(texts, name), 'utf8').split('---\n').slice(2).join(''))
  .filter((text) => /^[\x20-\x7e\s’‘“”–—é]*$/.test(text))
  .join('\n\n');
const words = prose.split(/\s+/).length;
const ofLength = (count) => {
  const whole = Array.from({ length: Math.ceil(count / words) }, () => prose).join('\n\n');
  return whole
    .split(/(?<=\s)/)
    .slice(0, count)
    .join('');
};
const { page, end } = await openDemo(4970);
let stamps = 0;
const stamp = () => `${(Date.now() + ++stamps).toString(36).padStart(9, '0')}-0000-bench`;
async function give(title, text) {
  const itemId = randomUUID();
  const base = () => ({ id: randomUUID(), itemId, stamp: stamp() });
  const mutations = [
    {
      ...base(),
      type: 'save',
      address: `http://long.example/${itemId}`,
      savedAt: Date.now(),
      howMuch: 'selected-part',
    },
    {
      ...base(),
      type: 'provide',
      given: { type: 'text/markdown', encoding: 'utf8', name: `${title}.md`, body: `# ${title}\n\n${text}` },
    },
    { ...base(), type: 'choose', set: { title, stage: 'queue', queueRank: -9 } },
  ];
  await page.evaluate(
    ({ headers, body }) =>
      fetch('/api/sync/push', {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body: JSON.stringify(body),
      }).then(async (response) => {
        if (!response.ok) throw new Error(await response.text());
      }),
    { headers: { [PROTOCOL_HEADER]: String(PROTOCOL) }, body: { mutations } },
  );
}
await give('Six thousand words', ofLength(6000));
await give('Twenty thousand words', ofLength(20_000));
await page.getByRole('link', { name: /^Queue/ }).click();
await page.getByRole('link', { name: /Twenty thousand words.*min/ }).waitFor({ timeout: 60_000 });
await page.waitForTimeout(9000);
const throttle = await page.context().newCDPSession(page);
await throttle.send('Emulation.setCPUThrottlingRate', { rate: 4 });

/** How long a finger rests on what it presses. */
const PRESS_MS = 80;
/** Opens an item by a finger. @returns ms from the end of the press to the frame with its first text (Event Timing) */
async function open(title) {
  const box = await page
    .getByRole('link', { name: new RegExp(title) })
    .first()
    .boundingBox();
  await page.evaluate(() => {
    window.opened = new Promise((resolve) => {
      // It may be set already, out of sight.
      const isShown = () => document.querySelector('.article p')?.checkVisibility() ?? false;
      let inItsFrame = false;
      addEventListener('click', () => requestAnimationFrame(() => (inItsFrame = isShown())), {
        capture: true,
        once: true,
      });
      new PerformanceObserver((list, observer) => {
        const click = list.getEntries().find(({ name }) => name === 'click');
        if (!click) return;
        observer.disconnect();
        // The frame that answers the press has the text in it, or a later one: then until that has been drawn.
        const wait = () => {
          if (inItsFrame) resolve(click.duration);
          else if (!isShown()) requestAnimationFrame(wait);
          else requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - click.startTime)));
        };
        wait();
      }).observe({ type: 'event', durationThreshold: 16 });
    });
  });
  const touch = (type, touchPoints) => throttle.send('Input.dispatchTouchEvent', { type, touchPoints });
  await touch('touchStart', [{ x: box.x + 60, y: box.y + box.height / 2 }]);
  await page.waitForTimeout(PRESS_MS);
  await touch('touchEnd', []);
  return page.evaluate(() => window.opened);
}
const back = async () => {
  await page.getByRole('button', { name: 'Back to Queue' }).click();
  await page.getByRole('link', { name: /Twenty thousand words/ }).waitFor();
  await page.waitForTimeout(600);
};
const summary = (list) => {
  const sorted = [...list].sort((a, b) => a - b);
  const at = (part) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))].toFixed(0);
  return `p50 ${at(0.5)}, p95 ${at(0.95)}, worst ${at(1)} ms`;
};
const times = [];
for (let round = 0; round < ROUNDS; round++) {
  times.push(await open('Six thousand words'));
  await page.waitForTimeout(400);
  await back();
}
console.log(`Opening a stored article of 6,000 words, ${ROUNDS} times: ${summary(times)}`);

await open('Twenty thousand words');
await page.waitForTimeout(2500);
const frames = await page.evaluate(async () => {
  const view = document.querySelector('.reader-scroll');
  const found = [];
  let last = performance.now();
  for (let at = 0; at < 300; at++) {
    view.scrollTop += 90;
    await new Promise(requestAnimationFrame);
    const now = performance.now();
    found.push(now - last);
    last = now;
  }
  return found;
});
console.log(`Scrolling 20,000 words, 300 frames: ${summary(frames)}`);

await end();
process.exit(0);
