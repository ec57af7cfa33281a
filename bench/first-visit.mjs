// npm run bench -- first-visit: the app from an empty cache on a slow phone, beside an empty app of the same frame; then a second
// visit without a connection. In headless Chromium at 390x844, 4x CPU throttle, 1.6 Mbit/s and 150 ms. What the service worker
// fetches ahead is not throttled, nor is it waited for.
import { createServer } from 'node:http';
import path from 'node:path';
import { chromium } from '@playwright/test';
import express from 'express';
import { compress } from '../app/scripts/compress.mjs';
import { ensureChromium } from '../scripts/steps.mjs';
import { webRoutes } from '../server/src/routes/web.ts';
import { startDemo } from './browser.mjs';
import { buildEmptyApp } from './empty-app.mjs';

const TIMES = 5;
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true };
const SLOW = { offline: false, latency: 150, downloadThroughput: 1.6e6 / 8, uploadThroughput: 0.75e6 / 8 };

process.env.DORVEL_DEMO_PAST ??= '0';
const empty = await buildEmptyApp();
await compress(empty);
const beside = createServer(express().use(webRoutes(path.resolve(empty))));
await new Promise((resolve) => beside.listen(0, '127.0.0.1', resolve));
const demo = await startDemo(4976);
const browser = await chromium.launch({
  executablePath: ensureChromium(),
  args: '--no-sandbox --disable-gpu --no-first-run --disable-background-networking'.split(' '),
});

const since = async (work) => {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
};

/** A phone that has never been here. */
async function slowPhone() {
  const context = await browser.newContext(PHONE);
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Network.emulateNetworkConditions', SLOW);
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  return { context, page };
}

const visits = { empty: [], signIn: [], inbox: [], offline: [] };
for (let n = 0; n < TIMES; n++) {
  const plain = await slowPhone();
  visits.empty.push(
    await since(async () => {
      await plain.page.goto(`http://127.0.0.1:${beside.address().port}/`, { waitUntil: 'commit' });
      await plain.page.getByText('Nothing here').waitFor();
    }),
  );
  await plain.context.close();

  const { context, page } = await slowPhone();
  visits.signIn.push(
    await since(async () => {
      await page.goto(`${demo.origin}/`, { waitUntil: 'commit' });
      await page.getByRole('button', { name: 'Fill in the demo account' }).waitFor();
    }),
  );
  await page.getByRole('button', { name: 'Fill in the demo account' }).click();
  const firstRow = () => page.getByRole('list', { name: 'Inbox' }).getByRole('link').first().waitFor();
  visits.inbox.push(
    await since(async () => {
      await page.getByRole('button', { name: 'Sign in', exact: true }).click();
      await page.getByRole('link', { name: 'Inbox' }).click();
      await firstRow();
    }),
  );
  // It is ready once all that is fetched ahead is there.
  await page.evaluate(() => navigator.serviceWorker.ready.then(({ active }) => active?.state));
  await context.setOffline(true);
  await page.goto('about:blank');
  visits.offline.push(
    await since(async () => {
      await page.goto(`${demo.origin}/inbox`, { waitUntil: 'commit' });
      await firstRow();
    }),
  );
  await context.close();
}
await browser.close();
demo.end();
beside.close();

const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];
const line = (name, value) => console.log(`  ${name.padEnd(52)}${value}`);
const seconds = (values) =>
  `${median(values).toFixed(2)} s (${Math.min(...values).toFixed(2)} to ${Math.max(...values).toFixed(2)})`;
console.log(`A first visit on a slow phone, median of ${TIMES}:`);
line('empty Expo Router + NativeWind', seconds(visits.empty));
line('Dorvel, until the way in can be used', seconds(visits.signIn));
line('  ratio', (median(visits.signIn) / median(visits.empty)).toFixed(2));
line('Dorvel, from signing in to the first row of the Inbox', seconds(visits.inbox));
line('Dorvel again, without a connection: first row', seconds(visits.offline));
