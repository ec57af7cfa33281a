import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { goTo, pressAndHear, row, signIn } from '../reader';

/** The parts of Now that are on screen, in their order. */
const parts = (page: Page) =>
  page.getByRole('region').evaluateAll((regions) => regions.map((region) => region.getAttribute('aria-label')));

test('Now has the parts that the reader wants, in their order, and what they pinned, also on another device', async ({
  page,
  browser,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Queue');
  await row(page, 'The silt year')
    .getByRole('button', { name: /^What to do with/ })
    .click();
  await page.getByRole('button', { name: 'Pin to Now' }).click();
  await goTo(page, 'Library');
  await page.getByRole('searchbox', { name: 'Find' }).fill('tag:tides');
  await page.getByRole('button', { name: 'Keep this search' }).click();
  await page.getByRole('button', { name: 'Pin this search to Now' }).click();
  await page.getByRole('button', { name: 'Find nothing in particular' }).click();

  await goTo(page, 'Now');
  const pinned = page.getByRole('region', { name: 'Pinned' });
  await expect(pinned.getByRole('listitem')).toHaveCount(2);
  await expect(pinned).toContainText('The silt year');
  await page.getByRole('button', { name: 'Arrange Now' }).click();
  const sheet = page.getByRole('dialog', { name: 'Arrange Now' });
  await sheet.getByRole('switch', { name: 'Come back' }).click();
  await sheet.getByRole('button', { name: /^Move “Pinned”/ }).focus();
  await pressAndHear(page, ['Space', 'ArrowUp', 'ArrowUp', 'Space']);
  await expectAccessible(page, 'arranging Now');
  await expectTargets(page, 'arranging Now');
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await parts(page))[0]).toBe('Pinned');
  expect(await parts(page)).not.toContain('Come back');
  // As it was arranged, also when it is opened anew.
  await page.reload();
  await expect.poll(async () => (await parts(page))[0]).toBe('Pinned');

  const other = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await signIn(other, seeded);
  await goTo(other, 'Now');
  const there = other.getByRole('region', { name: 'Pinned' });
  await there.getByRole('button', { name: 'Find tag:tides' }).click();
  await expect(other.getByRole('searchbox', { name: 'Find' })).toHaveValue('tag:tides');
  await goTo(other, 'Now');
  await there.getByRole('button', { name: 'Take off Now: tag:tides' }).click();
  await expect(there.getByRole('listitem')).toHaveCount(1);
  await expect(pinned.getByRole('listitem')).toHaveCount(1);
  await other.context().close();
  await row(page, 'The silt year')
    .getByRole('button', { name: /^What to do with/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Take off Now' }).click();
  await expect(pinned).toHaveCount(0);
});
