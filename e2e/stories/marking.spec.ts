import { expect, type Page } from '@playwright/test';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { postToRough, pressAndHear, row, save, signIn } from '../reader';

const KINDS = ['key', 'question', 'quote', 'to-do', 'doubt'];

/** What is shown as marked on the page, as the browser has it: kind and words. */
async function shownMarks(page: Page): Promise<string[]> {
  return page.evaluate(
    (kinds) =>
      kinds.flatMap((kind) =>
        [...(CSS.highlights.get(`mark-${kind}`) ?? [])].map(
          (range) => `${kind}: ${(range as Range).toString().replace(/\s+/g, ' ')}`,
        ),
      ),
    KINDS,
  );
}

/** Selects from the first words to the last ones, as a finger or a pointer leaves it. */
async function select(page: Page, from: string, to: string): Promise<void> {
  await page.locator('.article').evaluate(
    (article, [first, last]) => {
      const texts: Text[] = [];
      const walker = document.createTreeWalker(article, NodeFilter.SHOW_TEXT);
      while (walker.nextNode()) texts.push(walker.currentNode as Text);
      const start = texts.find((text) => text.data.includes(first))!;
      const end = texts.find((text) => text.data.includes(last))!;
      getSelection()!.setBaseAndExtent(start, start.data.indexOf(first), end, end.data.indexOf(last) + last.length);
    },
    [from, to] as const,
  );
}

test('passages are marked for a purpose, noted on, kept without a connection, and found again in a changed page', async ({
  page,
  empty,
}, { project }) => {
  const name = `${project.name}-marks`;
  await signIn(page, empty);
  await save(page, webPage('rough', `/turning/${name}`));
  const saved = row(page, new RegExp(`Crossing to ${project.name} marks`, 'i'));
  await expect(saved.getByRole('img', { name: /min/ })).toBeVisible();
  await saved.getByRole('link').click();
  await expect(page.getByTestId('reader')).toBeVisible();
  const bar = page.getByRole('toolbar', { name: 'Mark what is selected' });

  await test.step('across two paragraphs', async () => {
    await expect(bar).toHaveCount(0);
    await select(page, 'when there is somebody to take.', 'The fare is four');
    await bar.getByRole('button', { name: 'Question' }).click();
    await expect.poll(() => shownMarks(page)).toEqual(['question: when there is somebody to take.The fare is four']);
    await expect(bar).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(() => shownMarks(page)).toEqual([]);
  });

  await test.step('one that touches another of its kind grows it; another kind stands beside it', async () => {
    await select(page, 'The fare is four', 'to be put in the box');
    await bar.getByRole('button', { name: 'Key' }).click();
    await select(page, 'in the box', 'bicycles do not.');
    await bar.getByRole('button', { name: 'Key' }).click();
    const fare =
      'key: The fare is four for the crossing and the same for the way back, to be put in the box; children and dogs go free, and bicycles do not.';
    await expect.poll(() => shownMarks(page)).toEqual([fare]);
    await select(page, 'In January', 'nobody to steer it.');
    await bar.getByRole('button', { name: 'To do' }).click();
    await expect.poll(() => shownMarks(page)).toHaveLength(2);
  });

  await test.step('a press on it opens it, to be noted on; without a connection it stays', async () => {
    await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
    await page.context().setOffline(true);
    await page.getByText('The fare is four').click({ position: { x: 60, y: 12 } });
    const sheet = page.getByRole('dialog', { name: 'Highlight' });
    await sheet.getByLabel('Note', { exact: true }).fill('Has it gone up since the summer?');
    // As a hand presses: the note is kept when its field is left, and nothing may move under the pointer then.
    await sheet.getByRole('radio', { name: 'Doubt' }).click({ delay: 300 });
    await page.keyboard.press('Escape');
    await expect.poll(() => shownMarks(page)).toContainEqual(expect.stringMatching(/^doubt: The fare is four/));
    await page.reload();
    await expect.poll(() => shownMarks(page)).toContainEqual(expect.stringMatching(/^doubt: The fare is four/));
    await page.context().setOffline(false);
  });

  await test.step('when the page has changed, it stands where its passage stands, or says that it has lost it', async () => {
    await postToRough(page, `/turning/${name}/next`);
    await page.getByRole('button', { name: 'What to do with this item' }).click();
    await page.getByRole('button', { name: 'Fetch the page again' }).click();
    await expect(page.getByText('From December there is a crossing at two')).toBeVisible();
    await expect
      .poll(() => shownMarks(page))
      .toEqual([expect.stringMatching(/^doubt: The fare is five for the crossing .* bicycles do not\.$/)]);
    const lost = page.getByRole('region', { name: 'Lost their place' });
    await expect(lost.getByRole('listitem')).toHaveText(/In January and February there is no boat/);
  });

  await test.step('all of them are in one place, to be narrowed and gone back to', async () => {
    await page.getByRole('button', { name: 'What to do with this item' }).click();
    await page.getByRole('button', { name: 'Highlights (2)' }).click();
    const here = page.getByRole('group', { name: new RegExp(`Crossing to ${project.name} marks`, 'i') });
    await expect(here).toContainText('Has it gone up since the summer?');
    await page.getByRole('radio', { name: 'To do' }).click();
    await expect(here).toContainText('In January');
    await expect(here).not.toContainText('The fare is');
    await page.getByRole('radio', { name: 'All' }).click();
    await page.getByRole('button', { name: 'Filter and sort' }).click();
    await page.getByRole('radio', { name: 'The last 7 days' }).click();
    await page.getByRole('radio', { name: 'Oldest first' }).click();
    await page.keyboard.press('Escape');
    await expect(here).toContainText('In January');
    await page.getByRole('button', { name: 'No longer: The last 7 days' }).click();
    await page.getByRole('button', { name: 'No longer: Oldest first' }).click();
    await expect(page.getByRole('button', { name: /^No longer/ })).toHaveCount(0);
    await page.getByLabel('With these words').fill('gone up');
    await expect(here).not.toContainText('In January');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Take along, bring in' }).click();
    await page.getByRole('button', { name: 'As web annotations' }).click();
    const file = await (await download).path();
    const { readFileSync } = await import('node:fs');
    const written = JSON.parse(readFileSync(file, 'utf8')) as { items: { target: { source: string } }[] };
    expect(written.items.map(({ target }) => target.source)).toEqual([webPage('rough', `/turning/${name}`)]);
    await here.getByRole('link', { name: 'To the passage' }).click();
    await expect(page.getByText('The fare is five')).toBeInViewport();
    // And by what was written on them, among the reader's own words.
    await page.goto(`${empty}/library`);
    await page.getByLabel('Find').fill('gone up since the summer');
    await page.getByRole('button', { name: 'In my words' }).click();
    await expect(
      page
        .getByRole('list', { name: 'Found' })
        .getByRole('listitem')
        .filter({ hasText: new RegExp(`${project.name} marks`, 'i') }),
    ).toBeVisible();
  });
});

