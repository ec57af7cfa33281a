import { expect } from '@playwright/test';
import { test } from '../homes';
import { UPDATE_PORT } from '../ports';
import { openEverything, openInYou, readTo, signIn } from '../reader';
import { openTwoVersions, type TwoVersions } from '../two-versions';

let site: TwoVersions;
test.beforeEach(async ({ seeded }) => {
  site = await openTwoVersions(seeded, UPDATE_PORT);
});
test.afterEach(() => site.close());

test('new versions that come while a text is open leave the reader where they are, and the page all that it asks for @any-width', async ({
  page,
}) => {
  await signIn(page, site.origin);
  // What is kept for being without a connection is all there.
  await page.evaluate(async () => {
    const { serviceWorker } = navigator;
    await serviceWorker.ready;
    if (!serviceWorker.controller)
      await new Promise((resolve) => serviceWorker.addEventListener('controllerchange', resolve, { once: true }));
  });
  await openEverything(page);
  await readTo(page, 0.4);
  const text = page.url();
  const reader = page.getByTestId('reader');
  const top = () => reader.evaluate((view) => Math.round(view.scrollTop));
  const entry = () => page.evaluate(() => document.querySelector<HTMLScriptElement>('script[src*="entry-"]')?.src);
  const [placeBefore, entryBefore] = [await top(), await entry()];
  expect(placeBefore).toBeGreaterThan(300);

  const names = () =>
    page.evaluate(async () => {
      const precache = (await caches.keys()).find((name) => name.includes('precache'));
      return (await (await caches.open(precache ?? '')).keys()).map(({ url }) => url).sort();
    });
  // Twice, while the page stands open.
  for (let n = 0; n < 2; n++) {
    const ofVersion = await names();
    site.update();
    await page.evaluate(async () => {
      const { serviceWorker } = navigator;
      const taken = new Promise((resolve) =>
        serviceWorker.addEventListener('controllerchange', resolve, { once: true }),
      );
      await (await serviceWorker.ready).update();
      await taken;
    });
    await expect.poll(names).not.toEqual(ofVersion);
    await expect.poll(names).not.toContain(entryBefore);
    expect(await top()).toBe(placeBefore);
  }

  await test.step('a part that the open page has not asked for yet comes, without a connection too', async () => {
    await page.context().setOffline(true);
    await page.getByRole('button', { name: 'Back to Library' }).click();
    await openInYou(page, 'Cards');
    await page.getByLabel('Bring in a table').setInputFiles({
      name: 'cards.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('Front,Back\nneap,the smallest tide\n'),
    });
    await expect(page.getByText('1 card brought in.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.context().setOffline(false);
  });

  await test.step('opened again, it is the new version, at the same place', async () => {
    await page.goto(text);
    await expect(reader).toBeVisible();
    expect(await entry()).not.toBe(entryBefore);
    await expect.poll(async () => Math.abs((await top()) - placeBefore)).toBeLessThan(40);
  });
});
