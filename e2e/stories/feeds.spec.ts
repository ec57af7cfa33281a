import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { type OwnServer, ownServer } from '../own-server';
import { FEEDS_PORTS, page as webPage } from '../ports';
import { goTo, postToRough, row, signIn, stored } from '../reader';

const openFeeds = async (page: Page) => {
  await goTo(page, 'Inbox');
  await page.getByRole('button', { name: /^Feeds/ }).click();
  await expect(page.getByRole('heading', { name: 'Feeds', level: 1 })).toBeVisible();
};
const side = (page: Page, name: string | RegExp) => page.getByRole('radio', { name }).click();
const followed = (page: Page) => page.getByRole('list', { name: 'Feeds that you follow' });

/** A library of its own: passing over is for all feeds of a library. */
let server: OwnServer | undefined;
test.afterEach(() => server?.clear());

test('a feed is followed, chosen from with the network cut, left to save by itself, and kept when it breaks', async ({
  page,
  context,
}, { project }) => {
  const name = `Harbour notices: ${project.name}`;
  const notice = (n: number) => `Notice ${n} of the harbour office`;
  const offer = (n: number) => page.getByRole('listitem').filter({ hasText: notice(n) });
  const publish = (to: number) => postToRough(page, `/feed/${project.name}/next?to=${to}`);
  const lookNow = async () => {
    await side(page, 'You follow');
    await followed(page).getByRole('button', { name }).click();
    const sheet = page.getByRole('dialog', { name });
    await sheet.getByRole('button', { name: 'Look now' }).click();
    await expect(sheet.getByRole('status')).not.toContainText('Waiting to be looked at');
    return sheet;
  };
  const own = (server = ownServer(FEEDS_PORTS[project.name === 'phone' ? 'phone' : 'wide'], {
    DORVEL_DEMO: '1',
  }));
  await own.start();
  await publish(1);
  await signIn(page, own.origin);

  await test.step('followed by its address, it brings what it has', async () => {
    await openFeeds(page);
    await side(page, 'You follow');
    const field = page.getByLabel('Address of a feed, or of a site that has one');
    await field.fill('no feed at all');
    await page.getByRole('button', { name: 'Follow', exact: true }).click();
    await expect(page.getByText('That is not a web address.')).toBeVisible();
    await field.fill(webPage('rough', `/feed/${project.name}`));
    await page.getByRole('button', { name: 'Follow', exact: true }).click();
    await expect(followed(page).getByRole('listitem').filter({ hasText: name })).toContainText('1 new.');
  });

  await test.step('with the network cut, one is saved', async () => {
    await context.setOffline(true);
    await side(page, /^New/);
    await page.getByRole('button', { name: `Save “${notice(1)}”` }).click();
    await expect(offer(1)).toContainText('in Inbox');
    await goTo(page, 'Inbox');
    await expect(row(page, new RegExp(`${project.name}-notice-1`))).toBeVisible();
    await context.setOffline(false);
    await expect.poll(() => stored(page, 'outbox')).toEqual([]);
  });

  await test.step('what comes later is offered, passed over, and offered again when that is taken back', async () => {
    await publish(2);
    await openFeeds(page);
    await (await lookNow()).getByRole('button', { name: 'Close', exact: true }).click();
    await side(page, /^New/);
    await expect(offer(2)).toBeVisible();
    await page.getByRole('button', { name: /^Pass over/ }).click();
    await expect(offer(2)).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(offer(2)).toBeVisible();
  });

  await test.step('told to save everything, it saves what comes, with its tag', async () => {
    await side(page, 'You follow');
    await followed(page).getByRole('button', { name }).click();
    const sheet = page.getByRole('dialog', { name });
    await sheet.getByRole('radio', { name: 'Save everything' }).click();
    await sheet.getByLabel('Tag for what it saves').fill(`notices/${project.name}`);
    await sheet.getByLabel('Tag for what it saves').press('Enter');
    await publish(3);
    await sheet.getByRole('button', { name: 'Look now' }).click();
    await expect(sheet.getByRole('status')).toContainText('1 new.');
    await sheet.getByRole('button', { name: 'Close', exact: true }).click();
    await goTo(page, 'Inbox');
    await expect(row(page, `notices/${project.name}`)).toContainText(/Crossing to \w+ Notice 3/);
  });

  await test.step('broken, it says so and stays', async () => {
    await publish(6);
    await openFeeds(page);
    const sheet = await lookNow();
    await expect(sheet.getByRole('status')).toContainText(/^Broken since today.*410.*is kept\./);
    await expect(sheet.getByRole('list', { name: 'What it brought lately' }).getByRole('listitem')).toHaveCount(3);
    await sheet.getByRole('button', { name: 'Close', exact: true }).click();
  });

  await test.step('taken out as a list, and brought in again', async () => {
    const downloading = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Take the list out (OPML)' }).click();
    const download = await downloading;
    expect(download.suggestedFilename()).toBe('feeds.opml');
    const opml = await readFile(await download.path(), 'utf8');
    expect(opml).toContain(`xmlUrl="${webPage('rough', `/feed/${project.name}`)}"`);
    await followed(page).getByRole('button', { name }).click();
    await page.getByRole('dialog', { name }).getByRole('button', { name: 'Stop following' }).click();
    await expect(followed(page).getByRole('button', { name })).toHaveCount(0);
    await page
      .getByLabel('Bring in a list (OPML)')
      .setInputFiles({ name: 'feeds.opml', mimeType: 'text/x-opml', buffer: Buffer.from(opml) });
    await expect(page.getByText(/in feeds\.opml: 1 new/)).toBeVisible();
    await expect(followed(page).getByRole('button', { name })).toBeVisible();
  });
});
