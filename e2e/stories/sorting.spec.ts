import { expect, test, type Page } from '@playwright/test';
import { page as webPage, SORTING_PORTS } from '../ports';
import { signIn } from '../reader';
import { ownServer, type OwnServer } from '../service/own-server';

const PILE = 22;
const DECIDED = 20;

/** Puts changes into the library as another device of the reader's would. */
async function push(page: Page, mutations: object[]): Promise<void> {
  const status = await page.evaluate(
    async (body) =>
      (
        await fetch('/api/sync/push', {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      ).status,
    { mutations },
  );
  expect(status).toBe(200);
}

/** Later than any stamp of the devices under test. */
const stamp = (n: number) => `${(Date.now() + 1000 + n).toString(36).padStart(9, '0')}-0000-pile`;
const id = () => crypto.randomUUID();

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
  await push(
    page,
    items.map(({ n, itemId }) => ({
      type: 'save',
      id: id(),
      itemId,
      address: webPage('rough', `/turning/pile-${project.name}-${n}`),
      savedAt: Date.now() + n,
      howMuch: 'address-only',
      stamp: stamp(n),
    })),
  );
  const waiting = async () =>
    Number(/\d+/.exec((await page.getByText(/^\d+ to decide/).textContent()) ?? '')?.[0]);
  await expect.poll(waiting).toBe(PILE);
  await page.getByRole('button', { name: 'Sort, one at a time' }).click();
  const card = page.getByRole('article');
  await expect(card).toBeVisible();

  const decide = {
    queue: () => (byTouch ? swipe(page, 160) : page.keyboard.press('q')),
    keep: () =>
      byTouch ? page.getByRole('button', { name: 'Keep', exact: true }).tap() : page.keyboard.press('k'),
    letGo: () => (byTouch ? swipe(page, -160) : page.keyboard.press('x')),
  };
  for (let n = 0; n < DECIDED; n++) {
    await decide[(['queue', 'keep', 'letGo'] as const)[n % 3] ?? 'queue']();
    await expect.poll(waiting).toBe(PILE - n - 1);
  }

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
