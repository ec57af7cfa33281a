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
 * What can be pressed and is smaller than a fingertip, 44 CSS pixels in both directions (WCAG 2.2, 2.5.5; links in running text
 * are left out there, and what is as large as the browser makes it).
 */
const tooSmall = (page: Page) =>
  page.evaluate(() =>
    [
      ...document.querySelectorAll<HTMLElement>(
        'a, button, input, select, textarea, summary, [role=button], [role=link], [role=checkbox], [role=radio], [role=switch], [role=slider], [role=tab]',
      ),
    ]
      .filter((element) => {
        const target = element.closest('label') ?? element;
        const { width, height } = target.getBoundingClientRect();
        const isSeen =
          width > 1 && height > 1 && element.checkVisibility({ visibilityProperty: true, opacityProperty: true });
        return isSeen && (width < 43.5 || height < 43.5) && !element.closest('.article, p');
      })
      .map((element) => {
        const { width, height } = element.getBoundingClientRect();
        return `${element.getAttribute('aria-label') ?? element.textContent.slice(0, 40)} (${Math.round(width)} × ${Math.round(height)})`;
      }),
  );

/**
 * WCAG 2.2, 1.4.10 Reflow: at a width of 320 CSS pixels nothing has to be scrolled to in two directions, but for what needs two
 * dimensions to be understood (tables, code, formulas).
 */
test('at a width of 320 pixels nothing stands out at the side, and what is pressed has room for a finger @any-width', async ({
  page,
  seeded,
}) => {
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
  // And so is what is too small for a finger.
  await page.evaluate(() => {
    const small = document.createElement('button');
    small.textContent = 'small';
    Object.assign(small.style, { position: 'fixed', top: '0', left: '0', width: '60px', height: '30px' });
    document.body.append(small);
  });
  expect(await tooSmall(page)).toEqual(['small (60 × 30)']);
  const found: string[] = [];
  for (const path of [
    'now',
    'inbox',
    'queue',
    'library',
    'pictures',
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
    found.push(...(await tooSmall(page)).map((each) => `${path}, too small: ${each}`));
  }
  await page.goto(`${seeded}/queue`);
  await row(page, 'How the old tables were reckoned').getByRole('link').click();
  await expect(page.getByText('In the chart room there is a shelf')).toBeVisible();
  found.push(...(await standingOut(page)).map((each) => `reader: ${each}`));
  found.push(...(await tooSmall(page)).map((each) => `reader, too small: ${each}`));
  expect(found).toEqual([]);
});

test('the colours of a reader who has their own are kept, and what is chosen can still be told @any-width', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await expect(row(page, 'Ferry vote goes to the post')).toBeVisible();
  const colours = () =>
    page.evaluate(() => {
      const probe = document.createElement('div');
      document.body.append(probe);
      const resolved = (colour: string) => {
        probe.style.color = colour;
        return getComputedStyle(probe).color;
      };
      const line = document.querySelector('[role=listitem] svg line');
      const drawn = line ? getComputedStyle(line).stroke : '';
      const answer = { drawn, text: resolved('CanvasText'), link: resolved('LinkText') };
      probe.remove();
      return answer;
    });
  const own = await colours();
  expect([own.text, own.link]).not.toContain(own.drawn);
  await page.emulateMedia({ forcedColors: 'active' });
  const forced = await colours();
  expect([forced.text, forced.link]).toContain(forced.drawn);
  await page.goto(`${seeded}/you/text`);
  const chosen = page.getByRole('radio', { checked: true }).first();
  const other = page.getByRole('radio', { checked: false }).first();
  await expect(chosen).toHaveCSS('outline-style', 'solid');
  await expect(other).not.toHaveCSS('outline-style', 'solid');
});
