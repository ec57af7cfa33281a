import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, type Page } from '@playwright/test';
import { smallWebAddresses } from '../../demo/small-web/server';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { SMALL_WEB_PORT } from '../ports';
import { goTo, row, save, signIn } from '../reader';

/** What of the open text is drawn softly. */
const soft = (page: Page) =>
  page.evaluate(() => [...(CSS.highlights.get('known') ?? [])].map((range) => (range as Range).toString()));

const TEXTS = path.resolve(import.meta.dirname, '../../demo/small-web/texts');
const RETELLING = 'What amber did on the pier';
const MET = 'Two of them, at the seaward end, have been turned as well, to point at the steps and not at the water.';

test('of a report that retells another, what was read there is told, drawn softly, traced back, and taken back', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Queue');
  await row(page, RETELLING).getByRole('link').click();
  const head = page.getByRole('region', { name: 'New to you' });
  await expect(head).toContainText('“Harbour lights go amber”');
  await expect(head).toContainText(/^About \d of \d min are new to you/);
  // Off until it is asked for.
  expect(await soft(page)).toEqual([]);
  await head.getByRole('switch', { name: 'Pass over what I know' }).click();
  await expect.poll(() => soft(page)).toContain(MET);
  // A figure that only this one has is not what was read there, nor is a sentence near to it in words.
  expect((await soft(page)).join(' ')).not.toMatch(/moths|shoe box|stood in the newspaper/);
  await expectAccessible(page, 'a text with what is known of it');

  await page
    .getByRole('button', { name: 'Met before, in “Harbour lights go amber”' })
    .first()
    .click({ position: { x: 8, y: 40 } });
  const sheet = page.getByRole('dialog', { name: 'Met before' });
  await expect(sheet).toContainText('Two of them, at the seaward end, have also been turned');
  await expectTargets(page, 'where it was met');
  await sheet.getByRole('link').filter({ hasText: 'Two of them' }).click();
  await expect(page.getByRole('heading', { name: 'Harbour lights go amber', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: `Back to “${RETELLING}”` }).click();
  // It is as it was chosen, also after a time elsewhere.
  await expect.poll(() => soft(page)).toContain(MET);

  await head.getByRole('button', { name: 'No, it is new to me' }).click();
  await expect(head).toHaveCount(0);
  expect(await soft(page)).toEqual([]);
  await page.getByRole('button', { name: 'What to do with this item' }).click();
  await page.getByRole('button', { name: 'Show what I know in it' }).click();
  await expect(head).toBeVisible();
});

test('two papers with one report say so of each other', async ({ page, empty }) => {
  await signIn(page, empty);
  const addressOf = (slug: string) =>
    smallWebAddresses(SMALL_WEB_PORT).find((each) => each.slug === slug)?.address ?? '';
  await save(page, addressOf('harbour-lights-go-amber'));
  await save(page, addressOf('amber-lamps-for-the-pier'));
  await expect(row(page, 'Harbour lights go amber').getByText('1 min')).toBeVisible();
  await row(page, 'Amber lamps for the pier').getByRole('link').click();
  const also = page.getByRole('region', { name: 'Also told by' });
  await expect(also).toContainText('The Sound Courier');
  // It is not told again among what is only near.
  await expect(page.getByRole('region', { name: 'Related' }).getByText('Harbour lights go amber')).toHaveCount(0);
  await also.getByRole('link', { name: 'The Sound Courier: Harbour lights go amber' }).click();
  await expect(page.getByRole('heading', { name: 'Harbour lights go amber', level: 1 })).toBeVisible();
  await expect(also.getByRole('link', { name: /Amber lamps for the pier$/ })).toBeVisible();
});

test('pages of which all is known are passed over', async ({ page, seeded }) => {
  await signIn(page, seeded);
  // A retelling of what was read, word for word, between two pages of news; in large type each is a page or more of its own.
  const news = (about: string) =>
    Array.from(
      { length: 9 },
      (_, at) => `Nobody has told of the ${about} number ${at + 1} under the mill before today.`,
    ).join(' ');
  const known = readFileSync(path.join(TEXTS, 'harbour-lights-go-amber.md'), 'utf8').split(/^---$/m)[2] ?? '';
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  const sheet = page.getByRole('dialog', { name: 'Save an address' });
  await sheet.getByLabel('Address of a page').fill('http://between.example/two-pieces-of-news');
  await sheet.getByRole('radio', { name: 'Selected part' }).click();
  await sheet.getByLabel('Paste it here').evaluate(
    (field, paragraphs) => {
      const data = new DataTransfer();
      const words = paragraphs.map((each) => `<p>${each.replaceAll('<', '')}</p>`).join('');
      data.setData('text/html', `<h2>Between two pieces of news</h2>${words}`);
      data.setData('text/plain', paragraphs.join('\n\n'));
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    },
    [news('cellar'), ...known.trim().split(/\n\n+/), news('attic')],
  );
  await sheet.getByRole('button', { name: 'Save', exact: true }).click();
  await goTo(page, 'Inbox');
  await row(page, /Between two pieces|two-pieces-of-news/)
    .getByRole('link')
    .click();
  const head = page.getByRole('region', { name: 'New to you' });
  await expect(head).toContainText('“Harbour lights go amber”');
  await page.getByRole('button', { name: 'How the text looks' }).click();
  for (let step = 0; step < 6; step++) await page.getByRole('button', { name: 'Larger text' }).click();
  await page.getByRole('radio', { name: 'Turn pages' }).click();
  await page.keyboard.press('Escape');

  const reader = page.locator('.reader-scroll').first();
  const turnsToTheEnd = async () => {
    await reader.evaluate((view) => void (view.scrollTop = 0));
    let turns = 0;
    for (let before = -1; turns < 60; turns++) {
      const top = await reader.evaluate((view) => view.scrollTop);
      if (top === before) break;
      before = top;
      await page.keyboard.press('ArrowRight');
    }
    return turns;
  };
  // A page has to hold less than the retelling, so that one of them is known whole at either width.
  await page.setViewportSize({ width: page.viewportSize()?.width ?? 390, height: 620 });
  const all = await turnsToTheEnd();
  await reader.evaluate((view) => void (view.scrollTop = 0));
  await head.getByRole('switch', { name: 'Pass over what I know' }).click();
  await expect.poll(async () => (await soft(page)).length).toBeGreaterThan(5);
  expect(await turnsToTheEnd()).toBeLessThan(all);
});
