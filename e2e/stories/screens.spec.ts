import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { goTo, openEverything, openInYou, openText, row, signIn } from '../reader';

test('every screen is accessible by day and by night', async ({ page, seeded }, { project }) => {
  test.setTimeout(360_000);
  const refused: string[] = [];
  page.on('console', (message) => message.type() === 'error' && refused.push(message.text()));
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const check = async (screen: string) => {
    await expectAccessible(page, screen);
    await expectTargets(page, screen);
  };
  await page.goto(`${seeded}/sign-in`);
  await expect(page.getByRole('button', { name: 'Fill in the demo account' })).toBeVisible();
  await check('sign-in');
  await signIn(page, seeded);
  await expect(row(page, 'Ferry vote goes to the post')).toBeVisible();
  await check('Inbox');
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  await check('add sheet');
  await page.keyboard.press('Escape');
  await row(page, 'Ferry vote goes to the post').getByRole('button').click();
  await check('item sheet');
  await page.keyboard.press('Escape');
  await goTo(page, 'Now');
  await expect(page.getByRole('region', { name: 'Come back' })).toBeVisible();
  await check('Now');
  await goTo(page, 'Library');
  await check('Library');
  await page.getByRole('searchbox', { name: 'Find' }).fill('eelgrass');
  await expect(page.locator('mark').first()).toBeVisible();
  await check('found');
  await page.getByRole('button', { name: 'Clear the search' }).click();
  await page.getByRole('button', { name: 'All tags' }).click();
  await expect(page.getByRole('heading', { name: 'Tags', level: 1 })).toBeVisible();
  await check('tags');
  await page.getByRole('button', { name: 'What to do with the tag tides' }).click();
  await check('change a tag');
  await page.keyboard.press('Escape');
  await goTo(page, 'Inbox');
  await page.getByRole('button', { name: 'Sort, one at a time' }).click();
  await expect(page.getByRole('region', { name: 'Gist' })).toBeVisible();
  await check('sort');
  await page.getByRole('button', { name: 'Tag…' }).click();
  await check('tags of an item');
  await page.keyboard.press('Escape');
  await goTo(page, 'Inbox');
  await page.getByRole('button', { name: /^Feeds/ }).click();
  await expect(page.getByRole('list', { name: 'New in your feeds' })).toBeVisible();
  await check('feeds');
  await page.getByRole('radio', { name: 'You follow' }).click();
  await check('feeds that are followed');
  await page.getByRole('button', { name: /^The Sound Courier/ }).click();
  await check('a feed');
  await page.keyboard.press('Escape');
  await openInYou(page, 'Save from elsewhere');
  await expect(page.getByRole('note', { name: 'Your mail address' })).toBeVisible();
  await check('save from elsewhere');
  await page.goto(`${seeded}/marks`);
  await expect(page.getByText('Ask the harbour office whether they have asked since.')).toBeVisible();
  await check('highlights');
  await page
    .getByRole('button', { name: /^Change/ })
    .first()
    .click();
  await check('a highlight');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Filter and sort' }).click();
  await check('narrowing highlights');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take along, bring in' }).click();
  await check('taking highlights along');
  await page.getByRole('button', { name: 'Gather all' }).click();
  await page.getByRole('button', { name: /^Gathered: / }).click();
  await expect(page.getByRole('list', { name: 'Gathered highlights' })).toBeVisible();
  await check('gathered highlights');
  for (const [path, heading, name] of [
    ['cards', 'Cards', 'cards'],
    // By the address that it had before.
    ['recall', 'From memory', 'from memory, nothing due'],
    ['notes', 'Notes', 'notes'],
    ['podcast', 'Podcast', 'podcast'],
  ] as const) {
    await page.goto(`${seeded}/${path}`);
    await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
    await check(name);
  }
  await page.keyboard.press('w');
  await expect(page.getByRole('textbox', { name: 'Your words' })).toBeFocused();
  await check('a note being written');
  await page.keyboard.press('Escape');
  await page.goto(`${seeded}/order`);
  await expect(page.getByRole('button', { name: /^Move “Forty-one crossings”/ })).toBeVisible();
  await check('order of the Queue');
  if (project.name === 'wide') {
    await page.goto(`${seeded}/bulk`);
    await expect(page.getByRole('row').nth(3)).toBeVisible();
    await page.getByRole('row').nth(2).click();
    await check('sort in bulk');
  }
  for (const part of [
    'How the text looks',
    'Pace and silenced words',
    'Voices and speed',
    'Save pages as',
    'Letter and feed',
    'On this device',
    'Account',
    'Your library as a file',
  ]) {
    await openInYou(page, part);
    await check(part);
  }
  await goTo(page, 'You');
  await page.getByRole('searchbox', { name: 'Find a setting' }).fill('forecast');
  await expect(page.getByRole('region', { name: 'Reading' })).toHaveCount(0);
  await check('You');
  await page.getByRole('link', { name: /^How I am doing/ }).click();
  await expect(page.getByRole('img', { name: /^Minutes by week/ })).toBeVisible();
  await check('How I am doing, charts');
  await page.getByRole('radio', { name: 'As a table' }).click();
  await check('How I am doing, table');
  if (project.name === 'phone') await page.getByRole('button', { name: 'Back to Now' }).click();
  await goTo(page, 'Queue');
  await check('Queue');
  await row(page, 'How the old tables were reckoned').getByRole('link').click();
  await expect(page.getByText('In the chart room there is a shelf')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Related' })).toHaveCount(1);
  await check('reader');
  await page.getByRole('button', { name: 'Listen', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await check('player');
  await page.getByRole('button', { name: 'More of listening' }).click();
  await check('more of listening');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: /^Speed and voice/ }).click();
  await check('speed and voice');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: 'Stop listening' }).click();
  await page.getByRole('button', { name: 'Contents', exact: true }).click();
  await check('contents');
  // Beside the text on a wide screen, where the same key folds them away.
  await page.keyboard.press(project.name === 'wide' ? 'c' : 'Escape');
  await page.keyboard.press('f');
  await page.keyboard.type('table');
  await check('finding in the article');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'How the text looks' }).click();
  await check('reading settings');
  await page.keyboard.press('Escape');
  await checkCopies(page, check);
  // Nothing that the policy refuses, nothing that is missing.
  expect(refused).toEqual([]);
});

