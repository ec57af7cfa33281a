import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectTargets } from '../accessible';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, nextFrames, row } from '../reader';
import { type ExtendedBrowser, extendedBrowser, pairWith } from './browser';

let browser: ExtendedBrowser;
test.beforeEach(async () => {
  browser = await extendedBrowser();
});
test.afterEach(() => browser.end());

async function tabAt(address: string): Promise<Page> {
  const page = await browser.context.newPage();
  await page.goto(address);
  return page;
}

test('one press saves the page as it is seen, and what is changed about it in the panel stays', async ({ empty }) => {
  const app = await pairWith(browser, empty, 'Browser for pages');

  await test.step('a page that a script has built', async () => {
    const tab = await tabAt(webPage('rough', '/built/Gannet'));
    const panel = await browser.press(tab);
    await expect(panel.getByRole('heading', { name: 'Saved to Inbox' })).toBeVisible();
    await expect(panel.getByText('As you see it.')).toBeVisible();
    await expect(panel.getByText(/^Came through whole/)).toBeVisible();
    await expect(panel.getByText('In the library of Ines Tavora-Holm, ines@skerrow.example')).toBeVisible();
    await panel.getByText('Another tag, title, note').click();
    await panel.getByLabel('Another tag').fill('boats/gannet');
    await panel.keyboard.press('Enter');
    await expect(panel.getByRole('button', { name: 'Take off boats/gannet' })).toBeVisible();
    await panel.getByLabel('Title', { exact: true }).fill('The Gannet, her log');
    await panel.getByLabel('Note').fill('Compare with the summer.');
    await panel.getByLabel('Goes to').selectOption('Queue');
    await expect(panel.getByLabel('Goes to')).toHaveValue('queue');
    await panel.close();
    await goTo(app, 'Queue');
    const saved = row(app, 'The Gannet, her log');
    await expect(saved).toContainText('boats/gannet');
    await saved.getByRole('link').click();
    await expect(app.getByText('met a long swell off the point').first()).toBeVisible();
  });

  await test.step('behind a sign-in, and again', async () => {
    await browser.context.addCookies([{ name: 'member', value: 'yes', domain: 'rough.localhost', path: '/' }]);
    const tab = await tabAt(webPage('rough', '/members/extension-pages'));
    const panel = await browser.press(tab);
    await expect(panel.getByText(/^Came through whole/)).toBeVisible();
    await panel.close();
    const again = await browser.press(tab);
    await expect(again.getByRole('heading', { name: 'Already there' })).toBeVisible();
    await expect(again.getByText(/^Already saved today: in Inbox/)).toBeVisible();
    await expect(again.getByRole('button', { name: 'Undo' })).toHaveCount(0);
  });

  await test.step('into the dossier that was worked on last', async () => {
    await goTo(app, 'Library');
    await app.getByRole('link', { name: 'Dossiers', exact: true }).click();
    await app.getByLabel('A new dossier, called').fill('Log books');
    await app.getByRole('button', { name: 'Begin', exact: true }).click();
    await expect(app.getByRole('heading', { name: 'Log books', level: 1 })).toBeVisible();
    const panel = await browser.press(await tabAt(webPage('rough', '/built/Gannet')));
    await panel.getByRole('button', { name: 'Put it in' }).click();
    await expect(panel.getByText('In “Log books”.')).toBeVisible();
    await expect(app.getByRole('list', { name: 'In the dossier' }).getByText('The Gannet, her log')).toBeVisible();
    await panel.getByRole('button', { name: 'Take it out' }).click();
    await expect(app.getByText('Nothing is in it yet.')).toBeVisible();
  });

  await test.step('under a policy that allows nothing, and taken back', async () => {
    const tab = await tabAt(webPage('rough', '/strict/extension-mistake'));
    const panel = await browser.press(tab);
    await expect(panel.getByText(/^Came through whole/)).toBeVisible();
    await panel.getByRole('button', { name: 'Undo' }).click();
    await expect(panel.getByRole('heading', { name: 'Taken back' })).toBeVisible();
    await goTo(app, 'Library');
    await app.getByRole('radio', { name: 'Let go' }).click();
    await expect(row(app, /extension[ -]mistake/i)).toBeVisible();
  });

  await test.step('a page of the browser’s own has no address', async () => {
    const panel = await browser.press(await tabAt('about:blank'));
    await expect(panel.getByRole('alert')).toContainText('a page of the browser’s own');
  });

  await test.step('the panel closes by itself, unless it is touched', async () => {
    const options = await browser.open('options.html');
    await options.getByLabel('The panel stays for').selectOption('5 seconds');
    await options.close();
    const tab = await tabAt(webPage('rough', '/strict/extension-quick'));
    const left = await browser.press(tab);
    await expect(left.getByText(/^Closes in \d s/)).toBeVisible();
    await left.waitForEvent('close', { timeout: 15_000 });
    const touched = await browser.press(tab);
    await expect(touched.getByText(/^Closes in \d s/)).toBeVisible();
    await touched.mouse.move(50, 50);
    await expect(touched.getByText(/^Closes in \d s/)).toHaveCount(0);
  });
});

