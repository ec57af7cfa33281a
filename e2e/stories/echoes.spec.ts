import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { goTo, openInYou, row, signIn } from '../reader';

/** What is marked as an echo in the open text. */
const echoes = (page: Page) =>
  page.evaluate(() => [...(CSS.highlights.get('echo') ?? [])].map((range) => (range as Range).toString()));

/** Presses an echo as a finger does: on its first letters. */
async function pressEcho(page: Page, words: string): Promise<void> {
  const at = await page.evaluate((wanted) => {
    const found = [...(CSS.highlights.get('echo') ?? [])].find(
      (range) => (range as Range).toString() === wanted,
    ) as Range;
    found.startContainer.parentElement?.scrollIntoView({ block: 'center' });
    const [box] = found.getClientRects();
    return { x: (box?.left ?? 0) + 6, y: (box?.top ?? 0) + (box?.height ?? 0) / 2 };
  }, words);
  await page.mouse.click(at.x, at.y);
}

test('what stands elsewhere in the library is marked, opened at its passage, and silenced for good', async ({
  page,
  browser,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Queue');
  await row(page, 'What the eelgrass knows').getByRole('link').click();
  await expect.poll(() => echoes(page)).toContain('north berth');
  const marked = await echoes(page);
  const words = ((await page.locator('.article').textContent()) ?? '').split(/\s+/).length;
  expect(marked.length).toBeLessThanOrEqual(words / 60);

  await pressEcho(page, 'north berth');
  const sheet = page.getByRole('dialog', { name: '“north berth” elsewhere' });
  const elsewhere = sheet.getByRole('list', { name: 'Where else' }).getByRole('listitem');
  await expect(elsewhere.first()).toContainText('north berth');
  await expectAccessible(page, 'an echo');
  await expectTargets(page, 'an echo');
  // From echo to echo, and round.
  await sheet.getByRole('button', { name: 'The next echo' }).click();
  await expect(page.getByRole('dialog', { name: '“north berth” elsewhere' })).toHaveCount(0);
  await page.getByRole('button', { name: 'The echo before' }).click();

  // The passage is opened, and there is a way back.
  await elsewhere.first().getByRole('link').click();
  await expect
    .poll(() =>
      page.evaluate(() => [...(CSS.highlights.get('found') ?? [])].map((range) => (range as Range).toString())),
    )
    .toEqual(['north berth']);
  await page.getByRole('button', { name: 'Back to “What the eelgrass knows”' }).click();
  await expect(page.getByRole('heading', { name: 'What the eelgrass knows', level: 1 })).toBeVisible();

  // By keys: the next one from where the eyes are; it is silenced, here and on every other device.
  const found = page.getByRole('dialog', { name: / elsewhere$/ });
  await expect(async () => {
    // They are looked for anew when a text is opened.
    await page.keyboard.press('o');
    await expect(found).toBeVisible({ timeout: 1000 });
  }).toPass();
  const silenced = /^“(.*)” elsewhere$/.exec((await found.getAttribute('aria-label')) ?? '')?.[1] ?? '';
  await found.getByRole('button', { name: 'Not this word' }).click();
  await expect.poll(() => echoes(page)).not.toContain(silenced);

  const other = await (await browser.newContext({ viewport: page.viewportSize() })).newPage();
  await signIn(other, seeded);
  await openInYou(other, 'Pace and silenced words');
  await other.getByRole('button', { name: `Allow “${silenced}” again` }).click();
  await expect(other.getByRole('list', { name: 'Silenced' })).toHaveCount(0);
  await goTo(other, 'Queue');
  await row(other, 'What the eelgrass knows').getByRole('link').click();
  await expect.poll(() => echoes(other)).toContain(silenced);

  // And none at all where none are wanted.
  await other.getByRole('button', { name: 'How the text looks' }).click();
  await other.getByRole('radiogroup', { name: 'Echoes' }).getByRole('radio', { name: 'None' }).click();
  await expect.poll(() => echoes(other)).toEqual([]);
  await other.context().close();
});

test('on a wide screen the library answers in the margin, beside the line, with what the reader marked and wrote', async ({
  page,
  seeded,
}, { project }) => {
  test.skip(project.name !== 'wide', 'a phone has no margin');
  await signIn(page, seeded);
  await goTo(page, 'Queue');
  await row(page, 'What the eelgrass knows').getByRole('link').click();
  const margin = page.getByRole('complementary', { name: 'Margin' });
  const entry = margin.getByRole('button', { name: /^“north berth” elsewhere/ });
  await entry.scrollIntoViewIfNeeded();
  // Beside its line, and none over another.
  const line = await page.evaluate(() => {
    const found = [...(CSS.highlights.get('echo') ?? [])].find(
      (range) => (range as Range).toString() === 'north berth',
    ) as Range;
    return found.getBoundingClientRect().top;
  });
  const boxes = await margin.getByRole('button').evaluateAll((all) =>
    all.map((each) => {
      const { top, bottom } = each.getBoundingClientRect();
      return { top, bottom };
    }),
  );
  boxes.slice(1).forEach(({ top }, at) => expect(top).toBeGreaterThanOrEqual(boxes[at]!.bottom));
  const at = (await entry.boundingBox())!;
  expect(at.y).toBeGreaterThanOrEqual(line - 4);
  expect(at.y).toBeLessThan(line + 120);
  await expectAccessible(page, 'the margin');
  await expectTargets(page, 'the margin');

  // Pressed it says where; from there by keys, and back.
  await entry.click();
  const open = page.getByRole('dialog', { name: / elsewhere$/ });
  await expect(open).toHaveAccessibleName('“north berth” elsewhere');
  await page.keyboard.press('ArrowRight');
  await expect(open).not.toHaveAccessibleName('“north berth” elsewhere');
  await page.keyboard.press('ArrowLeft');
  await expect(open).toHaveAccessibleName('“north berth” elsewhere');
  await page.keyboard.press('Escape');
  await expect(open).toHaveCount(0);

  const own = margin.getByRole('button', { name: /^(?:Key|Question|Quote|To do|Doubt)/ }).first();
  await own.click();
  await expect(page.getByRole('dialog')).toBeVisible();
});
