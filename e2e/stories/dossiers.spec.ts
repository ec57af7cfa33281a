import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { type Browser, expect, type Page } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { Finger } from '../finger';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, pressAndHear, row, signIn } from '../reader';

/** Somebody who has no account here, in another browser. */
async function stranger(browser: Browser, address: string): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
  await page.goto(address);
  expect(errors, 'what the page’s own policy refuses').toEqual([]);
  return page;
}

async function openDossier(page: Page, title: string): Promise<void> {
  await goTo(page, 'Library');
  await page.getByRole('link', { name: 'Dossiers', exact: true }).click();
  await page.getByRole('list', { name: 'Dossiers' }).getByRole('link', { name: title }).click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
}

const inDossier = (page: Page) => page.getByRole('list', { name: 'In the dossier' }).getByRole('listitem');

test('a set is gathered from where things stand, gets words between them and an order, and what is added reaches who was given its address', async ({
  page,
  seeded,
  browser,
}) => {
  await signIn(page, seeded);
  // One press at an item begins it; the next thing goes into it by one press.
  await row(page, 'Larch or oak')
    .getByRole('button', { name: /What to do/ })
    .click();
  await page.getByRole('button', { name: 'Into another dossier…' }).click();
  const asks = page.getByRole('dialog', { name: 'Put it in a dossier' });
  await asks.getByLabel('Or a new one, called').fill('The crossing');
  await asks.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByText('“The crossing” is begun, with 1 in it.')).toBeVisible();
  await row(page, 'Bread list closes early')
    .getByRole('button', { name: /What to do/ })
    .click();
  await page.getByRole('button', { name: 'Into “The crossing”' }).click();
  await expect(page.getByText('In “The crossing”.')).toBeVisible();

  await openDossier(page, 'The crossing');
  await expect(inDossier(page)).toHaveCount(2);
  const add = async (what: string) => {
    await page.getByRole('button', { name: 'Add…' }).click();
    await page.getByRole('radio', { name: what }).click();
  };
  await add('A heading');
  await page.getByLabel('Heading', { exact: true }).fill('In winter');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await add('My words');
  await page.getByRole('radio', { name: 'What I make of it' }).click();
  await page.getByLabel('Your words').fill('Go by the *noon* boat.');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(inDossier(page)).toHaveCount(4);
  await expectAccessible(page, 'a dossier as a page');

  // By keys: the heading goes to the top.
  await page.getByRole('radio', { name: 'Order' }).click();
  await page.getByRole('button', { name: /^Move “In winter”/ }).focus();
  await pressAndHear(page, ['Space', 'ArrowUp', 'ArrowUp', 'Space']);
  await expect(page.getByRole('list', { name: 'Order' }).getByRole('listitem').first()).toContainText('In winter');
  await expectAccessible(page, 'a dossier in its order');
  await expectTargets(page, 'a dossier in its order');

  await page.getByRole('button', { name: 'Hand it on…' }).click();
  await page.getByRole('button', { name: 'Put it at an address' }).click();
  const note = page.getByRole('note', { name: 'Address of the page' });
  const address = await note.innerText();
  await expectAccessible(page, 'handing on');
  await expectTargets(page, 'handing on');
  const other = await stranger(browser, address);
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('The crossing');
  await expect(other.getByRole('heading', { level: 2 })).toHaveText('In winter');
  await expect(other.getByText('Go by the noon boat.')).toBeVisible();
  expect(await other.locator('script').count()).toBe(0);
  await expectAccessible(other, 'what a stranger sees');
  const known = await other.request.get(address);
  const again = () => other.request.get(address, { headers: { 'if-none-match': known.headers().etag ?? '' } });
  expect((await again()).status()).toBe(304);

  // What is added later appears there.
  await page.getByRole('link', { name: 'The crossing' }).click();
  await add('From the library');
  await page.getByLabel('Find it by its words').fill('seal');
  await page.getByRole('button', { name: /^Seal holds up the noon boat/ }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(inDossier(page)).toHaveCount(5);
  await expect.poll(async () => (await again()).status()).toBe(200);
  await other.reload();
  await expect(other.getByRole('link', { name: 'Seal holds up the noon boat' })).toBeVisible();

  await page.getByRole('button', { name: 'Hand it on…' }).click();
  await page.getByRole('button', { name: 'Withdraw it' }).click();
  await page.getByRole('button', { name: 'Yes, withdraw it' }).click();
  await expect(page.getByText('It is withdrawn')).toBeVisible();
  expect((await other.reload())?.status()).toBe(410);
  await expect(other.getByText('withdrawn by its owner')).toBeVisible();
  await other.context().close();
});

