import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { goTo, row, signIn } from '../reader';

test('a month is looked back on: the best of it is named and taken along, and what might go goes and comes back', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Now');
  await page.getByRole('button', { name: 'Look-back' }).click();
  await expect(page.getByRole('heading', { name: 'Look-back', level: 1 })).toBeVisible();
  await page.getByRole('radio', { name: 'Month' }).click();
  const best = page.getByRole('region', { name: 'The best of it' });
  await expect(best.getByRole('list', { name: 'The best of it' }).getByRole('listitem').first()).toContainText(
    '3 highlights',
  );
  await expect(page.getByRole('region', { name: 'What you marked' })).toContainText('Roots hold sand.');
  await expect(page.getByRole('list', { name: 'Subjects' }).getByRole('listitem').first()).toBeVisible();
  await expectAccessible(page, 'the look-back');
  await expectTargets(page, 'the look-back');

  // One press, and it is among the best; it stays so.
  await best.getByRole('button', { name: 'One of the best: “The garboard that wept”' }).click();
  await expect(
    best
      .getByRole('listitem')
      .filter({ hasText: 'The garboard that wept' })
      .getByText(/you called it one of the best/),
  ).toBeVisible();
  const download = page.waitForEvent('download');
  await best.getByRole('button', { name: 'As Markdown' }).click();
  const markdown = readFileSync(await (await download).path(), 'utf8');
  expect(markdown).toMatch(/^# The best of it: /);
  expect(markdown).toMatch(/## The garboard that wept\n/);
  expect(markdown).toMatch(/> Roots hold sand\.\n/);

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
