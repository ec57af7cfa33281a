// With 5,000 items: how long a list's frames take while it is scrolled, and how long a key that is typed holds up the page.
import { randomUUID } from 'node:crypto';
import { PROTOCOL, PROTOCOL_HEADER } from '../core/src/sync/index.ts';
import { openDemo } from './browser.mjs';

const ITEMS = 5000;
const AT_ONCE = 200;
const WORDS = 'tide silt eelgrass quay larch oak steam bread oven chart vote ferry engine birdsong night kite'.split(
  ' ',
);
const { page, end } = await openDemo(4973);
const stamp = (n) => `${(Date.now() + n).toString(36).padStart(9, '0')}-0000-bench`;
for (let from = 0; from < ITEMS; from += AT_ONCE) {
  const mutations = Array.from({ length: AT_ONCE }, (_, at) => at + from).flatMap((n) => {
    const itemId = randomUUID();
    const base = () => ({ id: randomUUID(), itemId, stamp: stamp(n) });
    const title = `${WORDS[n % 16]} and ${WORDS[(n * 7) % 16]}, number ${n}`;
    return [
      {
        ...base(),
        type: 'save',
        address: `http://rough.localhost:4983/n/${n + 100_000}`,
        savedAt: Date.now() - n * 60_000,
        howMuch: 'selected-part',
      },
      {
        ...base(),
        stamp: stamp(n + ITEMS),
        type: 'choose',
        set: { title, stage: n % 2 ? 'queue' : 'kept', queueRank: n },
      },
    ];
  });
  for (let part = 0; part < mutations.length; part += AT_ONCE)
    await page.evaluate(
      ({ body, header, protocol }) =>
        fetch('/api/sync/push', {
          method: 'POST',
          headers: { 'content-type': 'application/json', [header]: protocol },
          body: JSON.stringify(body),
        }).then((response) => {
          if (!response.ok) throw new Error(String(response.status));
        }),
      {
        body: { mutations: mutations.slice(part, part + AT_ONCE) },
        header: PROTOCOL_HEADER,
        protocol: String(PROTOCOL),
      },
    );
}
const timesOf = (list) => {
  const sorted = [...list].sort((a, b) => a - b);
  const at = (part) => (sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? 0).toFixed(1);
  return `p50 ${at(0.5)}, p95 ${at(0.95)}, worst ${at(1)} ms`;
};
await page.goto('http://127.0.0.1:4973/library');
await page.getByText(/^\d{4} items/).waitFor({ timeout: 240_000 });
await page.waitForFunction(() => Number(/^(\d+) items/m.exec(document.body.innerText)?.[1]) >= 5000, null, {
  timeout: 240_000,
});
await page.waitForTimeout(8000);

const frames = await page.evaluate(async () => {
  const scrolled = [...document.querySelectorAll('body *')].filter(
    (each) => each.scrollHeight > each.clientHeight + 200 && /auto|scroll/.test(getComputedStyle(each).overflowY),
  );
  const list = scrolled.sort((a, b) => b.scrollHeight - a.scrollHeight)[0];
  const times = [];
  let last = performance.now();
  for (let at = 0; at < 300; at++) {
    list.scrollTop += 120;
    await new Promise(requestAnimationFrame);
    const now = performance.now();
    times.push(now - last);
    last = now;
  }
  return times;
});
console.log(`Scrolling a list of ${ITEMS} items, 300 frames: ${timesOf(frames)}`);

// How long the main thread is held by each key, from its event to the end of what it set off (Event Timing, W3C).
await page.evaluate(() => {
  window.held = [];
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries())
      if (entry.name === 'keydown' || entry.name === 'input' || entry.name === 'keypress')
        window.held.push(entry.processingEnd - entry.processingStart);
  }).observe({ type: 'event', durationThreshold: 16, buffered: false });
  window.long = [];
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) window.long.push(entry.duration);
  }).observe({ type: 'longtask' });
});
await page.getByLabel('Find').focus();
for (const letter of 'eelgrass silt number 12') {
  await page.keyboard.type(letter);
  await page.waitForTimeout(120);
}
await page.waitForTimeout(1500);
const { held, long } = await page.evaluate(() => ({ held: window.held, long: window.long }));
console.log(
  `Typing 23 letters into Find over ${ITEMS} items: events that took a frame or more: ${held.length}${held.length ? ` (handlers ${timesOf(held)})` : ''}; tasks over 50 ms: ${long.length}${long.length ? ` (${timesOf(long)})` : ''}`,
);
await end();
process.exit(0);
