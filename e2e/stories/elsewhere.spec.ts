import { PROTOCOL, PROTOCOL_HEADER } from '@dorvel/core/sync';
import { type BrowserContext, expect, type Page } from '@playwright/test';
import nodemailer from 'nodemailer';
import sharp from 'sharp';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, openInYou, row, signIn } from '../reader';

/** Presses the bookmark on a page. @returns what it opens */
async function press(page: Page, bookmark: string): Promise<Page> {
  const opening = page.waitForEvent('popup');
  // As from the bar of bookmarks, the script is the browser's own and the page's policy for scripts does not count.
  await page.evaluate(decodeURIComponent(bookmark.slice('javascript:'.length)));
  return opening;
}

async function pageAt(context: BrowserContext, address: string): Promise<Page> {
  const page = await context.newPage();
  await page.goto(address);
  return page;
}

test('a bookmark saves the page as it is seen, also under a strict policy and behind a sign-in, until it is revoked @any-width', async ({
  page,
  browser,
  empty,
}, { project }) => {
  const name = `Browser of ${project.name}`;
  await signIn(page, empty);
  await openInYou(page, 'Save from elsewhere');
  await page.getByLabel('Where you will use it').fill(name);
  await page.getByRole('button', { name: 'Make the bookmark' }).click();
  const link = page.getByRole('region', { name: 'Your bookmark' }).getByRole('link');
  const bookmark = (await link.getAttribute('href')) ?? '';
  const mine = page.getByRole('listitem').filter({ hasText: name });
  await expect(mine).toContainText('never used');
  /** Another browser, which has no session here. */
  const elsewhere = await browser.newContext();

  await test.step('under a policy that allows nothing', async () => {
    const strict = await pageAt(elsewhere, webPage('rough', `/strict/${project.name}-strict`));
    const answer = await press(strict, bookmark);
    await expect(answer.getByRole('heading', { name: 'Saved to Inbox' })).toBeVisible();
    // Whoever stands before that browser learns nothing of whose library it is, nor of what is in it.
    await expect(answer.getByText(`By the bookmark “${name}”`)).toBeVisible();
    await expect(answer.getByText(/Ines|skerrow\.example/)).toHaveCount(0);
    const again = await press(strict, bookmark);
    await expect(again.getByRole('heading', { name: 'Already there' })).toBeVisible();
    await expect(again.getByText(/This page is in the library\. It is on top again\./)).toBeVisible();
  });

  await test.step('behind a sign-in, as the reader sees it', async () => {
    await elsewhere.addCookies([{ name: 'member', value: 'yes', domain: 'rough.localhost', path: '/' }]);
    const members = await pageAt(elsewhere, webPage('rough', `/members/${project.name}-minutes`));
    await press(members, bookmark);
    await goTo(page, 'Inbox');
    const saved = row(page, new RegExp(`Crossing to ${project.name} minutes`, 'i'));
    await expect(saved.getByRole('img', { name: /min/ })).toBeVisible();
    await saved.getByRole('link').click();
    await expect(page.getByText('The fare is five for the crossing')).toBeVisible();
    await page.goto(`${empty}/you/elsewhere`);
    await expect(mine).toContainText('last used today');
  });

  await test.step('a save is taken back from where it was made', async () => {
    const wrong = await pageAt(elsewhere, webPage('rough', `/strict/${project.name}-mistake`));
    const answer = await press(wrong, bookmark);
    await answer.getByRole('button', { name: 'Undo' }).click();
    await expect(answer.getByRole('heading', { name: 'Taken back' })).toBeVisible();
    await goTo(page, 'Library');
    await page.getByRole('radio', { name: 'Let go' }).click();
    await expect(row(page, new RegExp(`${project.name}[ -]mistake`, 'i'))).toBeVisible();
  });

  await test.step('where forms may not leave the page, the address is shared', async () => {
    const closed = await pageAt(page.context(), webPage('rough', `/closed/${project.name}-barred`));
    const share = await press(closed, bookmark);
    await expect(share.getByText(/Saved/).first()).toBeVisible();
    await goTo(page, 'Inbox');
    await expect(row(page, new RegExp(`Crossing to ${project.name} barred`, 'i'))).toBeVisible();
  });

  await test.step('the secret reads nothing, and is worth nothing once it is revoked', async () => {
    const secret = /"secret":"([^"]+)"/.exec(decodeURIComponent(bookmark))?.[1] ?? '';
    expect(secret).toHaveLength(43);
    const pull = await elsewhere.request.get(`${empty}/api/sync/pull`, {
      headers: {
        authorization: `Bearer ${secret}`,
        cookie: `dorvel_session=${secret}`,
        [PROTOCOL_HEADER]: String(PROTOCOL),
      },
    });
    expect(pull.status()).toBe(401);
    await page.goto(`${empty}/you/elsewhere`);
    await page.getByRole('button', { name: `Revoke “${name}”` }).click();
    await page.getByRole('button', { name: `Revoke “${name}” for good` }).click();
    await expect(mine).toHaveCount(0);
    const late = await pageAt(elsewhere, webPage('rough', `/strict/${project.name}-late`));
    const answer = await press(late, bookmark);
    await expect(answer.getByText(/it was revoked/)).toBeVisible();
  });
  await elsewhere.close();
});

