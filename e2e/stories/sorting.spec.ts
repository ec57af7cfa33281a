import type { Item } from '@dorvel/core/model';
import { PROTOCOL, PROTOCOL_HEADER } from '@dorvel/core/sync';
import { expect, type Page, test } from '@playwright/test';
import { type OwnServer, ownServer } from '../own-server';
import { BULK_PORTS, page as webPage, SORTING_PORTS } from '../ports';
import { goTo, nextFrames, pressAndHear, row, signIn, stored } from '../reader';

const PILE = 22;
const DECIDED = 20;

/** Puts changes into the library as another device of the reader's would. */
async function push(page: Page, mutations: object[]): Promise<void> {
  const status = await page.evaluate(
    async ({ headers, ...body }) =>
      (
        await fetch('/api/sync/push', {
          method: 'POST',
          headers,
          body: JSON.stringify(body),
        })
      ).status,
    {
      mutations,
      headers: { 'content-type': 'application/json', [PROTOCOL_HEADER]: String(PROTOCOL) },
    },
  );
  expect(status).toBe(200);
}

/** Later than any stamp of the devices under test. */
const stamp = (n: number) => `${(Date.now() + 1000 + n).toString(36).padStart(9, '0')}-0000-pile`;
const id = () => crypto.randomUUID();

/** Puts items into the Inbox, by their addresses only. */
async function pile(page: Page, items: readonly { n: number; itemId: string }[], name: string): Promise<void> {
  await push(
    page,
    items.map(({ n, itemId }) => ({
      type: 'save',
      id: id(),
      itemId,
      address: webPage('rough', `/turning/pile-${name}-${n}`),
      savedAt: Date.now() + n,
      howMuch: 'address-only',
      stamp: stamp(n),
    })),
  );
}

async function swipe(page: Page, across: number): Promise<void> {
  const card = page.getByRole('article');
  const box = await card.boundingBox();
  if (!box) throw new Error('no card');
  const [x, y] = [box.x + box.width / 2, box.y + 60];
  const at = (dx: number) => [{ identifier: 1, pageX: x + dx, pageY: y, clientX: x + dx, clientY: y }];
  await card.dispatchEvent('touchstart', { touches: at(0), changedTouches: at(0), targetTouches: at(0) });
  await card.dispatchEvent('touchend', { touches: [], changedTouches: at(across), targetTouches: [] });
}

/** A library of its own: other stories would put things into it. */
let server: OwnServer | undefined;
test.afterEach(() => server?.clear());

test('twenty things are decided on, one at a time: by touch alone on a phone, by keys alone on a desk', async ({
  page,
}, { project }) => {
  const byTouch = project.name === 'phone';
  const own = (server = ownServer(byTouch ? SORTING_PORTS.phone : SORTING_PORTS.wide, { DORVEL_DEMO: '1' }));
  await own.start();
  const items = Array.from({ length: PILE }, (_, n) => ({ n, itemId: id() }));
  await signIn(page, own.origin);
  await pile(page, items, project.name);
  const waiting = async () => Number(/\d+/.exec((await page.getByText(/^\d+ to decide/).textContent()) ?? '')?.[0]);
  await expect.poll(waiting).toBe(PILE);
  await page.getByRole('button', { name: 'Sort, one at a time' }).click();
  const card = page.getByRole('article');
  await expect(card).toBeVisible();

  const decide = {
    queue: () => (byTouch ? swipe(page, 160) : page.keyboard.press('q')),
    keep: () => (byTouch ? page.getByRole('button', { name: 'Keep', exact: true }).tap() : page.keyboard.press('k')),
    letGo: () => (byTouch ? swipe(page, -160) : page.keyboard.press('x')),
  };
  for (let n = 0; n < DECIDED; n++) {
    await decide[(['queue', 'keep', 'letGo'] as const)[n % 3] ?? 'queue']();
    await expect.poll(waiting).toBe(PILE - n - 1);
  }

  await test.step('each went where it was sent', async () => {
    const stages = (await stored<Item>(page, 'items')).map(({ choices }) => choices.stage.value);
    const count = (stage: string) => stages.filter((each) => each === stage).length;
    expect([count('queue'), count('kept'), count('let-go'), count('inbox')]).toEqual([7, 7, 6, 2]);
  });

  await test.step('a tap and a stroke down the card decide nothing', async () => {
    if (!byTouch) return;
    await card.tap();
    await swipe(page, 20);
    await nextFrames(page, 10);
    expect(await waiting()).toBe(PILE - DECIDED);
  });

  await test.step('the last one is taken back, left for later, and put among others', async () => {
    const undo = page.getByRole('button', { name: 'Undo' });
    if (byTouch) await undo.tap();
    else await page.keyboard.press('u');
    await expect.poll(waiting).toBe(PILE - DECIDED + 1);
    const title = await card.getByRole('heading').textContent();
    const tag = page.getByRole('button', { name: 'Tag…' });
    await (byTouch ? tag.tap() : page.keyboard.press('g'));
    await page.getByLabel('Tag', { exact: true }).fill(`pile ${project.name}`);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog').getByRole('button', { name: /^Take off pile/ })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(card.getByRole('button', { name: /^Take off pile/ })).toBeVisible();
    await (byTouch ? page.getByRole('button', { name: 'Later' }).tap() : page.keyboard.press('z'));
    await expect(card.getByRole('heading')).not.toHaveText(title ?? '');
  });
});

