import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { EMPTY, page as webPage } from '../ports';
import { goTo, row, signIn } from '../reader';

/** Presses the bookmark on a page. @returns what it opens */
async function press(page: Page, bookmark: string): Promise<Page> {
  const opening = page.waitForEvent('popup');
  // As from the bar of bookmarks, the script is the browser's own and the page's policy for scripts does not count.
  await page.evaluate(decodeURIComponent(bookmark.slice('javascript:'.length)));
  return opening;
}

async function pageAt(context: BrowserContext, address: string): Promise<Page> {
  const page = await context.newPage();
  await page.goto(address);
  return page;
}

test('a bookmark saves the page as it is seen, also under a strict policy and behind a sign-in, until it is revoked', async ({
  page,
  browser,
}, { project }) => {
  const name = `Browser of ${project.name}`;
  await signIn(page, EMPTY);
  await goTo(page, 'You');
  await page.getByRole('button', { name: 'Save from elsewhere' }).click();
  await page.getByLabel('Where you will use it').fill(name);
  await page.getByRole('button', { name: 'Make the bookmark' }).click();
  const link = page.getByRole('region', { name: 'Your bookmark' }).getByRole('link');
  const bookmark = (await link.getAttribute('href')) ?? '';
  const mine = page.getByRole('listitem').filter({ hasText: name });
  await expect(mine).toContainText('never used');
  /** Another browser, which has no session here. */
  const elsewhere = await browser.newContext();

  await test.step('under a policy that allows nothing', async () => {
    const strict = await pageAt(elsewhere, webPage('rough', `/strict/${project.name}-strict`));
    const answer = await press(strict, bookmark);
    await expect(answer.getByRole('heading', { name: 'Saved to Inbox' })).toBeVisible();
    await expect(answer.getByText('In the library of Ines Tavora-Holm')).toBeVisible();
    const again = await press(strict, bookmark);
    await expect(again.getByRole('heading', { name: 'Already there' })).toBeVisible();
    await expect(again.getByText(/not read yet\. It is on top again\./)).toBeVisible();
  });

  await test.step('behind a sign-in, as the reader sees it', async () => {
    await elsewhere.addCookies([{ name: 'member', value: 'yes', domain: 'rough.localhost', path: '/' }]);
    const members = await pageAt(elsewhere, webPage('rough', `/members/${project.name}-minutes`));
    await press(members, bookmark);
    await goTo(page, 'Inbox');
    const saved = row(page, new RegExp(`Crossing to ${project.name} minutes`, 'i'));
    await expect(saved.getByRole('img', { name: /min/ })).toBeVisible();
    await saved.getByRole('link').click();
    await expect(page.getByText('The fare is five for the crossing')).toBeVisible();
    await page.goto(`${EMPTY}/elsewhere`);
    await expect(mine).toContainText('last used today');
  });

  await test.step('a save is taken back from where it was made', async () => {
    const wrong = await pageAt(elsewhere, webPage('rough', `/strict/${project.name}-mistake`));
    const answer = await press(wrong, bookmark);
    await answer.getByRole('button', { name: 'Undo' }).click();
    await expect(answer.getByRole('heading', { name: 'Taken back' })).toBeVisible();
    await goTo(page, 'Library');
    await page.getByRole('radio', { name: 'Let go' }).click();
    await expect(row(page, new RegExp(`${project.name}[ -]mistake`, 'i'))).toBeVisible();
  });

  await test.step('where forms may not leave the page, the address is shared', async () => {
    const closed = await pageAt(page.context(), webPage('rough', `/closed/${project.name}-closed`));
    const share = await press(closed, bookmark);
    await expect(share.getByText(/Saved/).first()).toBeVisible();
    await goTo(page, 'Inbox');
    await expect(row(page, new RegExp(`Crossing to ${project.name} closed`, 'i'))).toBeVisible();
  });

  await test.step('the secret reads nothing, and is worth nothing once it is revoked', async () => {
    const secret = /"secret":"([^"]+)"/.exec(decodeURIComponent(bookmark))?.[1] ?? '';
    expect(secret).toHaveLength(43);
    const pull = await elsewhere.request.get(`${EMPTY}/api/sync/pull`, {
      headers: { authorization: `Bearer ${secret}`, cookie: `dorvel_session=${secret}` },
    });
    expect(pull.status()).toBe(401);
    await page.goto(`${EMPTY}/elsewhere`);
    await page.getByRole('button', { name: `Revoke “${name}”` }).click();
    await page.getByRole('button', { name: `Revoke “${name}” for good` }).click();
    await expect(mine).toHaveCount(0);
    const late = await pageAt(elsewhere, webPage('rough', `/strict/${project.name}-late`));
    const answer = await press(late, bookmark);
    await expect(answer.getByText(/it was revoked/)).toBeVisible();
  });
  await elsewhere.close();
});