test('links, pictures, selections and all tabs of a window are saved from the browser’s menu', async ({ empty }) => {
  const app = await pairWith(browser, empty, 'Browser for menus');
  const tab = await tabAt(webPage('rough', '/strict/extension-menus'));

  await test.step('a link, without opening it', async () => {
    await browser.choose('link', tab, { linkUrl: webPage('rough', '/n/7701') });
    await goTo(app, 'Inbox');
    await expect(row(app, 'Page 7701')).toContainText('Page 7701');
  });

  await test.step('what is selected', async () => {
    const words = await tab.evaluate(() => {
      const paragraph = document.querySelectorAll('p')[1]!;
      getSelection()!.selectAllChildren(paragraph);
      return paragraph.textContent;
    });
    await browser.choose('selection', tab, { selectionText: words });
    const saved = row(app, /extension[ -]menus/i);
    await expect(saved).toBeVisible();
    await saved.getByRole('link').click();
    await expect(app.locator('.article')).toContainText(words.slice(0, 60));
    const whole = await tab.locator('body').innerText();
    expect(words.length).toBeLessThan(whole.length / 2);
    expect((await app.locator('.article').innerText()).length).toBeLessThan(whole.length);
  });

  await test.step('a picture', async () => {
    const article = await tabAt(webPage('tidewater', '/'));
    await article.getByRole('link').first().click();
    const figure = article.locator('figure').first();
    const caption = await figure.locator('figcaption').innerText();
    const src = await figure.locator('img').evaluate((image: HTMLImageElement) => image.currentSrc || image.src);
    await browser.choose('picture', article, { srcUrl: src });
    await goTo(app, 'Inbox');
    const saved = row(app, caption.slice(0, 30)).first();
    await expect(saved).toBeVisible();
    // With what its page says of it, and with a way to the page.
    await saved.getByRole('link').click();
    await expect(app.locator('.article figcaption')).toHaveText(caption);
    await expect(app.locator('.article blockquote a')).toHaveAttribute('href', article.url());
    const first = app.getByRole('list', { name: 'Colours' }).getByRole('button').first();
    const name = (await first.getAttribute('aria-label', { timeout: 60_000 }))!.split(',')[0]!;
    // When it has been looked at: the text is another one then.
    await app.getByRole('button', { name: 'Enlarge the picture' }).click();
    const view = app.locator('dialog.picture-view');
    await expect(view.getByRole('link', { name: 'Its source' })).toHaveAttribute('href', article.url());
    await view.getByRole('button', { name: 'Close the picture' }).click();
    await goTo(app, 'Library');
    await app.getByRole('searchbox', { name: 'Find' }).fill(`colour:"${name}" kind:picture`);
    await expect(row(app, caption.slice(0, 30)).first()).toBeVisible();
    await app.getByRole('searchbox', { name: 'Find' }).fill('');
  });

  await test.step('a part of what is on screen, cut out', async () => {
    await tab.bringToFront();
    await browser.choose('cut', tab);
    await expect.poll(() => tab.evaluate(() => document.documentElement.lastElementChild?.tagName)).toBe('DIV');
    await tab.mouse.move(40, 60);
    await tab.mouse.down();
    await tab.mouse.move(340, 210, { steps: 5 });
    await tab.mouse.up();
    await app.bringToFront();
    await goTo(app, 'Inbox');
    const saved = row(app, /^Part of “Crossing to Extension Menus”/i);
    await saved.getByRole('link').click();
    const picture = app.locator('.article img');
    await expect(picture).toBeVisible();
    await expect
      .poll(() => picture.evaluate((image: HTMLImageElement) => [image.naturalWidth, image.naturalHeight]))
      .toEqual([300, 150]);
    await expect(app.getByText(/^From .*\/strict\/extension-menus/)).toBeVisible();
  });

  await test.step('every tab, as one batch', async () => {
    for (const n of [7711, 7712, 7713]) await tabAt(webPage('rough', `/n/${n}`));
    const panel = await browser.press(tab);
    await panel.getByRole('button', { name: /^Save all \d+ tabs of this window/ }).click();
    await panel.getByLabel('As one batch, under a tag of its own').check();
    await panel.getByRole('button', { name: /^Save \d+ tabs/ }).click();
    await expect(panel.getByText(/^(\d+) of \1 saved\.$/)).toBeVisible();
    await goTo(app, 'Inbox');
    for (const n of [7711, 7712, 7713]) await expect(row(app, `Page ${n}`)).toContainText(/tabs\/\d{4}-/);
  });
});

