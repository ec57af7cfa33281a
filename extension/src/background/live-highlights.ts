import { canonicalAddress, readAddress } from '@dorvel/core/address';
import type { HighlightKind, MarkedPassage } from '@dorvel/core/model';
import type { ToPage } from '../content/marks';
import type { LiveHighlight } from '../messages';
import { keepHighlight } from './changes';
import { send } from './outbox';
import { EVERYWHERE, keepInPages } from './page-scripts';
import { type Saved, saveTab } from './save';
import { serverAt } from './server';
import { type Pairing, storage } from './storage';

/** For so long it is taken for known in which pages something is marked. */
const KNOWN_MS = 5 * 60 * 1000;

/** The pages in which something is marked: asked for as a whole, so that the server is not told what else is opened. */
let marked: { at: number; origin: string; addresses: ReadonlySet<string> } | null = null;
/** What was marked in this session and may not have been sent: by address, then by id. */
const fresh = new Map<string, Map<string, LiveHighlight>>();

async function markedAddresses(pairing: Pairing): Promise<ReadonlySet<string>> {
  if (marked?.origin === pairing.origin && Date.now() - marked.at < KNOWN_MS) return marked.addresses;
  const { addresses } = await serverAt(pairing.origin, pairing.secret).marked();
  marked = { at: Date.now(), origin: pairing.origin, addresses: new Set(addresses) };
  return marked.addresses;
}

function keyOf(address: string): string | null {
  const reading = readAddress(address);
  return reading.ok ? canonicalAddress(reading.address) : null;
}

/** What is to be shown on a page; null for nothing. Without a connection it is what was marked here. */
export async function marksOn(address: string): Promise<LiveHighlight[] | null> {
  const pairing = await storage.pairing();
  const key = keyOf(address);
  if (!pairing || pairing.revoked || key === null) return null;
  const own = [...(fresh.get(key)?.values() ?? [])];
  try {
    if (!(await markedAddresses(pairing)).has(key)) return own.length > 0 ? own : null;
    const { highlights } = await serverAt(pairing.origin, pairing.secret).page(address);
    const known = highlights.map(({ id, choices }) => ({
      id,
      kind: choices.kind.value,
      passage: choices.passage.value,
    }));
    // One that was sent while the page was asked for is in both.
    return [...known, ...own.filter(({ id }) => known.every((mark) => mark.id !== id))];
  } catch (_unreachable) {
    return own.length > 0 ? own : null;
  }
}

/**
 * Marks what is selected in a tab. A page that is not in the library is saved with it.
 *
 * @returns what the panel is told
 */
export async function markSelected(pairing: Pairing, tab: chrome.tabs.Tab, kind: HighlightKind): Promise<Saved> {
  const passage = tab.id === undefined ? null : await selectedIn(tab.id);
  if (!passage || tab.id === undefined)
    return { ok: false, says: 'Nothing is selected here, or the page does not let us read it.' };
  const key = keyOf(tab.url ?? '');
  const known = await serverAt(pairing.origin, pairing.secret)
    .page(tab.url ?? '')
    .then(({ item }) => item)
    // The save goes with it then; the server knows whether the page is there already.
    .catch(() => null);
  const saved: Saved = known
    ? {
        ok: true,
        itemId: known.id,
        title: tab.title ?? known.address,
        address: known.address,
        asShown: false,
      }
    : await saveTab(pairing, tab, (await storage.settings()).howMuch);
  if (!saved.ok) return saved;
  const id = await keepHighlight(pairing, saved.itemId, kind, passage);
  const here = fresh.get(key ?? '') ?? new Map<string, LiveHighlight>();
  if (key !== null) fresh.set(key, here.set(id, { id, kind, passage }));
  const message: ToPage = { page: 'show' };
  await chrome.tabs.sendMessage(tab.id, message);
  if ((await send()) === 'sent') {
    here.delete(id);
    marked = null;
  }
  return saved;
}

async function selectedIn(tabId: number): Promise<MarkedPassage | null> {
  try {
    await chrome.scripting.executeScript({ target: { tabId }, files: ['marks.js'] });
    const message: ToPage = { page: 'selected' };
    return await chrome.tabs.sendMessage<ToPage, MarkedPassage | null>(tabId, message);
  } catch (_notLetIn) {
    return null;
  }
}

/** Keeps the script that shows what is marked on all pages, while the reader wants that. */
export function showMarksWhenWanted(): void {
  keepInPages({
    id: 'marks',
    runAt: 'document_idle',
    matches: ({ showsMarks }) => (showsMarks ? EVERYWHERE : []),
  });
}
