import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { nextFrames } from './reader';

/**
 * WCAG 2.2 AA by axe-core's rules: all of them by day, and by night those that colours can break.
 *
 * @param of the part of a page that is ours, as a selector
 */
export async function expectAccessible(page: Page, screen: string, of = 'html'): Promise<void> {
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
  await expectNothingFound(axe(page, of).withTags(tags), `${screen}, by day`);
  await page.emulateMedia({ colorScheme: 'dark' });
  // The theme follows when the page is drawn next.
  await nextFrames(page, 3);
  await expectNothingFound(axe(page, of).withRules(['color-contrast', 'link-in-text-block']), `${screen}, by night`);
  await page.emulateMedia({ colorScheme: 'light' });
}

// No screen has a frame of another origin, so that no page of its own is needed for what axe finds: half the time.
const axe = (page: Page, of: string) => new AxeBuilder({ page }).include(of).setLegacyMode(true);

async function expectNothingFound(builder: AxeBuilder, screen: string): Promise<void> {
  const { violations } = await builder.analyze();
  const found = violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`);
  expect(found, screen).toEqual([]);
}

/** Targets of at least 44 CSS pixels, but for links inside sentences. @param of as above */
export async function expectTargets(page: Page, screen: string, of = 'html'): Promise<void> {
  const small = await page
    .locator(of)
    .locator('button, [role=button], [role=radio], a[href]:not(.article a):not(.front-matter a)')
    .evaluateAll((elements) =>
      elements
        .map((element) => ({
          box: element.getBoundingClientRect(),
          name: element.getAttribute('aria-label') ?? element.textContent,
        }))
        .filter(({ box }) => box.width > 0 && (box.width < 44 || box.height < 44))
        .map(({ box, name }) => `${name} ${Math.round(box.width)}×${Math.round(box.height)}`),
    );
  expect(small, screen).toEqual([]);
}
