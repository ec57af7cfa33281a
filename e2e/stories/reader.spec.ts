import { expect } from '@playwright/test';
import { test } from '../homes';
import { goTo, openEverything, row, signIn } from '../reader';

const highlighted = (name: string) => [...(CSS.highlights.get(name) ?? [])].map((range) => (range as Range).toString());

test('a long text is found one’s way about in: parts, words, notes, pictures, pages', async ({ page, seeded }, {
  project,
}) => {
  await signIn(page, seeded);
  await openEverything(page);
  const reader = page.getByTestId('reader');

  await test.step('its parts, each with its minutes, and the way to one', async () => {
    await page.getByRole('button', { name: 'Contents', exact: true }).click();
    // Beside the text on a wide screen, where the list was; over it on a phone.
    const contents = page.getByRole(project.name === 'wide' ? 'complementary' : 'dialog', { name: 'Contents' });
    const parts = contents.getByRole('listitem');
    expect(await parts.count()).toBeGreaterThan(2);
    const last = parts.last().getByRole('button');
    const title = ((await last.getAttribute('aria-label')) ?? '').split(',')[0] ?? '';
    await last.click();
    if (project.name === 'wide') await page.keyboard.press('c');
    await expect(contents).toHaveCount(0);
    await expect(page.locator('.article').getByRole('heading', { name: title })).toBeInViewport();
  });

  await test.step('a word in it, and the next one', async () => {
    await page.keyboard.press('f');
    await page.keyboard.type('TIDE');
    const bar = page.getByRole('region', { name: 'Find in this article' });
    await expect(bar.getByRole('status')).toHaveText(/^1 of \d+$/);
    const count = (await page.evaluate(highlighted, 'found-here')).length;
    expect(count).toBeGreaterThan(2);
    await page.keyboard.press('Enter');
    await expect(bar.getByRole('status')).toHaveText(`2 of ${count}`);
    expect((await page.evaluate(highlighted, 'found-now')).join('').toLowerCase()).toBe('tide');
    await page.keyboard.press('Escape');
    await expect(bar).toHaveCount(0);
  });

  await test.step('a note over the text, and back at its mark', async () => {
    const mark = page.locator('.article sup a').first();
    await mark.scrollIntoViewIfNeeded();
    const before = await reader.evaluate((view) => view.scrollTop);
    await mark.click();
    const note = page.getByRole('dialog', { name: 'Note' });
    await expect(note.locator('.article')).not.toBeEmpty();
    await note.getByRole('button', { name: 'Close', exact: true }).click();
    await expect(mark).toBeFocused();
    expect(Math.abs((await reader.evaluate((view) => view.scrollTop)) - before)).toBeLessThan(3);
    await mark.click();
    await note.getByRole('button', { name: 'Go to the notes' }).click();
    await page.getByRole('button', { name: 'Back to where you were' }).click();
    expect(Math.abs((await reader.evaluate((view) => view.scrollTop)) - before)).toBeLessThan(3);
  });

  await test.step('code in its colours, no letter of it changed', async () => {
    const code = page.locator('.article pre code').first();
    const text = await code.textContent();
    await expect.poll(async () => (await page.evaluate(highlighted, 'code-word')).length).toBeGreaterThan(0);
    expect(await code.textContent()).toBe(text);
    expect(await code.evaluate((element) => element.childNodes.length)).toBe(1);
  });

  await test.step('turned by pages, a page begins where the one before ended', async () => {
    await page.getByRole('button', { name: 'How the text looks' }).click();
    await page.getByRole('radio', { name: 'Turn pages' }).click();
    await page.keyboard.press('Escape');
    await reader.evaluate((view) => void (view.scrollTop = 0));
    const firstLine = () =>
      reader.evaluate((view) => {
        const box = view.getBoundingClientRect();
        return document.elementFromPoint(box.left + 40, box.top + 30)?.textContent.slice(0, 40) ?? '';
      });
    const top = () => reader.evaluate((view) => view.scrollTop);
    const height = await reader.evaluate((view) => view.clientHeight);
    await page.keyboard.press('ArrowRight');
    const first = await top();
    expect(first).toBeGreaterThan(height * 0.6);
    expect(first).toBeLessThanOrEqual(height);
    const line = await firstLine();
    const box = (await reader.boundingBox())!;
    const press = (part: number) => page.mouse.click(box.x + box.width * part, box.y + box.height * 0.6);
    await press(0.8);
    expect(await top()).toBeGreaterThan(first + height * 0.6);
    await press(0.1);
    await expect.poll(async () => Math.abs((await top()) - first)).toBeLessThan(60);
    expect(line).not.toBe('');
    await page.getByRole('button', { name: 'How the text looks' }).click();
    await page.getByRole('radio', { name: 'Scroll' }).click();
    await page.keyboard.press('Escape');
  });

  test.info().annotations.push({ type: 'width', description: project.name });
});