test('many are decided on at once in a table, and the Queue is put in another order', async ({ page }, { project }) => {
  const own = (server = ownServer(project.name === 'phone' ? BULK_PORTS.phone : BULK_PORTS.wide, {
    DORVEL_DEMO: '1',
  }));
  await own.start();
  await signIn(page, own.origin);
  const items = Array.from({ length: 9 }, (_, n) => ({ n, itemId: id() }));
  await pile(page, items, 'bulk');
  await expect(page.getByText('9 to decide')).toBeVisible();
  const title = (n: number) => new RegExp(`Crossing to Pile Bulk ${n}|pile-bulk-${n}`, 'i');

  if (project.name === 'wide')
    await test.step('in a table, by pointer and by keys', async () => {
      await page.getByRole('button', { name: 'Sort in bulk' }).click();
      const grid = page.getByRole('grid', { name: 'Inbox' });
      const line = (n: number) => grid.getByRole('row').filter({ hasText: title(n) });
      await expect(line(0)).toBeVisible();
      const selected = page.getByRole('status').filter({ hasText: /selected/ });
      await line(8).click();
      await line(6).click({ modifiers: ['Shift'] });
      await expect(selected).toHaveText('3 selected');
      await page.keyboard.press('q');
      await expect(page.getByText('3: Moved to Queue.')).toBeVisible();
      await expect(page.getByText('6 to decide')).toBeVisible();
      await page.keyboard.press('u');
      await expect(page.getByText('9 to decide')).toBeVisible();
      await line(8).click();
      await page.keyboard.press('Shift+ArrowDown');
      await page.keyboard.press('Shift+ArrowDown');
      await expect(selected).toHaveText('3 selected');
      await page.keyboard.press('q');
      await expect(page.getByText('6 to decide')).toBeVisible();
      // The keys go on where they were: the row that took the place of those that went.
      await page.keyboard.press('ArrowDown');
      await page.keyboard.press(' ');
      await page.keyboard.press('k');
      await expect(page.getByText(/^[56] to decide/)).toBeVisible();

      await line(0).click();
      await page.getByRole('button', { name: 'Tag…' }).click();
      await page.getByLabel('Tag', { exact: true }).fill('boats/post');
      await page.keyboard.press('Enter');
      await expect(line(0)).toContainText('boats/post');
      const target = page.getByRole('button', { name: 'Put boats/post on the selected' });
      const [from, to] = [await line(1).boundingBox(), await target.boundingBox()];
      await page.mouse.move(from!.x + 200, from!.y + 20);
      await page.mouse.down();
      await page.mouse.move(from!.x + 240, from!.y + 30, { steps: 4 });
      await page.mouse.move(to!.x + 40, to!.y + 20, { steps: 8 });
      await page.mouse.up();
      await expect(line(1)).toContainText('boats/post');
      await grid.getByRole('button', { name: 'Tags' }).click();
      await grid.getByRole('button', { name: 'Tags' }).click();
      await expect(grid.getByRole('row').nth(1)).toContainText('boats/post');
    });
  else
    await test.step('one at a time, on a phone', async () => {
      await page.getByRole('button', { name: 'Sort, one at a time' }).click();
      for (let n = 0; n < 3; n++) {
        const card = page.getByRole('article');
        const before = await card.textContent();
        await swipe(page, 160);
        await expect(card).not.toHaveText(before ?? '');
      }
      await page.goto(`${own.origin}/queue`);
    });

  await test.step('the order of the Queue', async () => {
    await goTo(page, 'Queue');
    await page.getByRole('button', { name: 'Reorder' }).click();
    const places = page.getByRole('list', { name: 'Order of the Queue' }).getByRole('listitem');
    await expect(places).toHaveCount(3);
    const order = () =>
      places.allInnerTexts().then((all) => all.map((each) => /\d(?=\D*$|\n)/.exec(each.split('\n')[0]!)?.[0]));
    const before = await order();
    const handle = (at: number) => places.nth(at).getByRole('button', { name: /^Move/ });
    // By keys: taken, moved one down, put down.
    await handle(0).focus();
    await pressAndHear(page, [' ', 'ArrowDown', ' ']);
    await expect.poll(order).toEqual([before[1], before[0], before[2]]);
    // By pointer: the last goes to the top.
    const [from, to] = [await handle(2).boundingBox(), await handle(0).boundingBox()];
    await page.mouse.move(from!.x + 20, from!.y + 20);
    await page.mouse.down();
    await page.mouse.move(from!.x + 20, from!.y - 10, { steps: 4 });
    await page.mouse.move(to!.x + 20, to!.y + 8, { steps: 10 });
    await page.mouse.up();
    await expect.poll(order).toEqual([before[2], before[1], before[0]]);
    // Said when it is written down, which leaving the page at once would not wait for.
    await expect(page.getByText(/^Next in the Queue: /)).toBeVisible();
    await page.goto(`${own.origin}/queue`);
    await expect(page.getByRole('list', { name: 'Queue' }).getByRole('listitem').first()).toContainText(
      title(Number(before[2])),
    );
    await expect(row(page, title(Number(before[0])))).toBeVisible();
  });
});

