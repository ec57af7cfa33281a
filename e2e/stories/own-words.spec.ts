import { expect } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { goTo, openInYou, row, signIn } from '../reader';

const FIRST = 'A meadow that looks like a field of seedlings may be a single plant';
const SECOND = 'Roots hold sand.';

test('what was marked comes back to be put in own words: put off, worded, taken back; and its trail tells of it', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Now');
  await page.getByRole('region', { name: 'Work it over' }).getByRole('button', { name: 'Work it over' }).click();
  await expect(page.getByRole('heading', { name: 'Work it over', level: 1 })).toBeVisible();
  const passage = (words: string) => page.locator('.marked-words').filter({ hasText: words });
  // The one that has a note is in own words already.
  await expect(page.getByText('2 to go')).toBeVisible();
  await expect(passage(FIRST)).toBeVisible();
  await expectAccessible(page, 'Work it over');
  await expectTargets(page, 'Work it over');

  await page.getByRole('button', { name: 'Later' }).click();
  await expect(passage(SECOND)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(passage(FIRST)).toBeVisible();
  await page.getByRole('button', { name: 'Done with it' }).click();
  await expect(passage(SECOND)).toBeVisible();

  const words = page.getByRole('textbox', { name: 'In your own words' });
  await words.click();
  await words.pressSequentially('Where it grows, the bank stays.');
  await page.getByRole('button', { name: 'Keep these words' }).click();
  // Another story may have marked something today, which comes tomorrow.
  await expect(
    page.getByText(/^(?:All that you marked is in your own words|Nothing waits for your words now)/),
  ).toBeVisible();

  // On the passage, and in the trail of the item.
  await goTo(page, 'Queue');
  await row(page, 'What the eelgrass knows')
    .getByRole('button', { name: 'What to do with “What the eelgrass knows”' })
    .click();
  const trail = page.getByRole('list', { name: 'Trail, by day' }).getByRole('listitem');
  await expect(trail.first()).toContainText('saved');
  await expect(trail.last()).toContainText('1 note');
  await page.keyboard.press('Escape');
  await goTo(page, 'Now');
  await expect(page.getByRole('region', { name: 'Work it over' })).toHaveCount(0);
});

test('what is to be done by today stands on Now until it is done', async ({ page, empty }) => {
  await signIn(page, empty);
  await openInYou(page, 'Notes');
  await page.getByRole('button', { name: 'Write a note' }).first().click();
  const sheet = page.getByRole('dialog', { name: 'Write a note' });
  const words = sheet.getByRole('textbox', { name: 'Your words' });
  await words.click();
  await words.pressSequentially('Ask Teo for the table.');
  await sheet.getByRole('switch', { name: 'It is something to do' }).click();
  await sheet.getByLabel('By this day').fill(await page.evaluate(() => new Date().toLocaleDateString('sv')));
  await sheet.getByRole('button', { name: 'Keep the note' }).click();
  await goTo(page, 'Now');
  const due = page.getByRole('region', { name: 'To do' });
  await expect(due).toContainText('Ask Teo for the table.');
  await due.getByRole('checkbox').check({ trial: true });
  await due.getByRole('checkbox').click();
  await expect(due).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(due).toBeVisible();
});

test('on a wide screen the first of a list is told at a glance, the arrow keys move on, and Enter opens', async ({
  page,
  seeded,
}, { project }) => {
  test.skip(project.name !== 'wide', 'a phone has no room beside the list');
  await signIn(page, seeded);
  await goTo(page, 'Queue');
  const glance = page.getByRole('region', { name: /^At a glance: / });
  const rows = page.getByRole('list', { name: 'Queue' }).getByRole('listitem').getByRole('link');
  const heading = glance.getByRole('heading', { level: 2 }).first();
  const isTold = async (at: number) =>
    ((await rows.nth(at).textContent()) ?? '').startsWith((await heading.textContent()) ?? '?');
  await expect.poll(() => isTold(0)).toBe(true);
  await expect(glance.getByRole('region', { name: 'Gist' })).toBeVisible();
  await expect(glance.getByRole('region', { name: 'Trail' })).toContainText('saved');
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('ArrowDown');
  await expect(glance.getByText(/^2 of \d+ /)).toBeVisible();
  await expect.poll(() => isTold(1)).toBe(true);
  const title = (await heading.textContent()) ?? '';
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
});