test('over a text from right to left the day stands before its month', async ({ page, seeded }) => {
  await signIn(page, seeded);
  await goTo(page, 'Inbox');
  await row(page, /جزيرة/).click();
  const line = page.locator('.front-matter p').filter({ hasText: /\d{1,2} \p{L}+ \d{4}/u });
  const [day, month] = await line.evaluate((element) => {
    const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const found = /(\d{1,2}) \p{L}+ \d{4}/u.exec(node.nodeValue ?? '');
      if (!found) continue;
      const leftOf = (at: number) => {
        const range = document.createRange();
        range.setStart(node, at);
        range.setEnd(node, at + 1);
        return range.getBoundingClientRect().left;
      };
      return [leftOf(found.index), leftOf(found.index + (found[1] ?? '').length + 1)];
    }
    return [];
  });
  expect(day).toBeLessThan(month ?? 0);
});

test('a picture is seen large, drawn nearer, and closed again', async ({ page, seeded }) => {
  await signIn(page, seeded);
  await goTo(page, 'Library');
  await page.getByLabel(/^Find/).first().fill('"What the eelgrass knows"');
  await page
    .getByRole('link', { name: /What the eelgrass knows/ })
    .first()
    .click();
  const enlarge = page.getByRole('button', { name: /^Enlarge/ }).first();
  await enlarge.scrollIntoViewIfNeeded();
  await enlarge.click();
  const view = page.locator('dialog.picture-view');
  const scale = () =>
    view.locator('.picture-sheet').evaluate((sheet) => new DOMMatrix(getComputedStyle(sheet).transform).a);
  await expect(view).toBeVisible();
  await view.getByRole('button', { name: 'Nearer' }).click();
  await expect.poll(scale).toBeGreaterThan(1.2);
  await page.keyboard.press('Escape');
  await expect(view).toHaveCount(0);
  await expect(enlarge).toBeFocused();
});

test('what is about to be opened is set out of sight, and that is what the press shows', async ({ page, seeded }, {
  project,
}) => {
  test.skip(project.name !== 'phone', 'on a wide screen the list stays beside the text');
  await signIn(page, seeded);
  await goTo(page, 'Queue');
  const link = page.getByRole('listitem').filter({ hasText: 'What the eelgrass knows' }).getByRole('link');
  await link.focus();
  const set = page.locator('.article p').first();
  await expect(set).toBeHidden();
  await expect.poll(() => set.count()).toBe(1);
  await set.evaluate((paragraph) => paragraph.setAttribute('data-set-ahead', ''));
  // What is seen of the text behind each frame: how far down, in how much room.
  const frames = await page.evaluateHandle(() => {
    const seen: [top: number, height: number][] = [];
    const look = () => {
      const view = document.querySelector('.reader-scroll');
      if (view?.checkVisibility()) seen.push([view.scrollTop, view.clientHeight]);
      requestAnimationFrame(() => setTimeout(look));
    };
    look();
    return seen;
  });
  await page.keyboard.press('Enter');
  await expect(page.locator('.article p[data-set-ahead]')).toBeVisible();
  await expect(page).toHaveURL(/\/queue\/./);
  await expect(page.getByRole('list', { name: /^Queue/ })).toHaveCount(0);
  await page.waitForFunction((all) => all.length > 20, frames);
  const seen = await frames.jsonValue();
  expect(seen[0]?.[0], 'a text that was begun is seen at its place at once').toBeGreaterThan(0);
  expect(new Set(seen.map(([, height]) => height)).size, 'and nothing around it moves').toBe(1);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Queue', level: 1 })).toBeVisible();
  await expect(page).toHaveURL(/\/queue$/);
});
