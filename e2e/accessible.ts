import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** WCAG 2.2 AA by axe-core's rules. */
export async function expectAccessible(page: Page, screen: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze();
  const found = violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`);
  expect(found, screen).toEqual([]);
}

/** Targets of at least 44 CSS pixels, but for links inside sentences. */
export async function expectTargets(page: Page, screen: string): Promise<void> {
  const small = await page
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
