import { expect } from '@playwright/test';
import { expectAccessible } from '../accessible';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, openInYou, row, save, signIn } from '../reader';

test('what is no address is refused in words, and what was typed stays', async ({ page, empty }) => {
  await signIn(page, empty);
  await save(page, 'just some words');
  const sheet = page.getByRole('dialog', { name: 'Save an address' });
  await expect(sheet.getByRole('alert')).toContainText('not a web address');
  await expect(sheet.getByLabel('Address of a page')).toHaveValue('just some words');
  await page.keyboard.press('Escape');
  await expect(sheet).toHaveCount(0);
});

test('the same page saved twice is one item, on top, and the reader is told', async ({ page, empty }, { project }) => {
  const first = webPage('rough', `/n/twice-${project.name}`);
  await signIn(page, empty);
  await save(page, first);
  await expect(row(page, `Page twice-${project.name}`)).toBeVisible();
  await save(page, `${first}?utm_source=elsewhere#comments`);
  await expect(page.getByRole('status').filter({ hasText: 'Already saved' })).toContainText('Moved to the top.');
});

test('an address that turns out to be a page of the library is the first item, and the reader is told', async ({
  page,
  empty,
}, { project }) => {
  const address = webPage('courier', `/news/wren-count-up.html`);
  await signIn(page, empty);
  await save(page, address);
  await expect(row(page, 'Wren count up by a third')).toBeVisible();
  // Only the page itself tells, by its canonical address, that this is the same.
  await save(page, `${address}?edition=${project.name}`);
  await expect(page.getByRole('status').filter({ hasText: 'Already saved' })).toContainText('Moved to the top.');
  await expect(row(page, 'Wren count up by a third')).toHaveCount(1);
});

test('a session that ends while changes wait loses nothing: it asks to sign in, then sends @any-width', async ({
  page,
  context,
  browser,
  empty,
}, { project }) => {
  const address = webPage('rough', `/n/session-${project.name}`);
  const title = `Page session-${project.name}`;
  await signIn(page, empty);
  await expect(page.getByText(/Fetching your library/)).toHaveCount(0);
  await context.setOffline(true);
  await save(page, address);
  await expect(page.getByText(/1 change waits to be sent/)).toBeVisible();
  await context.clearCookies();
  await context.setOffline(false);
  await expect(page.getByText(/Signed out\. 1 change waits to be sent; nothing is lost/)).toBeVisible();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText(/session has ended/)).toBeVisible();
  await page.getByRole('button', { name: 'Fill in the demo account' }).click();
  await page.getByRole('button', { name: 'Sign in' }).last().click();
  await goTo(page, 'Inbox');
  await expect(row(page, title)).toBeVisible();
  const other = await (await browser.newContext()).newPage();
  await signIn(other, empty);
  await expect(row(other, title)).toBeVisible();
  await other.context().close();
});

test('a save is not lost when the page is closed before the device has written it', async ({ page, empty }, {
  project,
}) => {
  await signIn(page, empty);
  const title = `cut-off-${project.name}`;
  // Somebody is at the store, and does not let go of it until the page is closed.
  await page.evaluate(async () => {
    const [found] = (await indexedDB.databases()).filter(({ name }) => name?.startsWith('dorvel-'));
    const opened = indexedDB.open(found?.name ?? '');
    await new Promise((resolve) => (opened.onsuccess = resolve));
    const store = opened.result.transaction([...opened.result.objectStoreNames], 'readwrite').objectStore('meta');
    const hold = () => void (store.get('cursor').onsuccess = hold);
    hold();
  });
  await save(page, webPage('rough', `/n/${title}`));
  await expect
    .poll(() => page.evaluate(() => Object.keys(localStorage).some((name) => name.includes('unwritten'))))
    .toBe(true);
  await page.reload();
  await expect(row(page, title)).toHaveCount(1);
  await expect
    .poll(() => page.evaluate(() => Object.keys(localStorage).some((name) => name.includes('unwritten'))))
    .toBe(false);
});

test('a wrong passphrase says so, and a save can be undone', async ({ page, empty }, { project }) => {
  await page.goto(`${empty}/sign-in`);
  await page.getByLabel('Mail address').fill('ines@skerrow.example');
  await page.getByLabel('Passphrase', { exact: true }).fill('not this one at all');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not belong together');
  await signIn(page, empty);
  await save(page, webPage('rough', `/n/undo-${project.name}`));
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(row(page, `undo-${project.name}`)).toHaveCount(0);
  await goTo(page, 'Library');
  await page.getByRole('radio', { name: 'Let go' }).click();
  await expect(row(page, `undo-${project.name}`)).toHaveCount(1);
});

