import type { Note } from '@dorvel/core/model';
import { expect, type Page } from '@playwright/test';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { row, save, signIn, stored } from '../reader';

/** Selects words of the article, as a finger or a pointer leaves it. */
async function select(page: Page, words: string): Promise<void> {
  await page.locator('.article').evaluate((article, sought) => {
    const walker = document.createTreeWalker(article, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) {
      const text = walker.currentNode as Text;
      const at = text.data.indexOf(sought);
      if (at !== -1) getSelection()!.setBaseAndExtent(text, at, text, at + sought.length);
    }
  }, words);
}

/** In a field: selects some of its words with the keyboard alone. */
async function selectInField(page: Page, words: string): Promise<void> {
  const field = page.getByRole('dialog').getByRole('textbox').first();
  const at = (await field.inputValue()).indexOf(words);
  expect(at).toBeGreaterThanOrEqual(0);
  await field.press('Control+Home');
  for (let n = 0; n < at; n++) await page.keyboard.press('ArrowRight');
  for (const _ of words) await page.keyboard.press('Shift+ArrowRight');
}

test('cards are made of passages, recalled without a connection, taken along and brought in', async ({
  page,
  context,
  empty,
}, { project }) => {
  test.setTimeout(150_000);
  const name = `${project.name}-cards`;
  await signIn(page, empty);
  await save(page, webPage('rough', `/turning/${name}`));
  const saved = row(page, new RegExp(`Crossing to ${project.name} cards`, 'i'));
  await expect(saved.getByRole('img', { name: /min/ })).toBeVisible();
  await saved.getByRole('link').click();
  await expect(page.getByTestId('reader')).toBeVisible();
  const bar = page.getByRole('toolbar', { name: 'Mark what is selected' });
  const sheet = page.getByRole('dialog', { name: 'Make a card' });
  await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
  await context.setOffline(true);

  await test.step('a sentence with two gaps, and a question', async () => {
    await select(page, 'The fare is four for the crossing');
    await bar.getByRole('button', { name: 'Card' }).click();
    await expect(sheet.getByText('Select the words that are to be recalled.')).toBeVisible();
    await selectInField(page, 'four');
    await sheet.getByRole('button', { name: 'Make a gap of what is selected' }).click();
    await selectInField(page, 'crossing');
    await sheet.getByRole('button', { name: 'Make a gap of what is selected' }).click();
    await expect(sheet.getByRole('textbox')).toHaveValue('The fare is [[four]] for the [[crossing]]');
    await sheet.getByRole('button', { name: 'Make the card' }).click();
    await select(page, 'children and dogs go free');
    await bar.getByRole('button', { name: 'Card' }).click();
    await sheet.getByRole('radio', { name: 'A question' }).click();
    await sheet.getByRole('textbox', { name: 'Question' }).fill('Who goes free?');
    await sheet
      .getByRole('textbox', { name: 'Answer' })
      .fill('children, dogs, and on Sundays, with a band playing, the whole choir');
    await expect(sheet.getByText(/It asks for a list/)).toBeVisible();
    await sheet.getByRole('textbox', { name: 'Answer' }).fill('children and dogs');
    await expect(sheet.getByText(/It asks for a list/)).toHaveCount(0);
    await sheet.getByRole('button', { name: 'Make the card' }).click();
    await expect(sheet).toHaveCount(0);
  });

  await test.step('two more from a table', async () => {
    await page.goto(`${empty}/cards`);
    await page.locator('input[type=file]').setInputFiles({
      name: 'cards.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(
        `question,answer\nWhat is slack water in ${name}?,Neither ebb nor flood\nWhat is a neap in ${name}?,A small tide\nNo answer?,\n`,
      ),
    });
    await expect(
      page.getByText('2 cards brought in. A row was left out; row 4: It has no answer and no gap.'),
    ).toBeVisible();
  });

  await test.step(`five questions are recalled by ${project.name === 'phone' ? 'touch' : 'keys'} alone`, async () => {
    await page.getByRole('radiogroup', { name: 'New cards a day, at most' }).getByRole('radio', { name: '50' }).click();
    await page.getByRole('button', { name: 'From memory: what is due' }).click();
    const question = page.getByRole('group', { name: 'Question' });
    const done = page.getByText(/Nothing is due\./);
    const asked: string[] = [];
    // The account is shared with the other width's story, so there may be some of its cards in between.
    for (let n = 0; n < 40; n++) {
      await expect(question.or(done)).toBeVisible();
      if (await done.isVisible()) break;
      asked.push((await question.textContent()) ?? '');
      if (project.name === 'phone') {
        await page.getByRole('button', { name: 'Show the answer' }).tap();
        await page.getByRole('button', { name: /^At once: again in \d+ days$/ }).tap();
      } else {
        await page.keyboard.press(' ');
        await expect(page.getByRole('group', { name: 'How well did you know it?' })).toBeVisible();
        await page.keyboard.press('4');
      }
      await expect(page.getByRole('button', { name: /^At once/ })).toHaveCount(0);
    }
    for (const mine of [
      'The fare is […] for the crossing',
      'The fare is four for the […]',
      'Who goes free?',
      `What is slack water in ${name}?`,
      `What is a neap in ${name}?`,
    ])
      expect(asked).toContain(mine);
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(question).toBeVisible();
  });

  await test.step('the way back leads to the passage; online again, the server has it all', async () => {
    await page.goto(`${empty}/cards`);
    await page.getByLabel('With these words').fill('Who goes free');
    await page
      .getByRole('group', { name: 'Who goes free?' })
      .getByRole('link', { name: new RegExp(`^From: Crossing to ${project.name} cards`, 'i') })
      .click();
    await expect
      .poll(() => page.evaluate(() => [...(CSS.highlights.get('found') ?? [])].map(String).join('')))
      .toBe('children and dogs go free');
    await context.setOffline(false);
    await expect.poll(async () => (await stored(page, 'outbox')).length, { timeout: 20_000 }).toBe(0);
  });
});

