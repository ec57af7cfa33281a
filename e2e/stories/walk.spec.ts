import { expect, type Page } from '@playwright/test';
import { test } from '../homes';
import { SMALL_WEB_PORT } from '../ports';
import { signIn } from '../reader';

/**
 * The five things that a reader does most, by keys alone, with what a screen reader is given of each: roles, names, states, what
 * is told without being looked at, and where the focus stands. docs/accessibility.md walks the same way in words.
 */

/** What has the focus: its role, or its element, and its name. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const element = document.activeElement;
    const name = element?.getAttribute('aria-label') ?? element?.textContent.slice(0, 40) ?? '';
    return `${element?.getAttribute('role') ?? element?.tagName.toLowerCase() ?? ''} ${name}`.trim();
  });

/** Tab by Tab, what has the focus. */
async function stops(page: Page, count: number): Promise<string[]> {
  const found: string[] = [];
  for (let n = 0; n < count; n++) {
    await page.keyboard.press('Tab');
    found.push(await focused(page));
  }
  return found;
}

test('saving, sorting, reading, marking and listening go by keys, and are told', async ({ page, seeded }, {
  project,
}) => {
  await signIn(page, seeded);
  const list = page.getByRole('list', { name: 'Inbox' });
  await expect(list.getByRole('link').first()).toBeVisible();

  await test.step('the Inbox: its landmarks, and an order of the focus that is that of the screen', async () => {
    await expect(page.getByRole('main')).toHaveCount(1);
    await expect(page.getByRole('navigation', { name: 'Places' })).toHaveCount(1);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Inbox');
    await expect(page.getByRole('link', { name: /^Inbox/ })).toHaveAttribute('aria-current', 'page');
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    const order = (await stops(page, 16)).join('\n');
    const head = order.indexOf('button Sort, one at a time');
    const first = order.indexOf('What to do with “');
    expect(head).toBeGreaterThanOrEqual(0);
    expect(first).toBeGreaterThan(head);
    // On a wide screen the places stand before all else, on a phone behind it.
    if (project.name === 'wide') expect(order.indexOf('a Now')).toBeLessThan(head);
  });

  await test.step('saving: the sheet takes the focus, keeps it, says what happened, and gives it back', async () => {
    await page
      .getByRole('link', { name: /Ferry vote goes to the post/ })
      .first()
      .focus();
    await page.keyboard.press('s');
    const sheet = page.getByRole('dialog', { name: 'Save an address' });
    await expect(sheet.getByLabel('Address of a page')).toBeFocused();
    for (const stop of await stops(page, 12))
      expect(await page.evaluate(() => document.activeElement?.closest('dialog') !== null), stop).toBe(true);
    await sheet.getByLabel('Address of a page').focus();
    await page.keyboard.type(`http://rough.localhost:${SMALL_WEB_PORT}/walked`);
    await page.keyboard.press('Enter');
    await expect(sheet).toHaveCount(0);
    await expect(page.getByRole('status').filter({ hasText: 'Saved to Inbox.' })).toBeVisible();
    await expect(page.getByRole('link', { name: /Ferry vote goes to the post/ }).first()).toBeFocused();
    await page.keyboard.press('u');
  });

  await test.step('reading: the text takes the focus, says what it is, goes on by Space', async () => {
    await page.keyboard.press('Enter');
    const text = page.getByRole('region', { name: 'Article' });
    await expect(text).toBeFocused();
    await expect(page.getByRole('heading', { level: 1, name: /Ferry vote goes to the post/i })).toBeVisible();
    const place = page.getByRole('slider', { name: 'Place in the article' });
    await expect(place).toHaveAttribute('aria-orientation', 'vertical');
    await expect(place).toHaveAttribute('aria-valuetext', /min/);
    const before = await text.evaluate((view) => view.scrollTop);
    await page.keyboard.press('Space');
    await expect.poll(() => text.evaluate((view) => view.scrollTop)).toBeGreaterThan(before);
    for (const name of ['Listen', 'Contents', 'How the text looks', 'What to do with this item'])
      await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  });

  await test.step('marking: told, and taken back', async () => {
    await page.keyboard.press('m');
    await expect(page.getByRole('status').filter({ hasText: 'Marked: Key.' })).toBeVisible();
    await page.keyboard.press('u');
    await expect(page.getByRole('status').filter({ hasText: 'Marked: Key.' })).toHaveCount(0);
  });

  await test.step('listening: the button says what it does now, the player has a name', async () => {
    await page.keyboard.press('l');
    await expect(page.getByRole('button', { name: 'Pause the voice' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Player' })).toBeVisible();
    await page.keyboard.press('l');
    await expect(page.getByRole('button', { name: 'Listen', exact: true })).toBeVisible();
  });

  await test.step('back: where one came from has the focus', async () => {
    await page.getByRole('region', { name: 'Article' }).focus();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name: 'Article' })).toHaveCount(0);
    // What is begun is queued: it is not in the Inbox any more, and its neighbours are.
    await expect(list.locator(':focus')).toHaveCount(1);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'Article' })).toBeFocused();
    await page.keyboard.press('Escape');
    await expect(list.locator(':focus')).toHaveCount(1);
  });

  await test.step('sorting: what stands there is named, a key decides, what was decided is told', async () => {
    await page.goto(`${seeded}/sort`);
    await expect(page.getByRole('region', { name: 'Gist' })).toBeVisible();
    const title = (await page.getByRole('heading', { level: 2 }).first().textContent()) ?? '';
    await page.keyboard.press('k');
    await expect(page.getByRole('status').filter({ hasText: /kept/i })).toBeVisible();
    await expect(page.getByRole('heading', { level: 2 }).first()).not.toHaveText(title);
    await page.keyboard.press('u');
    await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText(title);
  });
});

test('keys of one letter are turned off, and those that press what has the focus are not @any-width', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  const sheet = page.getByRole('dialog', { name: 'Save an address' });
  await page.keyboard.press('s');
  await expect(sheet).toBeVisible();
  await page.keyboard.press('Escape');
  await page.goto(`${seeded}/you/device`);
  await page.getByRole('switch', { name: 'Keys of one letter' }).focus();
  const keys = page.getByRole('switch', { name: 'Keys of one letter' });
  await expect(keys).toBeChecked();
  await page.keyboard.press('Space');
  await expect(keys).not.toBeChecked();
  await page.keyboard.press('s');
  await page.goto(`${seeded}/inbox`);
  const first = page.getByRole('list', { name: 'Inbox' }).getByRole('link').first();
  await expect(first).toBeVisible();
  await page.keyboard.press('s');
  await page.keyboard.press('n');
  await expect(page).toHaveURL(/\/inbox$/);
  await first.focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/inbox\/./);
  await expect(sheet).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Inbox', level: 1 })).toBeVisible();
});