test('what a phone shares goes into a dossier; what another device writes around one while its cover is open stays', async ({
  page,
  seeded,
  browser,
}, { project }) => {
  await signIn(page, seeded);
  const shared = webPage('rough', `/closed/${project.name}-shared`);
  await page.goto(`${seeded}/share?${new URLSearchParams({ title: 'A page', text: shared }).toString()}`);
  await expect(page.getByText('Saved to Inbox.')).toBeVisible();
  await page.getByRole('button', { name: 'Into a dossier' }).click();
  await page
    .getByRole('dialog', { name: 'Put it in a dossier' })
    .getByRole('button', { name: /^Winter reading/ })
    .click();
  await expect(page.getByText('In “Winter reading”.')).toBeVisible();
  await openDossier(page, 'Winter reading');
  await expect(inDossier(page).last()).toContainText(/Closed|rough/i);

  const cover = async (on: Page) => {
    await on.getByRole('button', { name: 'Cover…' }).click();
    return on.getByRole('dialog', { name: 'Cover' });
  };
  const here = await cover(page);
  const other = await (await browser.newContext({ viewport: page.viewportSize() })).newPage();
  await signIn(other, seeded);
  await openDossier(other, 'Winter reading');
  const there = await cover(other);
  await there.getByLabel('After the rest').fill('Written on the other device.');
  await there.getByRole('button', { name: 'Keep the cover' }).click();
  await expect(page.getByText('Written on the other device.')).toBeVisible();
  await here.getByLabel('After the rest').fill('Written on this one.');
  await here.getByRole('button', { name: 'Keep the cover' }).click();
  for (const on of [page, other])
    for (const words of ['Written on the other device.', 'Written on this one.'])
      await expect(on.getByText(words)).toBeVisible();
  await other.context().close();
});

