import { expect } from '@playwright/test';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, nextFrames, placeAtLine, readTo, row, save, signIn, stored } from '../reader';

test('saved, read to the middle, read on offline, finished, and the same on a second device', async ({
  page,
  context,
  browser,
  empty,
}, { project }) => {
  const wide = project.name === 'wide';
  // Two projects share one library: each reads another article.
  const [host, path, title, sentence] = wide
    ? [
        'commons',
        '/bulletin/a-ferry-that-belongs-to-its-passengers',
        'A ferry that belongs to its passengers',
        'In the spring of the year in which the mainland operator',
      ]
    : [
        'tidewater',
        '/issue/what-the-eelgrass-knows',
        'What the eelgrass knows',
        'By the third summer the divers had stopped counting',
      ];
  const address = webPage(host, path);
  await signIn(page, empty);

  await test.step('it is in the Inbox before the server has heard of it, and fills in later', async () => {
    let letGo = () => {};
    const held = new Promise<void>((resolve) => (letGo = resolve));
    await page.route('**/api/sync/push', async (route) => {
      await held;
      await route.continue();
    });
    await save(page, address);
    const waiting = row(page, path);
    await expect(waiting).toContainText('Waiting to be fetched');
    letGo();
    await expect(row(page, title)).toBeVisible();
    await expect(row(page, title).getByRole('img', { name: /^\d+ min$/ })).toBeVisible();
    await page.unroute('**/api/sync/push');
  });

  await test.step('it is read as clean text in a typeface of the reader’s choice', async () => {
    await row(page, title).getByRole('link').click();
    await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
    await expect(page.getByText(sentence)).toBeVisible();
    await expect(page.getByText(/Leave your address|Back issues|Model rules/)).toHaveCount(0);
    await page.getByRole('button', { name: 'How the text looks' }).click();
    await page.getByRole('radio', { name: 'Source Serif' }).click();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await expect(page.locator('.article')).toHaveCSS('font-family', /Source Serif 4/);
  });

  const charactersToALine = wide ? 80 : 45;
  const place = { offset: 0, length: 1 };
  await test.step('left half way, it is in the Queue with a strand that shows how far', async () => {
    await readTo(page, 0.5);
    Object.assign(place, await placeAtLine(page));
    expect(place.offset / place.length).toBeGreaterThan(0.3);
    if (wide) await page.keyboard.press('Escape');
    else await page.getByRole('button', { name: 'Back to Inbox' }).click();
    await goTo(page, 'Queue');
    await expect(row(page, title).getByRole('img', { name: /min, \d+ left$/ })).toBeVisible();
    await goTo(page, 'Inbox');
    await expect(row(page, title)).toHaveCount(0);
  });

  await test.step('with the network cut and the page loaded anew, it goes on at the same line', async () => {
    await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
    await goTo(page, 'Queue');
    await context.setOffline(true);
    await page.reload();
    await expect(page.getByText(/^Offline\./)).toBeVisible();
    await row(page, title).getByRole('link').click();
    await expect(page.getByTestId('reader')).toBeVisible();
    await expect
      .poll(async () => Math.abs((await placeAtLine(page)).offset - place.offset))
      .toBeLessThanOrEqual(charactersToALine);
    const picture = page.locator('.article img').first();
    await picture.scrollIntoViewIfNeeded();
    await expect
      .poll(() => picture.evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth))
      .toBeGreaterThan(300);
  });

  await test.step('another typeface and width keep the place within a line', async () => {
    await page.getByRole('slider', { name: 'Place in the article' }).focus();
    await readTo(page, 0.6);
    const before = await placeAtLine(page);
    await page.getByRole('button', { name: 'How the text looks' }).click();
    await page.getByRole('radio', { name: 'OpenDyslexic' }).click();
    await page.getByRole('button', { name: 'Larger text' }).click();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await page.evaluate(() => document.fonts.ready);
    await nextFrames(page, 10);
    const after = await placeAtLine(page);
    expect(Math.abs(after.offset - before.offset)).toBeLessThanOrEqual(charactersToALine);
  });

  await test.step('finished offline, it waits to be sent', async () => {
    await readTo(page, 1);
    await page.getByRole('button', { name: 'Finished', exact: true }).click();
    await expect(page.getByText(/changes? waits? to be sent/)).toBeVisible();
    await goTo(page, 'Library');
    await page.getByRole('radio', { name: 'Finished' }).click();
    await expect(row(page, title)).toContainText('finished');
    await goTo(page, 'Queue');
    await expect(row(page, title)).toHaveCount(0);
  });

  await test.step('back online, a second browser shows the same', async () => {
    await context.setOffline(false);
    await expect(page.getByText(/^Offline\./)).toHaveCount(0);
    await expect(page.getByText(/to be sent/)).toHaveCount(0);
    const other = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    await signIn(other, empty);
    await goTo(other, 'Library');
    await other.getByRole('radio', { name: 'Finished' }).click();
    await expect(row(other, title).getByRole('img', { name: /min, finished$/ })).toBeVisible();
    await other.context().close();
  });
});

