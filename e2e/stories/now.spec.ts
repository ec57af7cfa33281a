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
  await page.getByRole('button', { name: 'Clear the search' }).click();

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

test('who comes back to Now, and to You, is where they were', async ({ page, seeded }, { project }) => {
  await signIn(page, seeded);
  await page.setViewportSize({ width: page.viewportSize()?.width ?? 390, height: 480 });
  /** How far what scrolls around the first heading is scrolled. */
  const scrolled = () =>
    page.getByRole('heading', { level: 1 }).evaluateAll((headings) => {
      for (let at = headings[0]?.parentElement; at; at = at.parentElement)
        if (at.scrollHeight > at.clientHeight && getComputedStyle(at).overflowY === 'auto') return at.scrollTop;
      return -1;
    });
  await goTo(page, 'Now');
  await expect(page.getByRole('region', { name: 'Come back' })).toBeVisible();
  await page.mouse.move(180, 300);
  await page.mouse.wheel(0, 330);
  await expect.poll(scrolled).toBe(330);
  await page.waitForTimeout(300);
  await goTo(page, 'Library');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Now' }).click();
  await expect.poll(scrolled).toBe(330);

  await goTo(page, 'You');
  const file = page.getByRole('link', { name: /^Your library as a file/ });
  await file.scrollIntoViewIfNeeded();
  await page.waitForTimeout(300);
  await file.click();
  if (project.name === 'phone') await page.getByRole('link', { name: 'Back to You' }).click();
  await expect(file).toBeInViewport();
});
