import { HighlightKind } from '@dorvel/core/model';
import { HIGHLIGHT_KIND_WORDS } from '@dorvel/core/wording';
import { saveCutOut } from './cut-out';
import { markSelected } from './live-highlights';
import { type Saved, saveLink, savePicture, saveSelection, saveTab } from './save';
import { type Pairing, storage } from './storage';

type Click = chrome.contextMenus.OnClickData;
type Tab = chrome.tabs.Tab;

interface Choice {
  title: string;
  contexts: [`${chrome.contextMenus.ContextType}`, ...`${chrome.contextMenus.ContextType}`[]];
  /** What it saves, as the panel says it. */
  what: string;
  /** Null when nothing was to be saved after all. */
  save(pairing: Pairing, click: Click, tab: Tab): Promise<Saved | null>;
}

/** What the browser's own menu offers, by id. */
const CHOICES: Readonly<Record<string, Choice>> = {
  page: {
    title: 'Save this page',
    contexts: ['page'],
    what: 'page',
    save: async (pairing, _click, tab) => saveTab(pairing, tab, (await storage.settings()).howMuch),
  },
  link: {
    title: 'Save what this link leads to',
    contexts: ['link'],
    what: 'link',
    save: async (pairing, { linkUrl }) => saveLink(pairing, linkUrl ?? '', (await storage.settings()).howMuch),
  },
  picture: {
    title: 'Save this picture',
    contexts: ['image'],
    what: 'picture',
    save: (pairing, { srcUrl }, tab) =>
      /^https?:/.test(srcUrl ?? '')
        ? savePicture(pairing, tab, srcUrl ?? '')
        : Promise.resolve({
            ok: false,
            says: 'This picture has no address of its own. Save the page instead.',
          }),
  },
  cut: {
    title: 'Cut out a part of what you see',
    contexts: ['page', 'image'],
    what: 'cut-out',
    save: (pairing, _click, tab) => saveCutOut(pairing, tab),
  },
  selection: {
    title: 'Save the selected part',
    contexts: ['selection'],
    what: 'selected part',
    save: (pairing, _click, tab) => saveSelection(pairing, tab),
  },
  ...Object.fromEntries(
    HighlightKind.options.map((kind): [string, Choice] => [
      `mark-${kind}`,
      {
        title: `Mark it: ${HIGHLIGHT_KIND_WORDS[kind]}`,
        contexts: ['selection'],
        what: 'mark',
        save: (pairing, _click, tab) => markSelected(pairing, tab, kind),
      },
    ]),
  ),
};

/**
 * Puts our lines into the menu of pages, links, pictures and selections.
 *
 * @param saved told of each save
 */
export function offerMenus(saved: (saved: Saved, what: string) => void): void {
  chrome.runtime.onInstalled.addListener(() => {
    void chrome.contextMenus.removeAll().then(() => {
      for (const [id, { title, contexts }] of Object.entries(CHOICES))
        chrome.contextMenus.create({ id, title, contexts });
    });
  });
  chrome.contextMenus.onClicked.addListener((click, tab) => {
    const choice = CHOICES[click.menuItemId];
    if (choice && tab) void take(choice, click, tab, saved);
  });
}

async function take(
  choice: Choice,
  click: Click,
  tab: Tab,
  saved: (saved: Saved, what: string) => void,
): Promise<void> {
  const pairing = await storage.pairing();
  if (!pairing) {
    await chrome.runtime.openOptionsPage();
    return;
  }
  const result = await choice.save(pairing, click, tab);
  if (!result) return;
  saved(result, choice.what);
  await confirm(result);
}

/** Opens the panel over what was saved; where the browser has no panel to open, the button says it. */
async function confirm(result: Saved): Promise<void> {
  try {
    await chrome.action.openPopup();
  } catch (_noWindow) {
    await chrome.action.setBadgeText({ text: result.ok ? 'in' : '!' });
    setTimeout(() => void chrome.action.setBadgeText({ text: '' }), 5000);
  }
}
