import type { Item } from '@dorvel/core/model';
import { expect } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { expectAccessible } from '../accessible';
import { test } from '../homes';
import { signIn, stored } from '../reader';
import { Client } from '../service/client';

const words = (about: string) => `${about} ${'The tide went out over the flats and came in again. '.repeat(14)}`;
const file = (name: string, content: string | Uint8Array) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(content),
});
const itemAt = (items: readonly Item[], address: string) => items.find((item) => item.address === address);

test('a table from elsewhere comes in, each column as what the reader says it is', async ({ page, empty }, info) => {
  await signIn(page, empty);
  const at = (name: string) => `https://${info.project.name}.tables.example/${name}`;
  const table = `Where,What,Labels,When,State\n${at('ebb')},Ebb and flow,"sea, tides",03/04/2024,archive\n${at('lead')},The lead line,,25/04/2024,unread\n,Nowhere,,,\n`;
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  const sheet = page.getByRole('dialog', { name: 'Save an address' });
  await sheet.getByLabel('Or choose files').setInputFiles(file('list.csv', table));
  const columns = sheet.getByRole('group', { name: 'Columns of the table' });
  await expect(columns.getByLabel('Address')).toHaveValue('0');
  await expect(columns.getByLabel('Tags')).toHaveValue('2');
  await columns.getByLabel('Title').selectOption('What');
  await columns.getByLabel('Day of saving').selectOption('When');
  await expect(sheet.getByRole('group', { name: 'Cannot be saved' })).toContainText(
    'Row 4: There is no address in it.',
  );
  await expect(sheet.getByRole('list', { name: 'To be saved' })).toContainText('Ebb and flow');
  await expectAccessible(page, 'columns of a table');
  await sheet.getByRole('button', { name: 'Save 2' }).click();
  await expect(page.getByText('2 saved to Inbox.')).toBeVisible();
  const items = await stored<Item>(page, 'items');
  const ebb = itemAt(items, at('ebb'));
  expect(ebb).toMatchObject({
    savedAt: Date.UTC(2024, 3, 3),
    choices: { listedAs: { value: 'Ebb and flow' }, stage: { value: 'finished' } },
    tags: { sea: { value: 'sea' }, tides: { value: 'tides' } },
  });
  expect(itemAt(items, at('lead'))?.choices.stage.value).toBe('inbox');
});

test('feeds with texts, web archives, ZIP files of pages and books by their chapters come in with what is in them @any-width', async ({
  page,
  empty,
}, info) => {
  test.setTimeout(90_000);
  await signIn(page, empty);
  const at = (name: string) => `https://${info.project.name}.files.example/${name}`;
  const feed = JSON.stringify({
    version: 'https://jsonfeed.org/version/1.1',
    title: 'Log',
    items: [
      {
        id: '1',
        url: at('feed'),
        title: 'From the feed',
        content_html: `<p>${words('Feed.')}</p>`,
        date_published: '2024-03-04T10:00:00Z',
      },
    ],
  });
  const html = `<html><head><title>From the web archive</title></head><body><article><h1>From the web archive</h1><p>${words('Kept.')}</p></article></body></html>`;
  const http = `HTTP/1.1 200 OK\r\nContent-Type: text/html\r\n\r\n${html}`;
  const warc = `WARC/1.1\r\nWARC-Type: response\r\nWARC-Target-URI: ${at('warc')}\r\nWARC-Date: 2024-03-05T10:00:00Z\r\nContent-Length: ${http.length}\r\n\r\n${http}\r\n\r\n`;
  const zip = zipSync({
    'a.md': strToU8(`---\ntitle: From the ZIP file\nurl: ${at('zip')}\ntags: [sea]\n---\n\n${words('Packed.')}`),
  });
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  const sheet = page.getByRole('dialog', { name: 'Save an address' });
  await sheet
    .getByLabel('Or choose files')
    .setInputFiles([file('feed.json', feed), file('site.warc', warc), file('pages.zip', zip)]);
  await sheet.getByRole('button', { name: 'Save 3' }).click();
  await expect(page.getByText('3 saved to Inbox.')).toBeVisible();
  const reader = await new Client(empty).signIn();
  for (const [name, title] of [
    ['feed', 'From the feed'],
    ['warc', 'From the web archive'],
    ['zip', 'From the ZIP file'],
  ] as const) {
    await expect
      .poll(async () => itemAt(await reader.items(), at(name))?.capture.page?.title, { timeout: 30_000 })
      .toBe(title);
  }
  const kept = itemAt(await reader.items(), at('warc'));
  expect(kept?.savedAt).toBe(Date.parse('2024-03-05T10:00:00Z'));
  expect(kept?.capture.page?.cameThrough.verdict).toBe('whole');

  const chapter = (title: string) =>
    strToU8(`<html><body><h2>${title}</h2><p>${words(info.project.name)}</p></body></html>`);
  const book = zipSync({
    mimetype: strToU8('application/epub+zip'),
    'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="b.opf"/></rootfiles></container>'),
    'b.opf': strToU8(
      '<package xmlns:dc="x"><metadata><dc:title>Tides</dc:title></metadata><manifest><item id="a" href="a.xhtml" media-type="application/xhtml+xml"/><item id="b" href="b.xhtml" media-type="application/xhtml+xml"/></manifest><spine><itemref idref="a"/><itemref idref="b"/></spine></package>',
    ),
    'a.xhtml': chapter('Neaps'),
    'b.xhtml': chapter('Springs'),
  });
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  await sheet.getByLabel('Or choose files').setInputFiles(file('tides.epub', book));
  await sheet.getByRole('radio', { name: 'By its chapters' }).click();
  await expect(sheet.getByRole('list', { name: 'To be saved' })).toContainText('Springs — Tides');
  await sheet.getByRole('button', { name: 'Save 2' }).click();
  await expect
    .poll(async () => (await reader.items()).map(({ capture }) => capture.page?.title), { timeout: 30_000 })
    .toEqual(expect.arrayContaining(['Neaps', 'Springs']));
});
