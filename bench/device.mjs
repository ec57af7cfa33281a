// npm run bench -- device [items…]: a library of 1,000, 10,000 and more items on a phone, in headless Chromium at 390x844 and 4x CPU
// throttle. From the first sync to the first row, a change from elsewhere, scrolling, finding, what is related, the heap. The
// texts are made of a computing dictionary's entries (FOLDOC), about 765 words each.
import { spawn } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { chromium } from '@playwright/test';
import { newItem } from '../core/src/records/index.ts';
import { PROTOCOL, PROTOCOL_HEADER } from '../core/src/sync/index.ts';
import { ensureBuilt, ensureChromium, root, SERVER_WORDS } from '../scripts/steps.mjs';
import { accountRepository } from '../server/src/accounts/accounts.ts';
import { openDatabase } from '../server/src/db/open.ts';
import { libraryOf } from '../server/src/library/library.ts';
import { readEntries } from './foldoc.mjs';

const WORDS = 765;
const PORT = 4974;
const MAIL = 'phone@skerrow.example';
const PASSPHRASE = 'as many words as it takes';
const NEVER = '000000000-0000-0';
const NOW = Date.now();
const counts = process.argv
  .slice(2)
  .filter((word) => /^\d+$/.test(word))
  .map(Number);
const sizes = counts.length > 0 ? counts : [1000, 10_000];
const entries = readEntries().map(({ title, body }) => ({ title, body: body.replace(/[{}]/g, '').trim() }));

/** Of a hundred items eight wait in the Inbox or the Queue; the others were read or kept. */
const stageOf = (n) => (n % 100 < 3 ? 'inbox' : n % 100 < 8 ? 'queue' : n % 2 ? 'finished' : 'kept');

async function fill(folder, count) {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const database = await openDatabase(
    `file:${path.join(folder, 'dorvel.db')}`,
    path.join(root, 'server/src/db/migrations'),
  );
  const account = await accountRepository(database, () => NOW).create(MAIL, 'Phone', PASSPHRASE);
  const library = libraryOf(database, account.id);
  let at = 0;
  for (let from = 0; from < count; from += 200)
    await library.change(async (write) => {
      for (let n = from; n < Math.min(count, from + 200); n++) {
        const paragraphs = [];
        for (let words = 0; words < WORDS; words += paragraphs.at(-1).split(/\s+/).length)
          paragraphs.push(entries[(at += 1 + Math.floor(n / 3000)) % entries.length].body);
        const title = `${entries[(n * 7) % entries.length].title}, number ${n}`;
        const [itemId, copyId] = [crypto.randomUUID(), crypto.randomUUID()];
        const savedAt = NOW - n * 600_000;
        const item = newItem({
          type: 'save',
          id: itemId,
          itemId,
          address: `https://x.example/${itemId}`,
          savedAt,
          stamp: NEVER,
        });
        Object.assign(item.choices, {
          stage: { value: stageOf(n), at: NEVER },
          queueRank: { value: n, at: NEVER },
        });
        const page = {
          title,
          authors: ['Ada Quill'],
          siteName: 'Dictionary',
          publishedAt: null,
          modifiedAt: null,
          licenceUrl: null,
          facts: [],
          language: 'en',
          excerpt: paragraphs[0].slice(0, 200),
          wordCount: WORDS,
          minutes: 4,
          pictureCount: 0,
          pictures: [],
          icon: null,
          thumbnail: null,
          copyId,
          cameThrough: { verdict: 'whole', signs: [] },
        };
        item.capture = { ...item.capture, state: 'arrived', outcome: { code: 'arrived', missingPictures: 0 }, page };
        const tree = {
          type: 'root',
          children: paragraphs.map((value) => ({
            type: 'element',
            tagName: 'p',
            properties: {},
            children: [{ type: 'text', value }],
          })),
        };
        await write.putCopy({ id: copyId, itemId, madeAt: NOW, title, language: 'en', hash: null, tree });
        await write.put(item);
      }
    });
  database.close();
}

function serve(folder) {
  const server = spawn(process.execPath, SERVER_WORDS, {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, PORT: String(PORT), DORVEL_DATA: folder, LOG_LEVEL: 'silent' },
  });
  const end = () => server.kill('SIGTERM');
  process.on('exit', end);
  return end;
}