test('what is saved without a connection waits, and goes to the account it was saved for', async ({ empty }) => {
  const app = await pairWith(browser, empty, 'Browser on a train');
  const tab = await tabAt(webPage('rough', '/strict/extension-train'));
  await browser.context.setOffline(true);
  const panel = await browser.press(tab);
  await expect(panel.getByRole('heading', { name: 'Saved here' })).toBeVisible();
  await expect(panel.getByText(/It is sent when there is a connection/)).toBeVisible();
  await panel.close();
  await browser.context.setOffline(false);
  const options = await browser.open('options.html');
  // What waits stands there as soon as the page does.
  await expect(options.getByRole('heading', { name: 'Dorvel in this browser' })).toBeVisible();
  const tryNow = options.getByRole('button', { name: 'Try now' });
  if (await tryNow.isVisible()) await tryNow.click();
  await expect(options.getByText('Not in your library yet')).toHaveCount(0);
  await goTo(app, 'Inbox');
  await expect(row(app, /extension[ -]train/i)).toBeVisible();

  await test.step('a revoked pairing keeps what waits', async () => {
    await app.goto(`${empty}/you/elsewhere`);
    await app.getByRole('button', { name: 'Revoke “Browser on a train”' }).click();
    await app.getByRole('button', { name: 'Revoke “Browser on a train” for good' }).click();
    await expect(app.getByRole('listitem').filter({ hasText: 'Browser on a train' })).toHaveCount(0);
    const late = await tabAt(webPage('rough', '/strict/extension-late'));
    const refused = await browser.press(late);
    await expect(refused.getByText(/The pairing was revoked/)).toBeVisible();
    await options.reload();
    await expect(options.getByText(/changes wait to be sent/)).toBeVisible();
    await app.getByLabel('Which browser it is in').fill('Browser after all');
    await app.getByRole('button', { name: 'Make a pairing code' }).click();
    const code = (await app.getByRole('note', { name: 'Pairing code' }).textContent()) ?? '';
    await options.getByLabel('Pairing code').fill('the wrong thing');
    await options.getByRole('button', { name: 'Pair', exact: true }).click();
    await expect(options.getByRole('alert')).toContainText('That is no pairing code');
    await options.getByLabel('Pairing code').fill(code);
    await options.getByRole('button', { name: 'Pair', exact: true }).click();
    await goTo(app, 'Inbox');
    await expect(row(app, /extension[ -]late/i)).toBeVisible();
  });
});

