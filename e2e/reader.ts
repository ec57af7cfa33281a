import type { Item } from '@dorvel/core/model';
import { expect, type Page } from '@playwright/test';
import { SMALL_WEB_PORT } from './ports';

/** What a reader does, in the words of the screen. */

export async function signIn(page: Page, origin: string): Promise<void> {
  await page.goto(`${origin}/`);
  await page.getByRole('button', { name: 'Fill in the demo account' }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Now', level: 1 })).toBeVisible();
  await goTo(page, 'Inbox');
}

type Place = 'Now' | 'Inbox' | 'Queue' | 'Library' | 'You';

export async function goTo(page: Page, place: Place): Promise<void> {
  const link = page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: new RegExp(`^${place}`) });
  // On a phone the bar has room for four places; the fifth is at the head of the first.
  if (place === 'You' && (await link.count()) === 0) {
    await goTo(page, 'Now');
    await page.getByRole('button', { name: 'You', exact: true }).click();
  } else await link.click();
  await expect(page.getByRole('heading', { name: place, level: 1 })).toBeVisible();
}

/** Opens what You leads to by this name. */
export async function openInYou(page: Page, name: string): Promise<void> {
  await goTo(page, 'You');
  await page.getByRole('link', { name: new RegExp(`^${name}`) }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

/** Opens an item of the Library by its title, wherever in the list it stands: rows that are far away are not drawn. */
export async function openText(page: Page, title: string): Promise<void> {
  await goTo(page, 'Library');
  await page.getByRole('searchbox', { name: 'Find' }).fill(`"${title}"`);
  await page
    .getByRole('link', { name: new RegExp(title, 'i') })
    .first()
    .click();
  await expect(page.getByTestId('reader')).toBeVisible();
}

/** Opens the article of the demo that has every kind of element, footnotes among them. */
export const openEverything = (page: Page) => openText(page, 'Tides and their terms');

export async function save(page: Page, address: string): Promise<void> {
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  const sheet = page.getByRole('dialog', { name: 'Save an address' });
  await sheet.getByLabel('Address of a page').fill(address);
  await sheet.getByRole('button', { name: 'Save', exact: true }).click();
}

/** The row of an item in the list that is on screen. */
export function row(page: Page, title: string | RegExp) {
  return page.getByRole('listitem').filter({ hasText: title });
}

/** Scrolls the article as a mouse wheel does, to a fraction of the way. */
export async function readTo(page: Page, fraction: number): Promise<void> {
  const reader = page.getByTestId('reader');
  await expect(reader).toBeVisible();
  const box = await reader.boundingBox();
  if (!box) throw new Error('the reader is not on screen');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  const before = await lastPlace(page);
  const step = () =>
    reader.evaluate((view, to) => to * (view.scrollHeight - view.clientHeight) - view.scrollTop, fraction);
  for (let tries = 0; tries < 60; tries++) {
    const left = await step();
    if (Math.abs(left) < 4) break;
    await page.mouse.wheel(0, left);
    await nextFrames(page, 4);
  }
  // Where they have stayed for long enough is recorded, unless it was the place already.
  await expect
    .poll(() => lastPlace(page), { timeout: 3000 })
    .not.toBe(before)
    .catch(() => undefined);
}

/** When a place in a text was recorded last. */
async function lastPlace(page: Page): Promise<string> {
  const items = await stored<Item>(page, 'items');
  return items.reduce((last, { progress: { position } }) => (position && position.at > last ? position.at : last), '');
}

/** Lets the page draw so often: for what the browser does by itself, and tells nobody of. */
export async function nextFrames(page: Page, count: number): Promise<void> {
  await page.evaluate(
    (frames) =>
      new Promise<void>((done) => {
        const draw = (left: number) => (left === 0 ? done() : requestAnimationFrame(() => draw(left - 1)));
        draw(frames);
      }),
    count,
  );
}

/** Moves by keys what has the focus in a list that can be put in order, each key when the one before has been told of. */
export async function pressAndHear(page: Page, keys: readonly string[]): Promise<void> {
  const live = page.locator('[id^=DndLiveRegion]').first();
  for (const key of keys) {
    const before = await live.textContent();
    await page.keyboard.press(key);
    await expect(live).not.toHaveText(before ?? '');
    // Rows slide to their places.
    await nextFrames(page, 20);
  }
}

/** Posts to the host `rough` of the small web. Not every system resolves names under .localhost: the header names it. */
export async function postToRough(page: Page, path: string): Promise<void> {
  const answer = await page.request.post(`http://127.0.0.1:${SMALL_WEB_PORT}${path}`, {
    headers: { host: `rough.localhost:${SMALL_WEB_PORT}` },
  });
  expect(answer.ok()).toBe(true);
}

/** All that a table of the device's store holds. */
export async function stored<Row>(page: Page, table: 'items' | 'notes' | 'outbox'): Promise<Row[]> {
  return page.evaluate(async (name) => {
    const [database] = (await indexedDB.databases())
      .map((each) => each.name)
      .filter((each) => each?.startsWith('dorvel-'));
    return new Promise<Row[]>((resolve, reject) => {
      const opened = indexedDB.open(database ?? '');
      opened.onerror = () => reject(new Error('cannot open the store'));
      opened.onsuccess = () => {
        const all = opened.result.transaction(name).objectStore(name).getAll();
        all.onsuccess = () => {
          opened.result.close();
          resolve(all.result as Row[]);
        };
      };
    });
  }, table);
}

/** Where in the article's text the reading line stands, found by the browser's own hit test. */
export async function placeAtLine(page: Page): Promise<{ offset: number; length: number }> {
  return page.getByTestId('reader').evaluate((view) => {
    const article = view.querySelector('.article')!;
    const most = view.scrollHeight - view.clientHeight;
    const line = view.getBoundingClientRect().top + (view.scrollTop / most) * view.clientHeight;
    const left = article.getBoundingClientRect().left + 4;
    const walker = document.createTreeWalker(article, NodeFilter.SHOW_TEXT);
    let before = 0;
    let offset = 0;
    let found = false;
    for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
      const range = document.createRange();
      for (let at = 0; at < node.length && !found; at++) {
        range.setStart(node, at);
        range.setEnd(node, at + 1);
        const box = range.getBoundingClientRect();
        if (box.bottom > line && box.left >= left - 8) {
          offset = before + at;
          found = true;
        }
      }
      before += node.length;
    }
    return { offset: found ? offset : before, length: before };
  });
}

/** Puts a tag on an item of a list. */
export async function tag(page: Page, title: string | RegExp, name: string): Promise<void> {
  await row(page, title)
    .getByRole('button', { name: /^What to do with/ })
    .click();
  await page.getByRole('button', { name: /^Tags/ }).click();
  await page.getByRole('textbox', { name: 'Tag', exact: true }).fill(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: `Take off ${name}` })).toBeVisible();
  await page.keyboard.press('Escape');
}
