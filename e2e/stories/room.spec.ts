import type { Locator } from '@playwright/test';
import { expect } from '@playwright/test';
import { Finger } from '../finger';
import { test } from '../homes';
import { goTo, openEverything, signIn } from '../reader';

const center = async (what: Locator) => {
  const box = await what.boundingBox();
  if (!box) throw new Error('what should be looked at is not on screen');
  return { x: box.x + box.width / 2, y: box.y + box.height / 2, box };
};

test('a wide screen gives its room to the text: list away, contents beside it, notes in the margin, all of it', async ({
  page,
  seeded,
}, { project }) => {
  test.skip(project.name !== 'wide', 'a phone has no room beside a text');
  await signIn(page, seeded);
  await openEverything(page);
  const article = page.locator('.article');
  const list = page.getByRole('heading', { name: 'Library', level: 1 });
  await expect(list).toBeVisible();

  await test.step('the list goes away, and the text stands in the middle of what is left', async () => {
    await page.keyboard.press('\\');
    await expect(list).toBeHidden();
    const frame = await center(page.getByTestId('reader'));
    await expect.poll(async () => Math.abs((await center(article)).x - frame.x)).toBeLessThan(4);
  });

  await test.step('a footnote stands beside its line, and opens from there', async () => {
    const mark = article.locator('sup a').first();
    await mark.scrollIntoViewIfNeeded();
    const note = page.getByRole('complementary', { name: 'Margin' }).getByRole('button', { name: /^Note 1/ });
    await expect(note).toBeVisible();
    expect(Math.abs((await center(note)).box.y - (await center(mark)).box.y)).toBeLessThan(160);
    expect((await center(note)).box.x).toBeGreaterThan((await center(article)).box.x + 400);
    await note.click();
    await expect(page.getByRole('dialog', { name: 'Note' }).locator('.article')).not.toBeEmpty();
    await page.keyboard.press('Escape');
  });

  await test.step('the contents stand where the list did, and say where one is', async () => {
    await page.keyboard.press('c');
    const contents = page.getByRole('complementary', { name: 'Contents' });
    const last = contents.getByRole('listitem').last().getByRole('button');
    await last.click();
    await expect(last).toHaveAttribute('aria-current', 'location');
    await expect(contents).toBeVisible();
    await page.reload();
    await expect(contents).toBeVisible();
    await page.keyboard.press('c');
    await expect(contents).toHaveCount(0);
  });

  await test.step('all of the screen, and back by the key that leaves things', async () => {
    await page.getByRole('button', { name: 'The whole screen' }).click();
    await expect(page.getByRole('navigation', { name: 'Places' })).toHaveCount(0);
    expect((await center(page.getByTestId('reader'))).box.width).toBeGreaterThan(1270);
    await page.getByRole('button', { name: 'Leave the whole screen' }).click();
    await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible();
    await expect(page.getByTestId('reader')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name: 'Article' })).toHaveCount(0);
  });
});

test('a finger pulls for what is new, holds to choose several, and strokes from the edge to go back', async ({
  page,
  context,
  seeded,
}, { project }) => {
  test.skip(project.name !== 'phone', 'there is no finger at a wide screen');
  await signIn(page, seeded);
  const finger = new Finger(await context.newCDPSession(page));

  await test.step('drawn down a little, it says what more of it would do, and does nothing', async () => {
    await finger.stroke([200, 300], [200, 345]);
    await expect(page.getByText('Pull to fetch')).toBeVisible();
    await finger.up();
    await expect(page.getByText('Pull to fetch')).toHaveCount(0);
    await expect(page.getByText('All that is new is here.')).toHaveCount(0);
  });

  await test.step('drawn down, it asks the server', async () => {
    const asked = page.waitForRequest(/\/api\/sync\/pull/);
    await finger.stroke([200, 300], [200, 520]);
    await expect(page.getByText('Let go to fetch')).toBeVisible();
    await finger.up();
    await asked;
    await expect(page.getByText('All that is new is here.')).toBeVisible();
    await expect(page.getByText('All that is new is here.')).toHaveCount(0);
  });

  await test.step('held on a row, that one is chosen, and others beside it', async () => {
    const first = page.getByRole('list', { name: 'Inbox' }).getByRole('link').first();
    const { x, y } = await center(first);
    await finger.down(x, y);
    await expect(page.getByRole('heading', { name: 'Sort in bulk', level: 1 })).toBeVisible();
    await finger.up();
    await expect(page.getByText('1 selected')).toBeVisible();
    await page.getByRole('checkbox').nth(3).click();
    await expect(page.getByText('2 selected')).toBeVisible();
    const waiting = await page.getByRole('checkbox').count();
    await page.getByRole('button', { name: 'Queue', exact: true }).click();
    await expect(page.getByRole('checkbox')).toHaveCount(waiting - 2);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('checkbox')).toHaveCount(waiting);
  });

  await test.step('from the left edge, back to the list; not when it goes down as well', async () => {
    await goTo(page, 'Library');
    await page.getByRole('list', { name: 'Library' }).getByRole('link').first().click();
    // What is set ahead, out of sight, has no role.
    const reader = page.getByRole('region', { name: 'Article' });
    await expect(reader).toBeVisible();
    await finger.stroke([6, 400], [120, 620]);
    await finger.up();
    await expect(reader).toBeVisible();
    await finger.stroke([6, 400], [220, 410]);
    await finger.up();
    await expect(reader).toHaveCount(0);
    await expect(page.getByRole('heading', { name: 'Library', level: 1 })).toBeVisible();
  });

  await test.step('from the edge while sorting, back as well, and nothing is decided by it', async () => {
    await goTo(page, 'Inbox');
    const inbox = page.getByRole('link', { name: /^Inbox/ });
    const waiting = (await inbox.textContent()) ?? '';
    await page.getByRole('button', { name: 'Sort, one at a time' }).click();
    await expect(page.getByRole('region', { name: 'Gist' })).toBeVisible();
    await finger.stroke([6, 400], [300, 405]);
    await finger.up();
    await expect(page.getByRole('heading', { name: 'Inbox', level: 1 })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Undo' })).toHaveCount(0);
    await expect(inbox).toHaveText(waiting);
  });
});

test('a long wall draws what is near; a tile that has the focus stays, so that Tab goes on in the wall', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await page.goto(`${seeded}/pictures`);
  const wall = page.getByRole('list', { name: 'Pictures' });
  const tiles = wall.getByRole('listitem');
  await page.getByRole('button', { name: 'Texts between them' }).click();
  await page.getByRole('radio', { name: 'Few, large' }).click();
  const all = Number(await tiles.first().getAttribute('aria-setsize'));
  expect(all).toBeGreaterThan(40);
  await expect.poll(() => tiles.count()).toBeLessThan(all);
  const first = tiles.first().getByRole('link');
  await first.focus();
  // The window or what in it scrolls, whichever the wall stands in.
  await wall.evaluate((list) => {
    for (let node: Element | null = list; node; node = node.parentElement) node.scrollTop = 8000;
  });
  const place = (tile: Locator) => tile.getAttribute('aria-posinset').then(Number);
  await expect.poll(() => place(tiles.nth(1))).toBeGreaterThan(5);
  await expect(first).toBeFocused();
  await page.keyboard.press('Tab');
  await expect.poll(() => place(wall.locator('li:focus-within'))).toBeGreaterThan(5);
});
