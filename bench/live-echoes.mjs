// npm run bench -- live-echoes: what a page of 50,000 words spends on its own thread while the extension marks its echoes.
import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import path from 'node:path';
import { extendedBrowser, pairWith } from '../e2e/extension/browser.ts';
import { root } from '../scripts/steps.mjs';
import { startDemo } from './browser.mjs';

const WORDS = 50_000;
const texts = path.join(root, 'demo/small-web/texts');
const words = readdirSync(texts)
  .map((file) => readFileSync(path.join(texts, file), 'utf8').replace(/^---[\s\S]*?---/, ''))
  .join(' ')
  .split(/\s+/)
  .map((word) => word.replace(/[<>&]/g, ''));
const paragraphs = Array.from({ length: WORDS / 100 }, (_, n) =>
  Array.from({ length: 100 }, (_each, at) => words[(n * 100 + at) % words.length]).join(' '),
);
const page = `<!doctype html><html lang="en"><title>Long</title><main>${paragraphs.map((each) => `<p>${each}</p>`).join('')}</main>`;
const site = createServer((_request, response) => response.setHeader('content-type', 'text/html').end(page)).listen(
  4956,
);

const demo = await startDemo(4976);
const browser = await extendedBrowser();
await pairWith(browser, demo.origin, 'Browser that is measured');

/** What the page's own thread was busy with until it had nothing to do, in milliseconds: in all, and its longest task. */
async function opened() {
  const tab = await browser.context.newPage();
  await tab.addInitScript(() => {
    globalThis.longest = 0;
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) globalThis.longest = Math.max(globalThis.longest, duration);
    }).observe({ type: 'longtask', buffered: true });
  });
  const session = await browser.context.newCDPSession(tab);
  await session.send('Performance.enable');
  await tab.goto('http://127.0.0.1:4956/');
  await tab.waitForTimeout(4000);
  const { metrics } = await session.send('Performance.getMetrics');
  const of = (name) => (metrics.find((each) => each.name === name)?.value ?? 0) * 1000;
  const longest = await tab.evaluate(() => globalThis.longest);
  const isMarked = await tab.getByText(/\d+ echoes/).count();
  await tab.close();
  return { task: of('TaskDuration'), script: of('ScriptDuration'), longest, isMarked };
}
const median = (rows, key) => rows.map((row) => row[key]).sort((a, b) => a - b)[rows.length >> 1];
async function measured(name) {
  const rows = [];
  for (let n = 0; n < 5; n++) rows.push(await opened());
  console.log(
    `${name.padEnd(14)} all tasks ${median(rows, 'task').toFixed(0)} ms   of it script ${median(rows, 'script').toFixed(0)} ms   longest task ${median(rows, 'longest').toFixed(0)} ms   marked ${rows.filter(({ isMarked }) => isMarked > 0).length} of ${rows.length}`,
  );
}
console.log(`a page of ${WORDS} words`);
await measured('without echoes');
const options = await browser.open('options.html');
await options.getByLabel('Echoes are shown').selectOption('On all pages');
await options.waitForTimeout(5000);
await measured('with echoes');
await browser.end();
demo.end();
site.close();
