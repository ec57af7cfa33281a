import { writeFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { ownServer } from '../own-server';
import { ARCHIVE_PORTS } from '../ports';
import { openInYou, readTo, signIn } from '../reader';
import { Client } from '../service/client';

async function openLibraryFile(page: Page): Promise<void> {
  await openInYou(page, 'Your library as a file');
}

test('a library is taken along as one file, and comes in elsewhere, seen beforehand, as it was @any-width', async ({
  page,
  seeded,
}, info) => {
  const elsewhere = ownServer(info.project.name === 'phone' ? ARCHIVE_PORTS.phone : ARCHIVE_PORTS.wide, {
    DORVEL_DEMO: '1',
  });
  await elsewhere.start();
  const empty = elsewhere.origin;
  try {
    test.setTimeout(120_000);
    await signIn(page, seeded);
    await openLibraryFile(page);
    const downloading = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Take everything along' }).click();
    const file = info.outputPath('library.zip');
    await (await downloading).saveAs(file);

    await signIn(page, empty);
    await openLibraryFile(page);
    const bringIn = page.getByRole('region', { name: 'Bring an archive in' });
    const wrong = info.outputPath('wrong.zip');
    writeFileSync(wrong, 'not a ZIP file');
    await bringIn.locator('input[type=file]').setInputFiles(wrong);
    await expect(bringIn.getByRole('alert')).toContainText('not a ZIP file, or not a whole one');

    const reader = await new Client(seeded).signIn();
    const theirs = (await reader.items()).filter(({ capture }) => capture.duplicateOf === null);
    await bringIn.locator('input[type=file]').setInputFiles(file);
    await expect(bringIn.getByRole('status')).toContainText('from the library of Ines');
    await expect(bringIn.getByRole('listitem').filter({ hasText: 'Items' })).toContainText(' new');
    expect((await (await new Client(empty).signIn()).items()).length).toBe(0);
    await expectAccessible(page, 'archive looked through');
    await expectTargets(page, 'archive looked through');
    await bringIn.getByRole('button', { name: 'Bring it in' }).click();
    await expect(bringIn.getByText(/is in\.$/)).toBeVisible({ timeout: 60_000 });
    await bringIn.getByRole('button', { name: 'Done' }).click();

    const mine = await (await new Client(empty).signIn()).items();
    const known = ({ id, address, choices, tags, progress }: (typeof mine)[number]) => ({
      id,
      address,
      choices,
      tags,
      progress,
    });
    const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);
    expect(
      mine
        .filter(({ capture }) => capture.duplicateOf === null)
        .map(known)
        .sort(byId),
    ).toEqual(theirs.map(known).sort(byId));
    // On the screen too, with its text and its pictures.
    const withPictures = mine.find(({ capture }) => (capture.page?.pictureCount ?? 0) > 0 && capture.page?.thumbnail);
    await page.goto(`${empty}/library/${withPictures?.id ?? ''}`);
    const pictures = page.getByTestId('reader').locator('img[src^="/api/pictures/"]');
    await expect(pictures.first()).toBeAttached();
    await readTo(page, 0.5);
    await expect
      .poll(() => pictures.evaluateAll((all) => all.some((each) => (each as HTMLImageElement).naturalWidth > 0)))
      .toBe(true);

    await page.goto(`${empty}/archive`);
    await bringIn.locator('input[type=file]').setInputFiles(file);
    await expect(bringIn.getByText('has nothing that is not here')).toBeVisible();
  } finally {
    await elsewhere.clear();
  }
});

test('what broke off goes on where it was, with the same bytes @any-width', async ({ seeded }) => {
  const reader = await new Client(seeded).signIn();
  const whole = await reader.call('GET', '/archive');
  const etag = whole.headers.get('etag') ?? '';
  const bytes = new Uint8Array(await whole.arrayBuffer());
  expect(bytes.length).toBeGreaterThan(100_000);
  const start = Math.floor(bytes.length / 3);
  const rest = await reader.call('GET', '/archive', undefined, { range: `bytes=${start}-`, 'if-range': etag });
  expect(rest.status).toBe(206);
  expect(rest.headers.get('content-range')).toBe(`bytes ${start}-${bytes.length - 1}/${bytes.length}`);
  expect(Buffer.compare(Buffer.from(await rest.arrayBuffer()), Buffer.from(bytes.slice(start)))).toBe(0);
  // The library has changed since: all of the new one, not the end of another.
  await reader.save('https://x.example/later');
  const other = await reader.call('GET', '/archive', undefined, { range: `bytes=${start}-`, 'if-range': etag });
  expect(other.status).toBe(200);
  expect(other.headers.get('etag')).not.toBe(etag);
  const beyond = await reader.call('GET', '/archive', undefined, { range: 'bytes=999999999-' });
  expect(beyond.status).toBe(416);
  // Nobody gets it who has not signed in, and nothing waits to be brought in.
  expect((await new Client(seeded).call('GET', '/archive')).status).toBe(401);
  expect((await reader.call('POST', '/archive/in', {})).status).toBe(404);
});