test('mail is saved: a link with its note and tags, and a newsletter as a letter with its picture', async ({
  page,
  empty,
  emptyMail,
}, { project }) => {
  await signIn(page, empty);
  await openInYou(page, 'Save from elsewhere');
  const to = (await page.getByRole('note', { name: 'Your mail address' }).textContent()) ?? '';
  expect(to).toMatch(/^save-[a-z2-9]{20}@skerrow\.example$/);
  const post = nodemailer.createTransport({
    host: '127.0.0.1',
    port: emptyMail,
    secure: false,
    ignoreTLS: true,
  });
  const from = 'Birgit Saltmarsh <birgit@slipway.example>';

  await test.step('a link', async () => {
    await post.sendMail({
      from,
      to,
      subject: `For the refit #mailed/${project.name}`,
      text: `Before Thursday, please.\n${webPage('rough', `/turning/${project.name}-mailed`)}\n-- \nBirgit`,
    });
    await goTo(page, 'Inbox');
    const saved = row(page, `mailed/${project.name}`);
    await expect(saved).toContainText(new RegExp(`Crossing to ${project.name} mailed`, 'i'));
    await saved.getByRole('button', { name: /^What to do with/ }).click();
    await page.getByRole('button', { name: 'Your note' }).click();
    await expect(page.getByRole('textbox', { name: /note/i })).toHaveValue('Before Thursday, please.');
    await page.keyboard.press('Escape');
  });

  await test.step('a newsletter', async () => {
    const picture = await sharp({ create: { width: 600, height: 300, channels: 3, background: '#57a' } })
      .png()
      .toBuffer();
    const title = `The yard in winter, for ${project.name}`;
    const words = 'The larch has come, and it is better than the last. '.repeat(12);
    await post.sendMail({
      from,
      to,
      subject: title,
      list: { id: 'letters.slipway.example' },
      text: words,
      html: `<html><body><h1>${title}</h1><p>${words}</p><p><img src="cid:larch" alt="Larch boards"></p><p>${words}</p><p>${words}</p></body></html>`,
      attachments: [{ filename: 'larch.png', content: picture, cid: 'larch' }],
    });
    const saved = row(page, title);
    await expect(saved).toContainText('slipway.example');
    await saved.getByRole('link').click();
    await expect(page.getByTestId('reader').getByText('The larch has come').first()).toBeVisible();
    await expect(page.getByTestId('reader')).toContainText('Birgit Saltmarsh');
    const shown = page.locator('.article').getByRole('img', { name: 'Larch boards' });
    await shown.scrollIntoViewIfNeeded();
    await expect
      .poll(() => shown.evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth))
      .toBeGreaterThan(300);
    await page.getByRole('button', { name: 'What to do with this item' }).click();
    const sheet = page.getByRole('dialog').first();
    await expect(sheet.getByRole('button', { name: 'Let go' })).toBeVisible();
    await expect(sheet.getByRole('button', { name: 'Open the page itself' })).toHaveCount(0);
  });
});

test('the demo’s mail program sends over SMTP, and shows what it is answered', async ({ page, seeded }) => {
  await page.goto(webPage('post', '/'));
  await page.getByLabel('To (under').fill('save-nobody@skerrow.example');
  await page.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByRole('status')).toContainText(/Refused: .*550 5\.1\.1 There is no such address here/);
  // The demo's own address is there to be sent to.
  await signIn(page, seeded);
  await page.goto(`${seeded}/you/elsewhere`);
  await expect(page.getByRole('note', { name: 'Your mail address' })).toHaveText(/^save-.*@skerrow\.example$/);
});