const ready = async () => {
  for (;;) {
    const answer = await fetch(`http://127.0.0.1:${PORT}/readyz`).catch(() => null);
    if (answer?.ok) return;
    await sleep(200);
  }
};
const part = (list, share) => {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;
};
const since = async (work) => {
  const start = performance.now();
  await work();
  return performance.now() - start;
};

/** What one library costs. */
async function measure(count) {
  const say = {};
  const browser = await chromium.launch({
    executablePath: ensureChromium(),
    args: '--no-sandbox --disable-gpu --no-first-run --disable-background-networking'.split(' '),
  });
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  const origin = `http://127.0.0.1:${PORT}`;
  const session = await context.newCDPSession(page);
  await session.send('Performance.enable');
  const throttle = (rate) => session.send('Emulation.setCPUThrottlingRate', { rate });
  const metric = async (name) =>
    (await session.send('Performance.getMetrics')).metrics.find((each) => each.name === name).value;
  await throttle(4);
  await page.goto(origin);
  await page.getByLabel('Mail address').fill(MAIL);
  await page.getByLabel('Passphrase', { exact: true }).fill(PASSPHRASE);
  const rows = (name) => page.getByRole('list', { name }).getByRole('link').first();
  say['first row after signing in, s'] =
    (await since(async () => {
      await page.getByRole('button', { name: 'Sign in' }).click();
      await page.getByRole('heading', { name: 'Now', level: 1 }).waitFor({ timeout: 600_000 });
      await page
        .getByRole('link', { name: /^Inbox/ })
        .first()
        .click();
      await rows('Inbox').waitFor({ timeout: 600_000 });
    })) / 1000;
  await page
    .getByRole('link', { name: /^Library/ })
    .first()
    .click();
  say['all items here, s'] =
    (await since(() => page.getByText(`${count} items`, { exact: false }).first().waitFor({ timeout: 1_800_000 }))) /
    1000;
  await throttle(1);
  // The texts come afterwards, without a throttle: they are not what is measured.
  const kept = Math.min(count, Math.round(count * 0.08) + 1000);
  say['texts here, s'] =
    (await since(async () => {
      for (;;) {
        const here = await page.evaluate(
          () =>
            new Promise((resolve) => {
              indexedDB.databases().then(([first]) => {
                const opening = indexedDB.open(first.name);
                opening.onsuccess = () => {
                  const counting = opening.result.transaction('copies').objectStore('copies').count();
                  counting.onsuccess = () => (opening.result.close(), resolve(counting.result));
                };
              });
            }),
        );
        if (here >= kept * 0.99) return;
        await sleep(1000);
      }
    })) / 1000;
  await sleep(3000);
  await throttle(4);
  for (const [tab, name] of [
    ['inbox', 'Inbox'],
    ['library', 'Library'],
  ])
    say[`start to first row, ${name}, s`] =
      (await since(async () => {
        await page.goto(`${origin}/${tab}`);
        await rows(name).waitFor({ timeout: 600_000 });
      })) / 1000;
  await page.getByText(`${count} items`, { exact: false }).first().waitFor({ timeout: 600_000 });
  await sleep(6000);

  // Frames while the Library is scrolled.
  const frames = await page.evaluate(async () => {
    const lists = [...document.querySelectorAll('body *')].filter(
      (each) => each.scrollHeight > each.clientHeight + 200 && /auto|scroll/.test(getComputedStyle(each).overflowY),
    );
    const list = lists.sort((a, b) => b.scrollHeight - a.scrollHeight)[0];
    const times = [];
    let last = performance.now();
    for (let at = 0; at < 200; at++) {
      list.scrollTop += 60;
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      times.push(now - last);
      last = now;
    }
    return times;
  });
  say['scroll p50, ms'] = part(frames, 0.5);
  say['scroll p95, ms'] = part(frames, 0.95);

  // One change from another device, as the main thread feels it, less what it does by itself meanwhile.
  const busy = async (ms) => {
    const before = await metric('TaskDuration');
    await sleep(ms);
    return ((await metric('TaskDuration')) - before) * 1000;
  };
  const idle = await busy(4000);
  const elsewhere = await browser.newContext();
  const device = elsewhere.request;
  const post = async (where, data) => {
    const answer = await device.post(`${origin}${where}`, {
      data,
      headers: { [PROTOCOL_HEADER]: String(PROTOCOL), origin },
    });
    if (!answer.ok()) throw new Error(`${where}: ${answer.status()} ${await answer.text()}`);
    return answer.json();
  };
  await post('/api/session', { mail: MAIL, passphrase: PASSPHRASE });
  const changes = [];
  for (let n = 0; n < 3; n++) {
    const ids = await page.evaluate(
      () =>
        new Promise((resolve) => {
          indexedDB.databases().then(([first]) => {
            const opening = indexedDB.open(first.name);
            opening.onsuccess = () => {
              const asking = opening.result.transaction('items').objectStore('items').getAllKeys(null, 20);
              asking.onsuccess = () => (opening.result.close(), resolve(asking.result));
            };
          });
        }),
    );
    const stamp = `${(Date.now() + n).toString(36).padStart(9, '0')}-0000-bench`;
    const mutation = { type: 'choose', id: crypto.randomUUID(), itemId: ids[n], stamp, set: { title: `Renamed ${n}` } };
    await post('/api/sync/push', { mutations: [mutation] });
    changes.push((await busy(4000)) - idle);
  }
  await elsewhere.close();
  say['a change from elsewhere, main thread ms'] = part(changes, 0.5);

  const ask = async (words) => {
    const field = page.getByLabel('Find', { exact: true });
    await field.fill('');
    await page.getByRole('list', { name: 'Library' }).waitFor({ timeout: 600_000 });
    // From the letters to the row, by the page's own clock: asking a throttled page from outside takes it half as long again.
    const took = page.evaluate(
      () =>
        new Promise((resolve) => {
          let written = 0;
          addEventListener('input', ({ timeStamp }) => (written = timeStamp), { capture: true, once: true });
          const watch = new MutationObserver(() => {
            if (!document.querySelector('[role="list"][aria-label="Found"] a')) return;
            watch.disconnect();
            requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - written)));
          });
          watch.observe(document.body, { childList: true, subtree: true });
        }),
    );
    await field.fill(words);
    return took;
  };
  say['first Find, s'] = (await ask('compiler')) / 1000;
  await sleep(2000);
  say['later Find, ms'] = part([await ask('protocol'), await ask('network'), await ask('operating system')], 0.5);
  await page.goto(`${origin}/library`);
  await rows('Library').waitFor({ timeout: 600_000 });
  await sleep(2000);
  say['first Find of the next session, s'] = (await ask('language')) / 1000;
  await session.send('HeapProfiler.collectGarbage');
  say['heap, MB'] = (await metric('JSHeapUsedSize')) / 1e6;
  await browser.close();
  return say;
}

