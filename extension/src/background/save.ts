import { isOnWeb, readAddress } from '@dorvel/core/address';
import { type GivenText, type HowMuch, tagKey } from '@dorvel/core/model';
import escapeHtml from 'escape-html';
import { type AboutPicture, aboutPicture } from '../content/about-picture';
import { pageAsShown, type Shown } from '../content/as-shown';
import { keepHowMuch, keepSave } from './changes';
import { type Pairing, storage } from './storage';

/** What the panel is told of a save. */
export type Saved =
  | { ok: true; itemId: string; title: string; address: string; asShown: boolean }
  /** `says` is for the reader. */
  | { ok: false; says: string };

/** A page that does not answer for so long is saved by its address. */
const PATIENCE_MS = 5000;

type Tab = Pick<chrome.tabs.Tab, 'id' | 'url' | 'title'>;

const shownIn = (tabId: number, only: 'selection' | null): Promise<Shown | null> => askedIn(tabId, pageAsShown, [only]);

/** What a function says that runs in a page; null where it may not, or takes too long. */
async function askedIn<Args extends unknown[], Answer>(
  tabId: number,
  func: (...args: Args) => Answer,
  args: Args,
): Promise<Awaited<Answer> | null> {
  const asked = chrome.scripting
    .executeScript({ target: { tabId }, func, args })
    .then(([answer]) => answer?.result ?? null)
    // Pages that belong to the browser, and those that we were not let into: their address is all there is.
    .catch(() => null);
  const patience = new Promise<null>((resolve) => setTimeout(() => resolve(null), PATIENCE_MS));
  return Promise.race([asked, patience]);
}

function asGiven(html: string | undefined): GivenText | undefined {
  return html?.trim() ? { type: 'text/html', body: html, encoding: 'utf8' } : undefined;
}

/** Saves what a tab shows. */
export async function saveTab(
  pairing: Pairing,
  tab: Tab,
  howMuch: HowMuch,
  tags?: Record<string, string>,
): Promise<Saved> {
  const shown = tab.id === undefined || howMuch === 'address-only' ? null : await shownIn(tab.id, null);
  const reading = readAddress(shown?.address ?? tab.url ?? '');
  if (!reading.ok || !isOnWeb(reading.address))
    return { ok: false, says: 'This is a page of the browser’s own: there is no address to come back to.' };
  const given = asGiven(shown?.html);
  const itemId = await keepSave(pairing, {
    address: reading.address,
    howMuch,
    ...(given ? { given } : {}),
    ...(tags ? { tags } : {}),
  });
  const title = [shown?.title, tab.title].find((each) => each?.trim()) ?? reading.address;
  return { ok: true, itemId, title, address: reading.address, asShown: given !== undefined };
}

/** Saves a page without opening it. */
export async function saveLink(pairing: Pairing, address: string, howMuch: HowMuch): Promise<Saved> {
  const reading = readAddress(address);
  if (!reading.ok) return { ok: false, says: reading.says };
  const itemId = await keepSave(pairing, { address: reading.address, howMuch });
  return { ok: true, itemId, title: reading.address, address: reading.address, asShown: false };
}

/** Saves a picture with what its page says of it: its caption, its description, the words before it, and where it stands. */
export async function savePicture(pairing: Pairing, tab: Tab, src: string): Promise<Saved> {
  const reading = readAddress(src);
  if (!reading.ok) return { ok: false, says: reading.says };
  const about = tab.id === undefined ? null : await askedIn(tab.id, aboutPicture, [src]);
  const title = about === null ? '' : about.caption || about.alt;
  const itemId = await keepSave(pairing, {
    address: reading.address,
    howMuch: 'picture',
    ...(about ? { given: pictureAsGiven(reading.address, about, tab.url ?? '') } : {}),
  });
  return { ok: true, itemId, title: title || reading.address, address: reading.address, asShown: false };
}

/** A picture as core/extract takes it: see givenPictures. */
function pictureAsGiven(src: string, { alt, caption, around, title }: AboutPicture, page: string): GivenText {
  const figure = `<figure><img src="${escapeHtml(src)}" alt="${escapeHtml(alt)}"><figcaption>${escapeHtml(caption)}</figcaption></figure>`;
  const link = isOnWeb(page) ? `<p><a href="${escapeHtml(page)}">${escapeHtml(title || page)}</a></p>` : '';
  const quote = `<blockquote><p>${escapeHtml(around)}</p>${link}</blockquote>`;
  const name = caption || alt;
  return { type: 'text/html', body: `<title>${escapeHtml(name)}</title>${figure}${quote}`, encoding: 'utf8' };
}

/** Saves the part of a page that is selected. */
export async function saveSelection(pairing: Pairing, tab: Tab): Promise<Saved> {
  const shown = tab.id === undefined ? null : await shownIn(tab.id, 'selection');
  const given = asGiven(shown?.html);
  if (!shown || !given) return { ok: false, says: 'Nothing is selected here, or the page does not let us read it.' };
  const { address, title } = shown;
  const itemId = await keepSave(pairing, { address, howMuch: 'selected-part', given });
  return { ok: true, itemId, title: title.trim() === '' ? address : title, address, asShown: true };
}

/** Takes the page again, to keep another amount of it. */
export async function saveOtherwise(
  pairing: Pairing,
  itemId: string,
  tabId: number | null,
  howMuch: HowMuch,
): Promise<void> {
  const shown = tabId === null || howMuch === 'address-only' ? null : await shownIn(tabId, null);
  await keepHowMuch(pairing, itemId, howMuch, asGiven(shown?.html));
}

/** How far the saving of a window's tabs is. */
export interface Batch {
  done: number;
  of: number;
  itemIds: string[];
  failed: { title: string; says: string }[];
  /** What all of them were tagged with. */
  tag: string | null;
  stopped: boolean;
}

/** The saving of tabs that is under way; false ends it. */
let goesOn = false;

export function stopBatch(): void {
  goesOn = false;
}

/** Saves every tab of a window, one after another. What is saved by the time that it is stopped stays. */
export async function saveWindow(
  pairing: Pairing,
  windowId: number,
  tag: string | null,
  say: (batch: Batch) => Promise<void>,
): Promise<Batch> {
  goesOn = true;
  const { howMuch } = await storage.settings();
  const tabs = (await chrome.tabs.query({ windowId })).filter(({ url }) => /^https?:/.test(url ?? ''));
  const batch: Batch = { done: 0, of: tabs.length, itemIds: [], failed: [], tag, stopped: false };
  await say(batch);
  for (const tab of tabs) {
    // It is asked again at each tab: a press elsewhere ends it.
    if (!isGoingOn()) {
      batch.stopped = true;
      break;
    }
    const saved = await saveTab(pairing, tab, howMuch, tag === null ? undefined : { [tagKey(tag)]: tag });
    if (saved.ok) batch.itemIds.push(saved.itemId);
    else batch.failed.push({ title: tab.title ?? tab.url ?? '', says: saved.says });
    batch.done += 1;
    await say(batch);
  }
  return batch;
}

const isGoingOn = () => goesOn;
