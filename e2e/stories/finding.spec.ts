import { expect, type Page } from '@playwright/test';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, readTo, row, save, signIn, tag } from '../reader';

const field = (page: Page) => page.getByRole('searchbox', { name: 'Find' });
const found = (page: Page) => page.getByRole('list', { name: 'Found' });
const narrowBy = (page: Page, name: RegExp | string) =>
  page.getByRole('group', { name: 'Narrow by' }).getByRole('button', { name });

test('a passage is found by a phrase of it, and opened there', async ({ page, seeded }, { project }) => {
  await signIn(page, seeded);
  // Wherever another story has left it, the place is far from what will be found.
  await goTo(page, 'Queue');
  await row(page, 'What the eelgrass knows').getByRole('link').click();
  await readTo(page, 0.9);
  if (project.name === 'phone') await page.getByRole('button', { name: 'Back to Queue' }).click();
  await goTo(page, 'Library');
  await page.keyboard.press('/');
  await page.keyboard.type('"the channel is cleared"');
  const passage = found(page).getByRole('listitem').filter({ hasText: 'What the eelgrass knows' });
  await expect(passage.locator('mark')).toHaveText('The channel is cleared');

  await passage.getByRole('link').click();
  const paragraph = page.getByTestId('reader').getByText('The channel is cleared every ninth year.');
  await expect(paragraph).toBeInViewport();
  const marked = () =>
    page.evaluate(() => [...(CSS.highlights.get('found') ?? [])].map((range) => (range as Range).toString()));
  expect(await marked()).toEqual(['The channel is cleared']);
  // It was a look aside: where they stopped is still where they go on. Leaving records what there is to record.
  if (project.name === 'phone') await page.getByRole('button', { name: 'Back to Library' }).click();
  await goTo(page, 'Queue');
  await row(page, 'What the eelgrass knows').getByRole('link').click();
  await expect(page.getByTestId('reader')).toBeVisible();
  await expect(paragraph).not.toBeInViewport();
});

test('tags narrow step by step, other spellings are understood, and nothing is lost by a slip', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Library');
  // More rows than are drawn at first, without anything having been scrolled.
  await expect
    .poll(() => page.getByRole('list', { name: 'Library' }).getByRole('listitem').count())
    .toBeGreaterThan(16);

  await test.step('each tag says how many it leaves', async () => {
    await narrowBy(page, /^Tag boats, \d/).click();
    await expect(found(page).getByRole('listitem').nth(2)).toBeVisible();
    const boats = await found(page).getByRole('listitem').count();
    await narrowBy(page, /^Tag wood, 2$/).click();
    await expect(found(page).getByRole('listitem')).toHaveCount(2);
    await expect(field(page)).toHaveValue('tag:boats tag:wood ');
    await narrowBy(page, /^Tag wood/).click();
    await expect(found(page).getByRole('listitem')).toHaveCount(boats);
  });

  await test.step('a slip of the finger is forgiven, and said', async () => {
    await field(page).fill('eelgras dregding');
    await expect(page.getByText(/spelled nearly so/)).toBeVisible();
    await expect(found(page).getByRole('listitem').first()).toContainText(/eelgrass|silt/i);
    await field(page).fill('is:blue');
    await expect(page.getByText(/^is: takes unread/)).toBeVisible();
    await field(page).fill('zeppelinade');
    await expect(page.getByText(/^No item of yours has that/)).toBeVisible();
  });

  await test.step('the reader’s own words are found apart from other people’s', async () => {
    await field(page).fill('rule');
    await expect(found(page).getByRole('listitem').nth(1)).toBeVisible();
    await narrowBy(page, 'In my words').click();
    await expect(found(page).getByRole('listitem')).toHaveCount(1);
    await expect(found(page)).toContainText('One member, one vote');
    await narrowBy(page, 'In my words').click();
  });
});

test('a save is found the moment its text is there, and tagged and found by that with the network cut', async ({
  page,
  context,
  seeded,
}, { project }) => {
  const [path, words, title] =
    project.name === 'phone'
      ? [webPage('hall', '/notices/how-to-caulk-a-seam'), '"blows are dull"', /^How to caulk a seam/]
      : [webPage('forum', '/t/best-knot-for-a-cold-hand'), '"a bag of toggles"', /^A knot that can be tied/];
  const tagName = `trial ${project.name}`;
  await signIn(page, seeded);
  await goTo(page, 'Library');
  await field(page).fill(words);
  await expect(page.getByText(/^No item of yours has that/)).toBeVisible();
  await save(page, path);
  await goTo(page, 'Library');
  // Nothing is asked again and nothing reloaded: the question answers itself.
  await expect(found(page).getByRole('listitem')).toHaveText(title);

  await context.setOffline(true);
  await tag(page, title, tagName);
  await field(page).fill(`tag:"${tagName}"`);
  await expect(found(page).getByRole('listitem')).toHaveCount(1);

  await test.step('the tag is renamed, and that is taken back', async () => {
    await field(page).fill('');
    await page.getByRole('button', { name: 'All tags' }).click();
    await page.getByRole('button', { name: `What to do with the tag ${tagName}` }).click();
    await page.getByRole('textbox', { name: 'Name' }).fill(`${tagName}/done`);
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
    await expect(page.getByRole('link', { name: `Find what has ${tagName}/done, 1` })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('link', { name: `Find what has ${tagName}, 1` })).toBeVisible();
  });
  await context.setOffline(false);
});

test('a search is kept, is there on another device, and is kept no longer @any-width', async ({
  page,
  browser,
  seeded,
}, { project }) => {
  const words = `eelgrass ${project.name === 'phone' ? 'silt' : 'channel'}`;
  await signIn(page, seeded);
  await goTo(page, 'Library');
  await field(page).fill(words);
  await expect(found(page).getByRole('listitem').first()).toBeVisible();
  await page.getByRole('button', { name: 'Keep this search', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Keep this search no longer' })).toBeVisible();
  const other = await (await browser.newContext({ viewport: project.use.viewport ?? null })).newPage();
  await signIn(other, seeded);
  await goTo(other, 'Library');
  await narrowBy(other, `Find ${words}, a search you keep`).click();
  await expect(field(other)).toHaveValue(words);
  await expect(found(other).getByRole('listitem').first()).toBeVisible();
  await other.getByRole('button', { name: 'Keep this search no longer' }).click();
  await field(page).fill('');
  await expect(narrowBy(page, `Find ${words}, a search you keep`)).toHaveCount(0);
  await other.context().close();
});

test('a row says when it was saved, however long its source and however many its tags', async ({ page, seeded }) => {
  await signIn(page, seeded);
  const title = 'Tides and their terms';
  await goTo(page, 'Library');
  await tag(page, title, 'a tag with a name that no row has room for');
  await expect(row(page, title)).toContainText(/ · \d+ \w+.* · a tag with/);
  const rows = page.getByRole('listitem').locator('.row-facts > .row-line');
  const cut = await rows.evaluateAll((lines) =>
    lines.flatMap((line) => {
      const day = [...line.childNodes].find((node) => node.nodeType === 3 && node.textContent?.startsWith(' · '));
      const range = document.createRange();
      if (day) range.selectNode(day);
      const isSeen = day && range.getBoundingClientRect().right <= line.getBoundingClientRect().right;
      return isSeen ? [] : [line.textContent];
    }),
  );
  expect(cut).toEqual([]);
  expect(await rows.count()).toBeGreaterThan(5);
});