test('in a long list what has changed stands once, in its place', async ({ page }, { project }) => {
  const own = (server = ownServer(project.name === 'phone' ? BULK_PORTS.phone : BULK_PORTS.wide, {
    ...{ DORVEL_DEMO: '1', DORVEL_RETRY_WAITS: '' },
  }));
  await own.start();
  await signIn(page, own.origin);
  // A list so long that it is not sorted anew for a change.
  const items = Array.from({ length: 130 }, (_, n) => ({ n, itemId: id() }));
  await push(
    page,
    items.map(({ n, itemId }) => ({
      ...{ type: 'save', id: id(), itemId, howMuch: 'address-only', stamp: stamp(n) },
      ...{ address: `https://long.example/wreck-${n}-of-130`, savedAt: Date.now() + n },
    })),
  );
  await goTo(page, 'Inbox');
  await expect(page.getByText('130 to decide')).toBeVisible();
  const wreck = (n: number) => row(page, new RegExp(`wreck.${n}.of.130`, 'i'));
  for (const [n, choice] of [
    [129, 'Queue'],
    [128, 'Finished'],
  ] as const) {
    await wreck(n)
      .getByRole('button', { name: /^What to do with/ })
      .click();
    await page.getByRole('dialog').getByRole('button', { name: choice, exact: true }).click();
    await expect(page.getByText(`${n} to decide`)).toBeVisible();
  }
  await goTo(page, 'Library');
  await expect(page.getByText('130 items', { exact: true })).toBeVisible();
  await push(page, [
    {
      type: 'choose',
      id: id(),
      itemId: items[127]!.itemId,
      stamp: stamp(500),
      set: { title: 'The wreck off the mole' },
    },
  ]);
  await expect(row(page, 'The wreck off the mole')).toHaveCount(1);
  await expect(page.getByText('130 items', { exact: true })).toBeVisible();
  await expect(wreck(129)).toHaveCount(1);
});