ensureBuilt();
const all = [];
for (const count of sizes) {
  // Kept for the next run: filling a large library takes longer than measuring it.
  const filled = path.join(tmpdir(), `dorvel-bench-device-${count}`);
  if (!existsSync(filled)) {
    const took = await since(() => fill(`${filled}-new`, count));
    renameSync(`${filled}-new`, filled);
    console.log(`${count} items put into a library in ${(took / 1000).toFixed(0)} s`);
  }
  const folder = path.join(mkdtempSync(path.join(tmpdir(), 'dorvel-bench-device-')), 'data');
  cpSync(filled, folder, { recursive: true });
  const end = serve(folder);
  await ready();
  const say = await measure(count);
  console.log(`${count} items`);
  for (const [what, value] of Object.entries(say))
    console.log(`  ${what.padEnd(44)} ${value.toFixed(value < 20 ? 2 : 0)}`);
  all.push(say);
  end();
  await sleep(1000);
  rmSync(path.dirname(folder), { recursive: true });
}
if (process.argv.includes('--write')) {
  const rows = Object.keys(all[0]).map(
    (what) => `| ${what} | ${all.map((say) => say[what].toFixed(say[what] < 20 ? 2 : 0)).join(' | ')} |`,
  );
  writeFileSync(
    path.join(root, 'docs/bench/device.md'),
    `# A large library on a phone\n\n\`npm run bench -- device ${sizes.join(' ')} --write\`, ${new Date().toISOString().slice(0, 10)}, headless Chromium at 390x844 and 4x CPU throttle, server and browser on one machine with two cores; texts of about ${WORDS} words. Eight of a hundred items wait in Inbox or Queue.\n\n| items | ${sizes.join(' | ')} |\n|---|${sizes.map(() => '---|').join('')}\n${rows.join('\n')}\n`,
  );
}
process.exit(0);