/** A page that was rewritten and then vanished, and an article that has every kind of element. */
async function checkCopies(page: Page, check: (screen: string) => Promise<void>): Promise<void> {
  const more = () => page.getByRole('button', { name: 'What to do with this item' }).click();
  await leaveText(page);
  await openText(page, 'Crossing to Little Sound');
  await expect(page.getByText(/The page is gone/)).toBeVisible();
  await more();
  await check('item sheet of an open text');
  await page.getByRole('button', { name: 'Copies (2)' }).click();
  await check('copies');
  await page.getByRole('button', { name: 'What changed since the one before' }).click();
  await expect(page.locator('ins').first()).toBeVisible();
  await check('change view');
  await page.getByRole('button', { name: 'Back to the text' }).click();
  await more();
  await page.getByRole('button', { name: 'Tidy the text' }).click();
  await expect(page.getByRole('checkbox').first()).toBeVisible();
  await check('tidy');
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await more();
  await page.getByRole('button', { name: 'Paste the text' }).click();
  await check('text by hand');
  await page.keyboard.press('Escape');
  await leaveText(page);
  await openEverything(page);
  await expect(page.locator('.article math').first()).toBeVisible();
  await check('every kind of element');
  await leaveText(page);
  await openText(page, 'The ferry loaf');
  await page.getByText(/What the page states/).click();
  await check('stated facts');
}

/** On a phone the text covers the bar of places. */
async function leaveText(page: Page): Promise<void> {
  const back = page.getByRole('button', { name: /^Back to (?:Queue|Library)$/ });
  if (await back.isVisible()) await back.click();
}

test('texts of other scripts stand as they should', async ({ page, seeded }, { project }) => {
  await signIn(page, seeded);
  await row(page, 'جزيرة').getByRole('link').click();
  await expect(page.locator('.article')).toHaveAttribute('dir', 'rtl');
  if (project.name === 'phone') await page.getByRole('button', { name: 'Back to Inbox' }).click();
  await goTo(page, 'Queue');
  await row(page, '潮の音').getByRole('link').click();
  await expect(page.locator('.article')).toHaveAttribute('lang', 'ja');
});
