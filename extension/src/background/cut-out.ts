import { fileAddress } from '@dorvel/core/address';
import { inBase64, inBase64Url } from '@dorvel/core/model';
import type { Cut, ToCut } from '../content/cut';
import { keepSave } from './changes';
import type { Saved } from './save';
import type { Pairing } from './storage';

/** Saves a part of what is on screen as a picture, with a note of where it was. Null when the reader thought better of it. */
export async function saveCutOut(pairing: Pairing, tab: chrome.tabs.Tab): Promise<Saved | null> {
  const cut = await drawnIn(tab.id);
  if (cut === null) return null;
  const shown = cut === 'not let in' ? null : await onScreen(tab.windowId);
  if (cut === 'not let in' || shown === null)
    return { ok: false, says: 'This page does not let us take its picture. Save the page instead.' };
  const picture = await cropped(shown, cut);
  const bytes = new Uint8Array(await picture.arrayBuffer());
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  const address = fileAddress(inBase64Url(hash));
  const title = `Part of “${tab.title ?? tab.url ?? 'a page'}”`.slice(0, 500);
  const itemId = await keepSave(pairing, {
    address,
    howMuch: 'picture',
    given: { type: 'image/png', body: inBase64(bytes), encoding: 'base64', name: 'cut-out.png' },
    title,
    note: `From ${tab.url ?? 'a page without an address'}`,
  });
  return { ok: true, itemId, title, address, asShown: true };
}

async function drawnIn(tabId: number | undefined): Promise<Cut | null | 'not let in'> {
  if (tabId === undefined) return 'not let in';
  try {
    await chrome.scripting.executeScript({ target: { tabId }, files: ['cut.js'] });
    const message: ToCut = { page: 'cut' };
    return await chrome.tabs.sendMessage<ToCut, Cut | null>(tabId, message);
  } catch (_notLetIn) {
    return 'not let in';
  }
}

async function onScreen(windowId: number): Promise<string | null> {
  try {
    return await chrome.tabs.captureVisibleTab(windowId, { format: 'png' });
  } catch (_notLetIn) {
    return null;
  }
}

async function cropped(shown: string, { x, y, width, height, scale }: Cut): Promise<Blob> {
  const whole = await createImageBitmap(await (await fetch(shown)).blob());
  const [across, down] = [Math.round(width * scale), Math.round(height * scale)];
  const canvas = new OffscreenCanvas(across, down);
  canvas
    .getContext('2d')
    ?.drawImage(whole, Math.round(x * scale), Math.round(y * scale), across, down, 0, 0, across, down);
  return canvas.convertToBlob({ type: 'image/png' });
}