test('highlights are laid together, put in order, and taken along in it', async ({ page, context, empty }, {
  project,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await signIn(page, empty);
  const name = `gathered-${project.name}`;
  await save(page, webPage('rough', `/turning/${name}`));
  const saved = row(page, new RegExp(`Crossing to gathered ${project.name}`, 'i'));
  await expect(saved.getByRole('img', { name: /min/ })).toBeVisible();
  await saved.getByRole('link').click();
  await expect(page.getByTestId('reader')).toBeVisible();
  const bar = page.getByRole('toolbar', { name: 'Mark what is selected' });
  await select(page, 'children and dogs', 'go free');
  await bar.getByRole('button', { name: 'Share' }).click();
  await expect(page.getByText('The passage is copied, with its source.')).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain(
    `“children and dogs go free”\n\nCrossing to `,
  );
  for (const passage of ['children and dogs go free', 'The fare is four']) {
    await select(page, passage, passage);
    await bar.getByRole('button', { name: 'Quote' }).click();
    await expect(page.getByText('Marked: Quote.')).toBeVisible();
  }
  await page.goto(`${empty}/marks`);
  const here = page.getByRole('group', { name: new RegExp(`Crossing to gathered ${project.name}`, 'i') });
  await here.getByRole('button', { name: /^Gather “children/ }).click();
  await here.getByRole('button', { name: /^Gather “The fare/ }).click();
  await expect(here.getByRole('button', { name: /^Gathered “/ })).toHaveCount(2);
  await page.getByRole('button', { name: /^Gathered: / }).click();
  const gathered = page.getByRole('list', { name: 'Gathered highlights' }).getByRole('listitem');
  await expect(gathered).toHaveText([/children and dogs/, /The fare is four/]);
  await page.getByRole('button', { name: /^Move “The fare/ }).focus();
  await pressAndHear(page, ['Space', 'ArrowUp', 'Space']);
  await expect(gathered).toHaveText([/The fare is four/, /children and dogs/]);
  await page.reload();
  await expect(gathered).toHaveText([/The fare is four/, /children and dogs/]);
  await page.getByRole('button', { name: 'Copy all' }).click();
  await expect(page.getByText('Copied, with the sources.')).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied.indexOf('The fare is four')).toBeGreaterThan(0);
  expect(copied.indexOf('children and dogs')).toBeGreaterThan(copied.indexOf('The fare is four'));
  await page.getByRole('button', { name: 'Clear' }).click();
  await expect(gathered).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(gathered).toHaveCount(2);
});

test('the sentence at hand is marked by a key alone', async ({ page, empty }, { project }) => {
  await signIn(page, empty);
  await save(page, webPage('rough', `/turning/keys-${project.name}`));
  const saved = row(page, new RegExp(`Crossing to Keys ${project.name}`, 'i'));
  await expect(saved.getByRole('img', { name: /min/ })).toBeVisible();
  await saved.getByRole('link').click();
  await expect(page.locator('.article')).toBeVisible();
  await page.keyboard.press('m');
  await expect
    .poll(() => shownMarks(page))
    .toEqual([
      'key: The boat leaves from the inner steps at nine on weekdays, and at ten on Sundays when there is somebody to take.',
    ]);
  await page.keyboard.press('u');
  await expect.poll(() => shownMarks(page)).toEqual([]);
});
