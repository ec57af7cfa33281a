import { readFileSync, statSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { LIBRARY_OF_DEMO } from '../ports';
import { goTo, row, signIn } from '../reader';

// When Ines of the demo marked and read: early in a month, that is in the month before.
const MARKED_DAYS_AGO = 1;
const READ_DAYS_AGO = 12;

/** Turns from this month to that of a day, and says how many months that was. */
async function toMonthOf(page: Page, daysAgo: number): Promise<number> {
  const now = new Date();
  // Counted from when the demo was filled, which may have been before midnight.
  const then = new Date(statSync(LIBRARY_OF_DEMO).mtimeMs - daysAgo * 86_400_000);
  const months = (now.getFullYear() - then.getFullYear()) * 12 + now.getMonth() - then.getMonth();
  for (let turned = 0; turned < months; turned++) await page.getByRole('button', { name: 'The month before' }).click();
  return months;
}

async function backToNow(page: Page, months: number): Promise<void> {
  for (let turned = 0; turned < months; turned++) await page.getByRole('button', { name: 'The month after' }).click();
}

/** What the best of it is as Markdown. */
async function takenAlong(page: Page): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As Markdown' }).click();
  return readFileSync(await (await download).path(), 'utf8');
}

test('a month is looked back on: the best of it is named and taken along, and what might go goes and comes back', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Now');
  await page.getByRole('button', { name: 'Look-back' }).click();
  await expect(page.getByRole('heading', { name: 'Look-back', level: 1 })).toBeVisible();
  await page.getByRole('radio', { name: 'Month' }).click();
  const markedIn = await toMonthOf(page, MARKED_DAYS_AGO);
  const best = page.getByRole('region', { name: 'The best of it' });
  await expect(best.getByRole('list', { name: 'The best of it' }).getByRole('listitem').first()).toContainText(
    '3 highlights',
  );
  await expect(page.getByRole('region', { name: 'What you marked' })).toContainText('Roots hold sand.');
  await expect(page.getByRole('list', { name: 'Subjects' }).getByRole('listitem').first()).toBeVisible();
  await expectAccessible(page, 'the look-back');
  await expectTargets(page, 'the look-back');

  expect(await takenAlong(page)).toMatch(/> Roots hold sand\.\n/);

  // One press, and it is among the best of the month in which it was read; it stays so.
  await backToNow(page, markedIn);
  const readIn = await toMonthOf(page, READ_DAYS_AGO);
  await best.getByRole('button', { name: 'One of the best: “The garboard that wept”' }).click();
  await expect(
    best
      .getByRole('listitem')
      .filter({ hasText: 'The garboard that wept' })
      .getByText(/you called it one of the best/),
  ).toBeVisible();
  const markdown = await takenAlong(page);
  expect(markdown).toMatch(/^# The best of it: /);
  expect(markdown).toMatch(/## The garboard that wept\n/);
  await backToNow(page, readIn);

  // What might go: one of the two stays, the other goes, and is brought back.
  const going = page.getByRole('region', { name: 'What might go' });
  const proposed = await going.getByRole('listitem').count();
  await expect(going).toContainText('passed over 3 times');
  await going.getByRole('checkbox', { name: 'Let go: “What a reserve is for”' }).uncheck();
  await going
    .getByRole('button', { name: proposed === 2 ? 'Let this one go' : `Let these ${proposed - 1} go` })
    .click();
  await expect(going.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(going.getByRole('listitem')).toHaveCount(proposed);

  // Another month.
  await page.getByRole('button', { name: 'The month before' }).click();
  await expect(going).toHaveCount(0);
  await page.getByRole('button', { name: 'The month after' }).click();
  await expect(going).toBeVisible();
});

test('it is told when the pile would be read, and what would change it is tried before it is done', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Now');
  await page.getByRole('button', { name: 'How I am doing' }).click();
  const forecast = page.getByRole('region', { name: 'Will it ever be empty?' });
  await expect(forecast).toContainText(/wait in Inbox and Queue\. At this pace it will not be empty within a year\./);
  await expect(forecast.getByRole('img', { name: /^Minutes that wait, by week\./ })).toBeVisible();
  await forecast.getByRole('switch', { name: 'One more slot of 20 minutes a week' }).click();
  await expect(forecast.getByRole('status')).toContainText(/With that: At this pace it is empty in \d+ to \d+ weeks\./);
  await forecast.getByRole('switch', { name: /^Let / }).click();
  await expectAccessible(page, 'the forecast, tried');
  // Nothing has gone yet; now it does, and is brought back.
  const go = forecast.getByRole('button', { name: /^Let / });
  await go.click();
  await expect(page.getByText(/Let go\. It can be brought back for 30 days\./)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('radio', { name: 'As a table' }).click();
  await expect(forecast.getByRole('columnheader', { name: 'At most' })).toBeVisible();
  await goTo(page, 'Queue');
  await expect(row(page, 'What a reserve is for')).toBeVisible();
});
