import { expect } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { openInYou, signIn } from '../reader';

test('what comes back comes as a letter, which leads into the library, and as a feed that ends when the reader ends it @any-width', async ({
  page,
  seeded,
  request,
}) => {
  await signIn(page, seeded);
  await openInYou(page, 'Letter and feed');
  const letter = page.getByRole('region', { name: 'Daily letter' });
  await expect(letter.getByRole('radio', { name: 'No letter' })).toBeChecked();
  await letter.getByRole('radio', { name: '6:00' }).click();
  await expect(letter.getByRole('radio', { name: '6:00' })).toBeChecked();
  await expect(letter.getByRole('status')).toBeVisible();
  await letter.getByRole('button', { name: 'Send one now' }).click();
  // The first letter has the library related first, which takes a while beside other servers.
  await expect(page.getByText('The letter is sent.')).toBeVisible({ timeout: 90_000 });
  await expectAccessible(page, 'letter and feed');
  await expectTargets(page, 'letter and feed');

  const mail = await page.context().newPage();
  await mail.goto(webPage('post', '/letters'));
  await mail.getByRole('link', { name: /^For / }).first().click();
  await expect(mail.getByRole('heading', { name: 'Come back' })).toBeVisible();
  // Nothing runs in a letter, what looks for faults neither: they are looked for in the same letter outside of the mail program.
  const copy = await page.context().newPage();
  await copy.setContent(await mail.content());
  await expectAccessible(copy, 'a letter', 'body > div');
  for (const width of [320, 390, 1280]) {
    await copy.setViewportSize({ width, height: 700 });
    expect(await copy.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
  await copy.close();
  const first = mail.getByRole('link').first();
  const title = await first.innerText();
  // A mail program gives it to the browser.
  await mail.goto((await first.getAttribute('href')) ?? '');
  await expect(mail.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  await mail.close();

  const feed = page.getByRole('region', { name: 'Feed' });
  await feed.getByRole('button', { name: 'Begin the feed' }).click();
  const address = await feed.getByRole('note', { name: 'Address of your feed (Atom)' }).innerText();
  const json = await feed.getByRole('note', { name: 'Address of your feed (JSON)' }).innerText();
  // No cookie: as a feed reader asks.
  const atom = await request.get(address);
  expect(atom.headers()['content-type']).toContain('application/atom+xml');
  expect(await atom.text()).toContain(title.replaceAll('&', '&amp;'));
  const { items } = (await (await request.get(json)).json()) as { items: { title: string }[] };
  expect(items.map((each) => each.title)).toContain(title);

  await feed.getByRole('button', { name: 'End the feed' }).click();
  await feed.getByRole('button', { name: 'Yes, end it' }).click();
  await expect(feed.getByRole('button', { name: 'Begin the feed' })).toBeVisible();
  expect((await request.get(address)).status()).toBe(404);
});