interface Progressed {
  progress: { furthest: number; position: { value: { fraction: number } } | null };
}

function fractionRead({ progress }: Progressed): number {
  return progress.position?.value.fraction ?? 0;
}

test('what is read on one device is where it was on the other, within a line, on another width @any-width', async ({
  page,
  browser,
  empty,
}, { project }) => {
  const title = project.name === 'wide' ? 'The silt year' : 'Larch or oak for a hull that dries out twice a day';
  const address =
    project.name === 'wide' ? webPage('tidewater', '/issue/the-silt-year') : webPage('slipway', '/yard/larch-or-oak');
  await signIn(page, empty);
  await save(page, address);
  // At a second try it has been begun already, and is no longer in the Inbox.
  await goTo(page, 'Library');
  await row(page, title).getByRole('link').click();
  await readTo(page, 0.7);
  const here = await placeAtLine(page);
  // However busy the machine is: a place that was not recorded was only passed.
  await expect
    .poll(async () => (await stored<Progressed>(page, 'items')).map(fractionRead))
    .toContainEqual(expect.closeTo(here.offset / here.length, 1));
  // What appears under the article, as related items do, is no reason to lose sight of the reader.
  await page.getByTestId('reader').evaluate((view) => {
    const late = document.createElement('div');
    late.style.height = '120px';
    view.firstElementChild?.append(late);
  });
  await readTo(page, 0.4);
  const back = await placeAtLine(page);
  expect(back.offset).toBeLessThan(here.offset);
  // The second device is opened when the place has been recorded and sent, however busy the machine is.
  await expect
    .poll(async () => (await stored<Progressed>(page, 'items')).map(fractionRead))
    .toContainEqual(expect.closeTo(back.offset / back.length, 1));
  await expect.poll(() => stored(page, 'outbox')).toEqual([]);

  const other = await (
    await browser.newContext({
      viewport: project.name === 'wide' ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    })
  ).newPage();
  await signIn(other, empty);
  await goTo(other, 'Queue');
  await row(other, title).getByRole('link').click();
  await expect(other.getByTestId('reader')).toBeVisible();
  await expect.poll(async () => Math.abs((await placeAtLine(other)).offset - back.offset)).toBeLessThanOrEqual(90);
  // Going back to read again has not lost the furthest point: the strand's solid part still ends where it was.
  const furthest = (await stored<Progressed>(other, 'items')).map(
    (item) => item.progress.furthest - fractionRead(item),
  );
  expect(Math.max(...furthest)).toBeGreaterThan(0.15);

  await test.step('a text that is open on both goes along, and offers the other place where the reader moved', async () => {
    await readTo(page, 0.6);
    const on = await placeAtLine(page);
    await expect
      .poll(async () => Math.abs((await placeAtLine(other)).offset - on.offset), { timeout: 20_000 })
      .toBeLessThanOrEqual(90);
    await readTo(other, 0.2);
    const elsewhere = await placeAtLine(other);
    await page.getByRole('button', { name: 'Go on where you read on another device' }).click({ timeout: 20_000 });
    await expect
      .poll(async () => Math.abs((await placeAtLine(page)).offset - elsewhere.offset))
      .toBeLessThanOrEqual(90);
    await expect(page.getByRole('button', { name: /another device/ })).toHaveCount(0);
  });
  await other.context().close();
});
