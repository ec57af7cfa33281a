import { expect, type Page } from '@playwright/test';
import { test } from '../homes';
import { row, signIn } from '../reader';

/** Of what is read or pressed, what stands out at the side, unless it is in something that scrolls sideways. */
const standingOut = (page: Page) =>
  page.evaluate(() => {
    const scrolls = (element: Element | null): boolean =>
      element !== null &&
      (/auto|scroll/.test(getComputedStyle(element).overflowX) && element.scrollWidth > element.clientWidth + 1
        ? true
        : scrolls(element.parentElement));
    return [...document.querySelectorAll('a, button, input, [role], h1, h2, h3, p')]
      .filter((element) => {
        const { left, right, width, height } = element.getBoundingClientRect();
        return width > 1 && height > 1 && (right > innerWidth + 1 || left < -1) && !scrolls(element.parentElement);
      })
      .map((element) => `${element.tagName} ${element.getAttribute('aria-label') ?? element.textContent.slice(0, 40)}`);
  });

/**
 * WCAG 2.2, 1.4.10 Reflow: at a width of 320 CSS pixels nothing has to be scrolled to in two directions, but for what needs two
 * dimensions to be understood (tables, code, formulas).
 */
test('at a width of 320 pixels nothing stands out at the side @any-width', async ({ page, seeded }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 320, height: 640 });
  await signIn(page, seeded);
  await expect(row(page, 'Ferry vote goes to the post')).toBeVisible();
  // What stands out is seen.
  await page.evaluate(() => {
    const wide = document.createElement('p');
    wide.style.width = '400px';
    wide.textContent = 'wide';
    document.body.append(wide);
  });
  expect(await standingOut(page)).toEqual(['P wide']);
  const found: string[] = [];
  for (const path of [
    'now',
    'inbox',
    'queue',
    'library',
    'sort',
    'feeds',
    'marks',
    'notes',
    'cards',
    'from-memory',
    'dossiers',
    'look-back',
    'doing',
    'tags',
    'order',
    'you',
    'you/text',
    'you/lists',
    'you/pace',
    'you/listening',
    'you/podcast',
    'you/first-steps',
    'you/saving',
    'you/elsewhere',
    'you/reminders',
    'you/device',
    'you/account',
    'you/archive',
  ]) {
    await page.goto(`${seeded}/${path}`);
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    await page.waitForTimeout(500);
    found.push(...(await standingOut(page)).map((each) => `${path}: ${each}`));
  }
  await page.goto(`${seeded}/queue`);
  await row(page, 'How the old tables were reckoned').getByRole('link').click();
  await expect(page.getByText('In the chart room there is a shelf')).toBeVisible();
  found.push(...(await standingOut(page)).map((each) => `reader: ${each}`));
  expect(found).toEqual([]);
});
