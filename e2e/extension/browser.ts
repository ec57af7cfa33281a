import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type BrowserContext, chromium, expect, type Page, type Worker } from '@playwright/test';
import { CHROMIUM_WORDS, executablePath } from '../chromium';
import { signIn } from '../reader';

const folder = path.resolve(import.meta.dirname, '../../extension/dist/granted');

/** A browser with the extension in it, as a reader has it. */
export interface ExtendedBrowser {
  context: BrowserContext;
  /** The extension's background. */
  worker: Worker;
  /** Opens a page of the extension. */
  open(page: 'options.html' | `panel.html${string}`): Promise<Page>;
  /** The button's panel over a tab: a button of the browser's own cannot be pressed, so the panel is told which tab it is over. */
  press(tab: Page): Promise<Page>;
  /** Chooses a line of the browser's own menu, which cannot be opened: its event is sent instead. */
  choose(line: string, tab: Page, over?: object): Promise<void>;
  end(): Promise<void>;
}

export async function extendedBrowser(): Promise<ExtendedBrowser> {
  const data = mkdtempSync(path.join(tmpdir(), 'dorvel-browser-'));
  const context = await chromium.launchPersistentContext(data, {
    ...(executablePath ? { executablePath } : {}),
    args: [...CHROMIUM_WORDS, `--disable-extensions-except=${folder}`, `--load-extension=${folder}`],
    ignoreDefaultArgs: ['--disable-extensions'],
    viewport: { width: 1280, height: 800 },
  });
  const worker = context.serviceWorkers()[0] ?? (await context.waitForEvent('serviceworker'));
  const origin = `chrome-extension://${new URL(worker.url()).host}`;
  const tabOf = (page: Page) =>
    worker.evaluate(async (url) => {
      const [tab] = (await chrome.tabs.query({})).filter((each) => each.url === url);
      if (tab?.id === undefined) throw new Error(`no tab shows ${url}`);
      return { id: tab.id, url: tab.url ?? '', title: tab.title ?? '' };
    }, page.url());
  const open: ExtendedBrowser['open'] = async (name) => {
    const page = await context.newPage();
    await page.goto(`${origin}/${name}`);
    return page;
  };
  return {
    context,
    worker,
    open,
    async press(tab) {
      const { id } = await tabOf(tab);
      return open(`panel.html?tab=${id}`);
    },
    async choose(line, tab, over = {}) {
      const click = { menuItemId: line, pageUrl: tab.url(), editable: false, ...over };
      await worker.evaluate(
        ([info, where]) =>
          (chrome.contextMenus.onClicked as unknown as { dispatch(...words: unknown[]): void }).dispatch(info, where),
        [click, await tabOf(tab)] as const,
      );
    },
    async end() {
      await context.close();
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** Signs in to a library in this browser, makes a pairing code there, and puts it into the extension. @returns the page of the app */
export async function pairWith(browser: ExtendedBrowser, origin: string, name: string): Promise<Page> {
  const app = await browser.context.newPage();
  await signIn(app, origin);
  await app.goto(`${origin}/you/elsewhere`);
  await app.getByLabel('Which browser it is in').fill(name);
  await app.getByRole('button', { name: 'Make a pairing code' }).click();
  const code = (await app.getByRole('note', { name: 'Pairing code' }).textContent()) ?? '';
  const options = await browser.open('options.html');
  await options.getByLabel('Pairing code').fill(code);
  await options.getByRole('button', { name: 'Pair', exact: true }).click();
  await expect(options.getByRole('status')).toContainText('It saves to the library of Ines Tavora-Holm');
  // Tests take longer to look than readers do.
  await options.getByLabel('The panel stays for').selectOption('Until I close it');
  await options.close();
  return app;
}