test('notes of the reader’s own: begun by one key, answered, done, and found', async ({ page, empty }, { project }) => {
  test.skip(project.name !== 'wide', 'the keyboard’s story');
  await signIn(page, empty);
  await page.keyboard.press('w');
  const sheet = page.getByRole('dialog', { name: 'Write a note' });
  await expect(sheet.getByLabel('Your words')).toBeFocused();
  await page.keyboard.type('Ask the ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('smith');
  await page.keyboard.press('Control+b');
  await page.keyboard.type(' about the old plates');
  await expect(sheet.getByLabel('Your words')).toHaveText('Ask the **smith** about the old plates');
  await sheet.getByRole('switch', { name: 'It is something to do' }).click();
  await sheet.getByLabel('By this day').fill('2026-12-24');
  await sheet.getByRole('button', { name: 'Keep the note' }).click();
  await expect(page.getByText('Noted.')).toBeVisible();
  await page.goto(`${empty}/notes`);
  const note = page.getByRole('group', { name: /Ask the \*\*smith/ });
  await expect(note.locator('strong')).toHaveText('smith');
  await expect(note).toContainText('by Thursday');
  await note.getByRole('button', { name: /^Write on it/ }).click();
  await expect(sheet.getByLabel('Your words')).toBeFocused();
  await page.keyboard.type('He has none left.');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('group', { name: 'He has none left.' })).toBeVisible();
  await note.getByRole('checkbox', { name: /^Done/ }).click();
  await page.getByRole('radio', { name: 'Done', exact: true }).click();
  await expect(page.getByRole('group', { name: /Ask the/ })).toBeVisible();
  await expect(page.getByRole('group', { name: 'He has none left.' })).toHaveCount(0);
  await page.reload();
  await page.getByLabel('With these words').fill('none left');
  await expect(page.getByRole('group', { name: 'He has none left.' })).toBeVisible();

  await test.step('a note of no item is found beside the items, but not where only articles are looked in', async () => {
    await page.goto(`${empty}/library`);
    await page.getByLabel('Find').fill('smith plates');
    const found = page.getByRole('list', { name: 'Notes found' });
    await expect(found.getByRole('listitem')).toHaveText(/Ask the/);
    await page.getByRole('button', { name: 'In articles' }).click();
    await expect(found).toHaveCount(0);
    await page.getByRole('button', { name: 'In articles' }).click();
    await found.getByRole('link').click();
    await expect(page.getByRole('group', { name: /Ask the/ })).toBeVisible();
  });
});

test('highlights made elsewhere come in, and none is dropped @any-width', async ({ page, empty }) => {
  await signIn(page, empty);
  await save(page, webPage('rough', '/turning/brought-in'));
  await expect(row(page, /Crossing to brought in/i).getByRole('img', { name: /min/ })).toBeVisible();
  await page.goto(`${empty}/marks`);
  await page.getByRole('button', { name: 'Take along, bring in' }).click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'elsewhere.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      `“children and dogs go free”\n${webPage('rough', '/turning/brought-in')}\n\nA sentence from a book\n— The Tidewright`,
    ),
  });
  await expect(
    page.getByText('1 placed on items that you have, 1 kept as notes, since they name no page.'),
  ).toBeVisible();
  const here = page.getByRole('group', { name: /Crossing to brought in/i });
  await here.getByRole('link', { name: 'To the passage' }).click();
  await expect
    .poll(() => page.evaluate(() => [...(CSS.highlights.get('mark-key') ?? [])].map(String)))
    .toContain('children and dogs go free');
  // As e-book readers write them: with the place, and the day on which they were made.
  await page.goto(`${empty}/marks`);
  await page.getByRole('button', { name: 'Take along, bring in' }).click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'quotations.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      'Soundings of a Pilot (M. Oddway)\n- Your highlight on page 12 | Added on Tuesday, 3 March 2026 14:05:12\n\nThe silt settles.\n==========\n',
    ),
  });
  await expect(page.getByText('1 kept as notes, since they name no page.')).toBeVisible();
  const note = (await stored<Note>(page, 'notes')).find(({ versions }) => versions[0]?.text.includes('silt'));
  expect(note?.versions[0]?.text).toBe('> The silt settles.\n\nSoundings of a Pilot (M. Oddway), page 12');
  expect(note?.madeAt).toBe(Date.parse('2026-03-03T14:05:12Z'));
  await page.goto(`${empty}/notes`);
  await expect(page.getByText('The Tidewright')).toBeVisible();
});