test('what pages state is laid side by side, put right by hand, and goes along into a spreadsheet', async ({
  page,
  context,
  seeded,
}, { project }) => {
  await signIn(page, seeded);
  await openDossier(page, 'A new engine for the ferry');
  await page.getByRole('radio', { name: 'Facts' }).click();
  const facts = page.getByRole('region', { name: 'Facts' });
  const titles = facts.locator('tbody').getByRole('rowheader');
  await facts.getByRole('button', { name: 'Price', exact: true }).click();
  await facts.getByRole('button', { name: 'Price', exact: true }).click();
  // What states no price stands last, whichever way the rest is put.
  await expect(titles.last()).toHaveText('A quiet engine for a loud harbour');
  await facts.getByRole('button', { name: 'Weight of “Battery, 30 kWh”: 310 kg' }).click();
  const cell = page.getByRole('dialog', { name: 'Weight of “Battery, 30 kWh”' });
  await expect(cell.getByText('Read from the words of the page')).toBeVisible();
  await cell.getByLabel('Correct it').fill('322 kg');
  await cell.getByRole('button', { name: 'Keep it' }).click();
  await facts.getByRole('button', { name: 'Weight of “Battery, 30 kWh”: 322 kg' }).click();
  await expect(page.getByText('The page states 310 kg.')).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expectAccessible(page, 'facts');
  await expectTargets(page, 'facts', '.facts-frame');
  await page.getByRole('radio', { name: 'Wall' }).click();
  const tile = page.getByRole('list', { name: 'Wall' }).getByRole('listitem').filter({ hasText: 'A quiet engine' });
  await expectAccessible(page, 'wall');
  const across = async () => (await tile.boundingBox())?.width ?? 0;
  await page.getByRole('radio', { name: 'Few, large' }).click();
  await expect(tile).toBeVisible();
  const large = await across();
  await page.getByRole('radio', { name: 'Many, small' }).click();
  await expect.poll(across).toBeLessThan(0.6 * large);
  const small = await across();
  await page.keyboard.press('+');
  await expect.poll(across).toBeGreaterThan(1.3 * small);
  if (project.name === 'phone') {
    const { width, height } = page.viewportSize() ?? { width: 390, height: 844 };
    const finger = new Finger(await context.newCDPSession(page));
    await finger.pinch([width / 2, 0.7 * height], 200, 0.6);
    await expect.poll(across).toBeLessThan(1.1 * small);
    await finger.pinch([width / 2, 0.7 * height], 90, 1.5);
    await expect.poll(across).toBeGreaterThan(1.3 * small);
    // The page itself is not made larger by it.
    expect(await page.evaluate(() => visualViewport?.scale)).toBe(1);
  }

  await page.getByRole('button', { name: 'Hand it on…' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV', exact: true }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('A new engine for the ferry.csv');
  expect(readFileSync(await download.path(), 'utf8')).toContain('322 kg');
});

test('with a passphrase only who knows it sees a dossier, none of the library’s other pictures, and a letter of it comes with a mail program @any-width', async ({
  page,
  seeded,
  browser,
}) => {
  await signIn(page, seeded);
  await openDossier(page, 'Eelgrass, for the upper class');
  await page.getByRole('button', { name: 'Hand it on…' }).click();
  await page.getByRole('radio', { name: 'Who has a passphrase' }).click();
  await page.getByLabel('Passphrase, 6 characters or more').fill('low water');
  await page.getByRole('button', { name: 'Put it at an address' }).click();
  const address = await page.getByRole('note', { name: 'Address of the page' }).innerText();
  const other = await (await browser.newContext()).newPage();
  expect((await other.goto(address))?.status()).toBe(401);
  await expectAccessible(other, 'the question for a passphrase');
  await other.getByLabel('Passphrase').fill('high water');
  await other.getByRole('button', { name: 'Open it' }).click();
  await expect(other.getByRole('alert')).toContainText('not the passphrase');
  expect((await other.request.get(`${address}/feed.atom`)).status()).toBe(401);
  await other.getByLabel('Passphrase').fill('low water');
  await other.getByRole('button', { name: 'Open it' }).click();
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('Eelgrass, for the upper class');
  const pictures = await other
    .locator('img')
    .evaluateAll((images) => images.map((each) => (each as HTMLImageElement).src));
  for (const picture of pictures) expect((await other.request.get(picture)).status()).toBe(200);
  const own = /pictures\/([0-9a-f]{64})/.exec(pictures[0] ?? '')?.[1] ?? '';
  const unknown = own.replace(/^./, (first) => (first === 'a' ? 'b' : 'a'));
  expect((await other.request.get(`${address}/pictures/${unknown}.webp`)).status()).toBe(404);
  await other.context().close();

  // All designs hold, by day and by night.
  for (const design of ['Report', 'Almanac', 'Poster', 'Sheets']) {
    await page.getByRole('radio', { name: design, exact: true }).click();
    await page.getByRole('radio', { name: 'Moss' }).click();
  }
  const letter = page.getByRole('region', { name: 'As a letter' });
  await letter.getByLabel('To', { exact: true }).fill('teo@skerrow.example');
  await letter.getByLabel('A few words before it').fill('For Thursday.');
  await letter.getByRole('button', { name: 'Send it' }).click();
  await expect(page.getByText('Sent to teo@skerrow.example.')).toBeVisible();
  const mail = await page.context().newPage();
  await mail.goto(webPage('post', '/letters'));
  await mail
    .getByRole('link', { name: /Eelgrass, for the upper class/ })
    .first()
    .click();
  await expect(mail.getByText('For Thursday.')).toBeVisible();
  await expect(mail.getByText('Roots hold sand.')).toBeVisible();
  for (const width of [320, 390, 1280]) {
    await mail.setViewportSize({ width, height: 700 });
    expect(await mail.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
  await mail.close();
});

test('a dossier is set into a page of another site, as high as it is, and no wider @any-width', async ({
  page,
  seeded,
  browser,
}) => {
  await signIn(page, seeded);
  await openDossier(page, 'Winter reading');
  await page.getByRole('button', { name: 'Hand it on…' }).click();
  await page.getByRole('button', { name: 'Put it at an address' }).click();
  const fragment = await page.getByRole('note', { name: 'For another page' }).innerText();
  const other = await (await browser.newContext({ viewport: { width: 390, height: 700 } })).newPage();
  // A server, not an answer in its place: a page that came from nowhere may not reach this machine.
  const site = createServer((_request, response) => {
    response.setHeader('content-type', 'text/html');
    response.end(`<!doctype html><meta name="viewport" content="width=device-width"><h1>Mine</h1>${fragment}`);
  }).listen(0, '127.0.0.1');
  await once(site, 'listening');
  await other.goto(`http://elsewhere.localhost:${(site.address() as AddressInfo).port}/`);
  await expect(other.frameLocator('iframe').getByRole('heading', { level: 1 })).toHaveText('Winter reading');
  const heights = () =>
    other.evaluate(() => {
      const frame = document.querySelector('iframe')!;
      return { frame: frame.clientHeight, page: document.documentElement.scrollWidth };
    });
  const inner = () =>
    other
      .frameLocator('iframe')
      .locator('html')
      .evaluate((html) => Math.ceil(html.getBoundingClientRect().height));
  await expect.poll(async () => Math.abs((await heights()).frame - (await inner()))).toBeLessThanOrEqual(2);
  expect((await heights()).frame).toBeGreaterThan(300);
  expect((await heights()).page).toBeLessThanOrEqual(390);
  await other.context().close();
  site.close();
});

/** Drags from a point to what appears only while something is dragged. */
async function dragOnto(page: Page, from: { x: number; y: number }, target: string): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 12, from.y + 12, { steps: 4 });
  const onto = page.getByRole('region', { name: 'Dossiers to drop it on' }).getByText(target);
  const box = await onto.boundingBox();
  if (!box) throw new Error('there is nothing to drop it on');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
}

test('a dossier is planned over days; on a wide screen rows and passages are dropped on one', async ({ page, seeded }, {
  project,
}) => {
  await signIn(page, seeded);
  await openDossier(page, 'Winter reading');
  await page.getByRole('button', { name: 'With all of it…' }).click();
  const plan = page.getByRole('group', { name: 'Read it over days' });
  await plan.getByRole('radio', { name: '10 min' }).click();
  await expect(plan.getByRole('status')).toContainText(/All of it fits into today|items over \d+ days, until/);
  await expectAccessible(page, 'with all of a dossier');
  await plan.getByRole('button', { name: 'Plan it so' }).click();
  await expect(page.getByText(/come back over (?:the day|\d+ days)\./)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  if (project.name !== 'wide') return;

  await goTo(page, 'Inbox');
  const link = row(page, 'Larch or oak').getByRole('link').first();
  const box = await link.boundingBox();
  if (!box) throw new Error('the row is not on screen');
  await dragOnto(page, { x: box.x + 30, y: box.y + 14 }, 'Winter reading');
  await expect(page.getByText('In “Winter reading”.')).toBeVisible();
  await link.click();
  const article = page.getByTestId('reader').locator('.article');
  await expect(article).toBeVisible();
  const words = await article.evaluate((element) => {
    const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    let paragraph = walker.nextNode() as Text;
    while (paragraph.length < 60) paragraph = walker.nextNode() as Text;
    paragraph.parentElement?.scrollIntoView({ block: 'center' });
    getSelection()?.setBaseAndExtent(paragraph, 0, paragraph, 24);
    const { x, y, height } = getSelection()!.getRangeAt(0).getBoundingClientRect();
    return { text: paragraph.data.slice(0, 24), at: { x: x + 20, y: y + height / 2 } };
  });
  await dragOnto(page, words.at, 'Winter reading');
  await expect(page.getByText('In “Winter reading”.')).toBeVisible();
  await openDossier(page, 'Winter reading');
  await expect(page.getByRole('article').or(page.getByRole('main')).getByText(words.text.trim()).first()).toBeVisible();
});