test('on a search that the reader has allowed, a line says what their library has on it', async ({ empty }) => {
  await pairWith(browser, empty, 'Browser for searches');
  const tab = await tabAt(webPage('rough', '/built/Fulmar'));
  const panel = await browser.press(tab);
  await expect(panel.getByText(/^Came through whole/)).toBeVisible();
  await panel.close();
  const search = webPage('rough', '/search?words=fulmar+swell');

  await test.step('nowhere, until it is allowed', async () => {
    const page = await tabAt(search);
    await expect(page.getByText('Nothing was found on the small web.')).toBeVisible();
    // Nothing of ours runs in pages yet.
    expect(await browser.worker.evaluate(async () => chrome.scripting.getRegisteredContentScripts())).toEqual([]);
    await expect(page.getByRole('complementary', { name: 'From your library' })).toHaveCount(0);
    await page.close();
  });

  const options = await browser.open('options.html');
  await options.getByLabel('Address of a search').fill(webPage('rough', '/search'));
  await options.getByRole('button', { name: 'Show the line there' }).click();
  await expect(options.getByRole('alert')).toContainText('with %s where the words stand');
  await options.getByLabel('Address of a search').fill(webPage('rough', '/search?words=%s'));
  await options.getByRole('button', { name: 'Show the line there' }).click();
  await expect(options.getByRole('listitem').filter({ hasText: '/search?words=%s' })).toBeVisible();
  const page = await tabAt(search);
  const line = page.getByRole('complementary', { name: 'From your library' });
  await expect(line).toBeVisible();
  await tabAt(webPage('rough', '/search?words=nothing+of+this+kind'));
});

test('panel and settings are accessible by day and by night', async ({ empty }) => {
  await pairWith(browser, empty, 'Browser for everybody');
  const tab = await tabAt(webPage('rough', '/built/Petrel'));
  const panel = await browser.press(tab);
  await expect(panel.getByText(/^Came through whole/)).toBeVisible();
  await panel.getByText('Another tag, title, note').click();
  const options = await browser.open('options.html');
  for (const [name, page] of Object.entries({ panel, options })) {
    await expectAccessible(page, name);
    await expectTargets(page, name);
  }
});

test('what is marked on a page stands in the saved copy, and is shown on the page when it is opened again', async ({
  empty,
}) => {
  const app = await pairWith(browser, empty, 'Browser for marks');
  const address = webPage('rough', '/strict/extension-marked');
  const tab = await tabAt(address);
  const words = 'If the flag on the pier is down the boat does not go.';
  const shown = (page: Page, kind: string) =>
    page.evaluate((name) => [...(CSS.highlights.get(name) ?? [])].map((range) => (range as Range).toString()), kind);

  await test.step('on a page that is not in the library yet', async () => {
    await tab.evaluate((sought) => {
      const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
      let node = walker.nextNode() as Text;
      while (!node.data.includes(sought)) node = walker.nextNode() as Text;
      const start = node.data.indexOf(sought);
      getSelection()!.setBaseAndExtent(node, start, node, start + sought.length);
    }, words);
    await browser.choose('mark-doubt', tab, { selectionText: words });
    // Under a policy that allows no styles too: nothing of the page is changed.
    await expect.poll(() => shown(tab, 'dorvel-doubt')).toEqual([words]);
    await tab.close();
  });

  await test.step('in the saved copy', async () => {
    await goTo(app, 'Inbox');
    const saved = row(app, /extension[ -]marked/i);
    await expect(saved.getByRole('img', { name: /min/ })).toBeVisible();
    await saved.getByRole('link').click();
    await expect.poll(() => shown(app, 'mark-doubt')).toEqual([words]);
  });

  await test.step('on the page itself, only when the reader wants that', async () => {
    const before = await tabAt(address);
    expect(await browser.worker.evaluate(async () => chrome.scripting.getRegisteredContentScripts())).toEqual([]);
    expect(await shown(before, 'dorvel-doubt')).toEqual([]);
    const options = await browser.open('options.html');
    await options.getByRole('button', { name: 'Show them on pages' }).click();
    await expect(options.getByRole('button', { name: 'Do not show them' })).toBeVisible();
    await expect
      .poll(() => browser.worker.evaluate(async () => (await chrome.scripting.getRegisteredContentScripts()).length))
      .toBe(1);
    const again = await tabAt(address);
    await expect.poll(() => shown(again, 'dorvel-doubt')).toEqual([words]);
    const asked: string[] = [];
    browser.context.on('request', (request) => asked.push(request.url()));
    const other = await tabAt(webPage('rough', '/strict/extension-unmarked'));
    await nextFrames(other, 30);
    // The server is not told of pages in which nothing is marked.
    expect(asked.filter((url) => url.includes('unmarked') && url.startsWith(empty))).toEqual([]);
    expect(await shown(other, 'dorvel-doubt')).toEqual([]);
  });
});
