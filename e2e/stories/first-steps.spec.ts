import { type Browser, expect, type Page, test } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { ownServer } from '../own-server';
import { FIRST_STEPS_PORTS } from '../ports';
import { goTo, openInYou, row } from '../reader';

const steps = (page: Page) => page.getByRole('list', { name: 'First steps' });
const step = (page: Page, name: string) => steps(page).getByRole('button', { name, exact: true });

test('who begins is led to the first steps; each ticks itself off, and they can be put away', async ({
  page,
  context,
  browser,
}, { project }) => {
  const server = ownServer(FIRST_STEPS_PORTS[project.name as keyof typeof FIRST_STEPS_PORTS], {});
  await server.start();
  try {
    await page.goto(server.origin);
    await page.getByLabel('Set-up code').fill(/first account: (\S+)/.exec(server.output())?.[1] ?? '');
    await page.getByLabel('Name').fill('Marit Osgood');
    await page.getByLabel('Mail address').fill('marit@skerrow.example');
    await page.getByLabel(/^Passphrase/).fill('lamps along the old quay');
    await page.getByRole('button', { name: 'Make the account', exact: true }).click();
    // This server takes no mail: that step is none here.
    await expect(steps(page).getByRole('button')).toHaveCount(5);
    await expect(step(page, 'Mail yourself something')).toHaveCount(0);
    await expectAccessible(page, 'first steps');
    await expectTargets(page, 'first steps');

    // What explains it is there to be read without a connection, and ticks itself off by being read.
    await goTo(page, 'Inbox');
    await expect(row(page, 'How to use Dorvel, by using it')).toContainText(/[34] min · Dorvel/);
    await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
    await context.setOffline(true);
    await goTo(page, 'Now');
    await step(page, 'Read how it works').click();
    await expect(page.getByRole('heading', { name: 'Let it come back' })).toBeAttached();
    await page.getByTestId('reader').hover();
    await page.mouse.wheel(0, 900);
    await page.waitForTimeout(1500);
    await page.mouse.wheel(0, 300);
    await context.setOffline(false);
    if (project.name === 'phone') await page.getByRole('button', { name: /^Back to / }).click();
    await goTo(page, 'Now');
    await expect(step(page, 'Read how it works: done')).toBeVisible();

    // A list that is brought in.
    await step(page, 'Bring in what you have').click();
    await page
      .locator('input[type=file]')
      .first()
      .setInputFiles({
        name: 'bookmarks.html',
        mimeType: 'text/html',
        buffer: Buffer.from(
          '<!DOCTYPE NETSCAPE-Bookmark-file-1><DL><DT><A HREF="http://gone.skerrow.example/quay" ADD_DATE="1600000000">The old quay</A></DL>',
        ),
      });
    await page.getByRole('button', { name: /^Save 1/ }).click();
    await expect(page.getByRole('heading', { name: 'Inbox', level: 1 })).toBeVisible();
    await goTo(page, 'Now');
    await expect(step(page, 'Bring in what you have: done')).toBeVisible();

    // A bookmark that saves: only the server knows of it.
    await step(page, 'Put a button into your browser').click();
    await page.getByLabel('Where you will use it').fill('Desk');
    await page.getByRole('button', { name: 'Make the bookmark' }).click();
    await expect(page.getByRole('region', { name: 'Your bookmark' })).toBeVisible();
    await goTo(page, 'Now');
    await expect(step(page, 'Put a button into your browser: done')).toBeVisible();

    await page.getByRole('button', { name: 'Hide these' }).click();
    await expect(steps(page)).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(steps(page)).toBeVisible();
    await page.getByRole('button', { name: 'Hide these' }).click();
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Now', level: 1 })).toBeVisible();
    await expect(steps(page)).toHaveCount(0);
    await expect
      .poll(async () =>
        JSON.stringify(
          await (
            await page.request.get(`${server.origin}/api/sync/pull?after=0`, { headers: { 'dorvel-protocol': '3' } })
          ).json(),
        ),
      )
      .toContain('first-steps');
    await expectPutAwayElsewhere(browser, server.origin);
    await openInYou(page, 'First steps');
    await expect(step(page, 'Read how it works: done')).toBeVisible();
    await step(page, 'Put Dorvel on your phone').click();
    await expect(page.getByRole('region', { name: 'Dorvel as an app' })).toContainText('share sheet');
  } finally {
    await server.clear();
  }
});

/** On another device they do not come either. */
async function expectPutAwayElsewhere(browser: Browser, origin: string): Promise<void> {
  const context = await browser.newContext();
  const other = await context.newPage();
  await other.goto(origin);
  await other.getByLabel('Mail address').fill('marit@skerrow.example');
  await other.getByLabel(/^Passphrase/).fill('lamps along the old quay');
  await other.getByRole('button', { name: 'Sign in', exact: true }).click();
  await goTo(other, 'Inbox');
  await expect(row(other, 'The old quay')).toBeVisible();
  await goTo(other, 'Now');
  await expect(other.getByRole('heading', { name: 'Now', level: 1 })).toBeVisible();
  await expect(steps(other)).toHaveCount(0);
  await context.close();
}
