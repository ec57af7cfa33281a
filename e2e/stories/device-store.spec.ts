import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, expect } from '@playwright/test';
import { CHROMIUM_WORDS, executablePath } from '../chromium';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, row, save, signIn } from '../reader';

/** A browser whose profile lies in a folder, as a phone's does. */
async function openBrowser(folder: string) {
  const context = await chromium.launchPersistentContext(folder, {
    viewport: { width: 390, height: 844 },
    args: CHROMIUM_WORDS,
    ...(executablePath ? { executablePath } : {}),
  });
  return { context, page: context.pages()[0] ?? (await context.newPage()) };
}

/** Writes over what the browser keeps of its databases on the disk. */
function damageStore(folder: string): number {
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((name) =>
    /IndexedDB.*\.leveldb.(?:MANIFEST-|CURRENT|.*\.(?:log|ldb)$)/.test(name),
  );
  for (const name of files) writeFileSync(path.join(folder, name), Buffer.alloc(3000, 0x5a));
  return files.length;
}

test('a store that is damaged on the disk is filled again, and what it had not sent is made and sent again @any-width', async ({
  empty,
  browser,
}) => {
  const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-device-'));
  try {
    const before = await openBrowser(folder);
    await signIn(before.page, empty);
    await save(before.page, webPage('rough', '/n/sent-before'));
    await expect(row(before.page, 'sent-before')).toBeVisible();
    await expect(before.page.getByText('on this device').first()).toBeVisible();
    await before.context.setOffline(true);
    await save(before.page, webPage('rough', '/n/never-sent'));
    await expect(row(before.page, 'never-sent')).toBeVisible();
    await before.context.close();

    expect(damageStore(folder)).toBeGreaterThan(2);
    const after = await openBrowser(folder);
    await after.page.goto(`${empty}/inbox`);
    await expect(row(after.page, 'sent-before')).toHaveCount(1);
    await expect(row(after.page, 'never-sent')).toHaveCount(1);
    // It has come to the server, and from there to others.
    const other = await (await browser.newContext()).newPage();
    await signIn(other, empty);
    await expect(row(other, 'never-sent')).toHaveCount(1);
    await other.context().close();
    await expect
      .poll(() => after.page.evaluate(() => Object.keys(localStorage).filter((name) => /unsent|unwritten/.test(name))))
      .toEqual([]);
    await after.context.close();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('two tabs of one device are one library: without a connection too, and each change is made once @any-width', async ({
  page,
  empty,
  browser,
}) => {
  await signIn(page, empty);
  const tab = await page.context().newPage();
  await tab.goto(`${empty}/inbox`);
  await save(page, webPage('rough', '/n/in-two-tabs'));
  await expect(row(tab, 'in-two-tabs')).toHaveCount(1);

  await page.context().setOffline(true);
  await save(tab, webPage('rough', '/n/in-the-second'));
  await expect(row(page, 'in-the-second')).toHaveCount(1);
  await save(page, webPage('rough', '/n/in-the-first'));
  await expect(row(tab, 'in-the-first')).toHaveCount(1);

  await page.context().setOffline(false);
  for (const each of [page, tab]) {
    await expect(row(each, 'Page in-the-second')).toHaveCount(1);
    await expect(row(each, 'Page in-the-first')).toHaveCount(1);
  }
  // Two tabs that wake up at once may both send the same; the library has each page once, here and on another device.
  const other = await (await browser.newContext()).newPage();
  await signIn(other, empty);
  for (const each of [page, tab, other]) {
    await goTo(each, 'Library');
    for (const name of ['in-two-tabs', 'in-the-second', 'in-the-first'])
      await expect(row(each, `Page ${name}`)).toHaveCount(1);
  }
  await other.context().close();
});