test('keys move between places and open what is next', async ({ page, empty }, { project }) => {
  test.skip(project.name !== 'wide', 'a phone has no keys');
  await signIn(page, empty);
  await save(page, webPage('rough', '/n/keys'));
  await expect(row(page, 'Page keys')).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('n');
  await expect(page.getByTestId('reader')).toBeVisible();
  await page.keyboard.press('4');
  await expect(page.getByRole('heading', { name: 'Library' })).toBeVisible();
});

test('a change that the server will not take is set aside where the reader sees it, and what comes after it arrives @any-width', async ({
  page,
  browser,
  empty,
}, { project }) => {
  const [refused, taken] = ['too-large', 'after-it'].map((name) => `${name}-${project.name}`);
  await signIn(page, empty);
  // A server, or something before it, that takes no push with this address in it.
  await page.route('**/api/sync/push', async (route) =>
    (route.request().postData() ?? '').includes(refused ?? '')
      ? route.fulfill({
          status: 413,
          contentType: 'application/problem+json',
          body: JSON.stringify({
            type: '/problems/too-large',
            title: 'Too large',
            status: 413,
            detail: 'That is more than the server takes in one request.',
          }),
        })
      : route.continue(),
  );
  await save(page, webPage('rough', `/n/${refused}`));
  await save(page, webPage('rough', `/n/${taken}`));
  await expect(row(page, `Page ${taken}`)).toBeVisible();
  const other = await (await browser.newContext()).newPage();
  await signIn(other, empty);
  await expect(row(other, `Page ${taken}`)).toBeVisible();
  await other.context().close();

  await openInYou(page, 'Account');
  await expect(page.getByText(/but for the change that the server would not take/)).toBeVisible();
  await goTo(page, 'You');
  await page.getByRole('link', { name: /1 change was not taken by the server$/ }).click();
  const aside = page.getByRole('region', { name: 'Not taken by the server' });
  await expect(aside.getByText(`/n/${refused}`)).toBeVisible();
  await expect(aside.getByText('That is more than the server takes in one request.')).toBeVisible();
  await expectAccessible(page, 'this device, with a change set aside');
  await page.unroute('**/api/sync/push');
  await aside.getByRole('button', { name: 'Send again' }).click();
  await expect(aside).toHaveCount(0);
  await goTo(page, 'Inbox');
  await expect(row(page, `Page ${refused}`)).toBeVisible();
});

test('what cannot be drawn does not leave a white screen: it says so, and the rest goes on', async ({
  page,
  empty,
}) => {
  await signIn(page, empty);
  await save(page, webPage('rough', `/n/undrawn`));
  await expect(row(page, 'Page undrawn')).toBeVisible();
  // As an earlier version, or a fault, may have left it.
  await page.evaluate(async () => {
    const { name } = (await indexedDB.databases()).find((each) => each.name?.startsWith('dorvel-')) ?? {};
    const opened = await new Promise<IDBDatabase>((resolve) => {
      const request = indexedDB.open(name ?? '');
      request.onsuccess = () => resolve(request.result);
    });
    const items = opened.transaction('items', 'readwrite').objectStore('items');
    await new Promise((resolve) => {
      const all = items.getAll();
      all.onsuccess = () => {
        for (const item of all.result as { choices: { raisedAt: { value: number } } }[]) {
          item.choices.raisedAt.value = Number.MAX_SAFE_INTEGER;
          items.put({ ...item, savedAt: Number.MAX_SAFE_INTEGER });
        }
        items.transaction.oncomplete = resolve;
      };
    });
    opened.close();
  });
  await page.reload();
  // On a wide screen the list and what is told of its first beside it.
  const alert = page.getByRole('alert').first();
  await expect(alert).toContainText('cannot be shown');
  await expect(alert).toContainText('Nothing is lost');
  // The bar of places is still there, and other places can be gone to.
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible();
});

test.describe('before all of the app has come', () => {
  // What is fetched ahead would be there already.
  test.use({ serviceWorkers: 'block' });

  test('a text says that what it is shown with is not here yet, and is shown when it is', async ({ page, seeded }, {
    project,
  }) => {
    const part = /\/reading-part-[0-9a-f]+\.js$/;
    await page.route(part, (route) => route.abort());
    await signIn(page, seeded);
    await page.goto(`${seeded}/inbox`);
    await row(page, 'Larch or oak').getByRole('link').click();
    const alert = page.getByRole('alert');
    await expect(alert).toContainText('This text cannot be shown yet');
    await expectAccessible(page, 'a text that cannot be shown yet');
    const back = alert.getByRole('button', { name: 'Back to Inbox' });
    if (project.name === 'phone') {
      await back.click();
      await expect(row(page, 'Larch or oak')).toBeVisible();
      await row(page, 'Larch or oak').getByRole('link').click();
    } else await expect(back).toHaveCount(0);
    await page.unroute(part);
    await alert.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByTestId('reader')).toBeVisible();
  });
});
