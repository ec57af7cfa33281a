import { liveText, noteText, ownNote } from '@dorvel/core/notes';
import type { Mutation } from '@dorvel/core/records';
import { keepNote, keepTags } from './changes';
import { ACCOUNT, pairedBrowser } from './fake-browser.test-data';
import { marksOn } from './live-highlights';
import {
  type Batch,
  saveLink,
  saveOtherwise,
  savePicture,
  saveSelection,
  saveTab,
  saveWindow,
  stopBatch,
} from './save';
import { type Pairing, storage } from './storage';

interface Shown {
  address: string;
  title: string;
  html: string;
}
/** What each tab shows to who is let in; none for pages that let nobody in. */
let shown: Map<number, Shown>;
let tabs: { id: number; url: string; title: string }[];
let pairing: Pairing;
let stored: Map<string, unknown>;

beforeEach(async () => {
  ({ stored } = await pairedBrowser());
  pairing = (await storage.pairing())!;
  shown = new Map();
  tabs = [];
  Object.assign(chrome, {
    scripting: {
      executeScript: ({ target: { tabId } }: { target: { tabId: number } }) =>
        shown.has(tabId)
          ? Promise.resolve([{ result: shown.get(tabId) }])
          : Promise.reject(new Error('Cannot access contents of the page')),
    },
    tabs: { query: () => Promise.resolve(tabs) },
  });
});

/** The changes that wait to be sent. */
async function waiting(): Promise<Mutation[]> {
  const all = await Promise.all((await storage.outbox.ids()).map((id) => storage.outbox.get(id)));
  return all.flatMap((entry) => entry?.mutations ?? []);
}
const TAB = { id: 7, url: 'https://tides.example/eelgrass', title: 'Eelgrass' };
const page = (html: string) => ({ address: TAB.url, title: 'What the eelgrass knows', html });

describe('saving what a tab shows', () => {
  it('keeps the page as it is seen', async () => {
    shown.set(7, page('<p>As shown.</p>'));
    const saved = await saveTab(pairing, TAB, 'words-and-pictures', { sea: 'Sea' });
    expect(saved).toMatchObject({ ok: true, title: 'What the eelgrass knows', asShown: true });
    expect(await waiting()).toMatchObject([
      { type: 'save', address: TAB.url, howMuch: 'words-and-pictures' },
      { type: 'provide', given: { type: 'text/html', body: '<p>As shown.</p>', encoding: 'utf8' } },
      { type: 'tag', set: { sea: 'Sea' } },
    ]);
  });

  it('keeps the address where the page lets nobody in, and asks for no more where no more is wanted', async () => {
    expect(await saveTab(pairing, TAB, 'words-only')).toMatchObject({ ok: true, title: 'Eelgrass', asShown: false });
    shown.set(7, page('<p>As shown.</p>'));
    expect(await saveTab(pairing, TAB, 'address-only')).toMatchObject({ ok: true, asShown: false });
    expect((await waiting()).map(({ type }) => type)).toEqual(['save', 'save']);
  });

  it('says of a page of the browser’s own that there is nothing to save', async () => {
    for (const url of ['chrome://settings', 'about:blank', undefined])
      expect(await saveTab(pairing, { id: 1, title: 'Settings', ...(url ? { url } : {}) }, 'words-only')).toMatchObject(
        { ok: false },
      );
    expect(await waiting()).toEqual([]);
  });

  it('keeps a selection as a part, and says when nothing is selected', async () => {
    expect(await saveSelection(pairing, TAB as chrome.tabs.Tab)).toMatchObject({ ok: false });
    shown.set(7, page('   '));
    expect(await saveSelection(pairing, TAB as chrome.tabs.Tab)).toMatchObject({ ok: false });
    shown.set(7, page('<p>A part.</p>'));
    expect(await saveSelection(pairing, TAB as chrome.tabs.Tab)).toMatchObject({ ok: true, asShown: true });
    expect(await waiting()).toMatchObject([{ howMuch: 'selected-part' }, { given: { body: '<p>A part.</p>' } }]);
  });

  it('saves a picture with what its page says of it, and where the page says nothing by its address', async () => {
    const src = 'https://tides.example/bar.png';
    const says = { alt: 'A chart', caption: 'The "bar" <at low water>', around: 'It has shifted.', title: 'Tides' };
    shown.set(7, says as never);
    expect(await savePicture(pairing, TAB as chrome.tabs.Tab, src)).toMatchObject({ ok: true, title: says.caption });
    expect(await savePicture(pairing, { url: 'https://tides.example/a' }, src)).toMatchObject({ ok: true, title: src });
    const [save, provide, ...rest] = await waiting();
    expect([save, provide]).toMatchObject([
      { type: 'save', address: src, howMuch: 'picture' },
      {
        type: 'provide',
        given: {
          body: '<title>The &quot;bar&quot; &lt;at low water&gt;</title><figure><img src="https://tides.example/bar.png" alt="A chart"><figcaption>The &quot;bar&quot; &lt;at low water&gt;</figcaption></figure><blockquote><p>It has shifted.</p><p><a href="https://tides.example/eelgrass">Tides</a></p></blockquote>',
        },
      },
    ]);
    expect(rest.map(({ type }) => type)).toEqual(['save']);
  });

  it('saves a link by its address, and says what is wrong with one that is none', async () => {
    expect(await saveLink(pairing, 'https://tides.example/b', 'words-only')).toMatchObject({ ok: true });
    expect(await saveLink(pairing, 'javascript:alert(1)', 'words-only')).toMatchObject({ ok: false });
    expect(await waiting()).toHaveLength(1);
  });

  it('takes the page again for another amount, or has the server fetch it', async () => {
    const itemId = '019a0000-0000-7000-8000-000000000009';
    shown.set(7, page('<p>Again.</p>'));
    await saveOtherwise(pairing, itemId, 7, 'whole-page');
    await saveOtherwise(pairing, itemId, null, 'words-only');
    expect((await waiting()).map(({ type }) => type)).toEqual(['choose', 'provide', 'choose', 'refetch']);
  });
});

describe('saving all tabs of a window', () => {
  beforeEach(() => {
    tabs = [1, 2, 3].map((id) => ({ id, url: `https://tides.example/${id}`, title: `Page ${id}` }));
    tabs.push({ id: 4, url: 'chrome://settings', title: 'Settings' });
  });

  it('saves each page, tagged, and tells how far it is', async () => {
    const told: number[] = [];
    const batch = await saveWindow(pairing, 1, 'Trip', ({ done }) => Promise.resolve(void told.push(done)));
    expect(batch).toMatchObject({ done: 3, of: 3, failed: [], stopped: false });
    expect(told).toEqual([0, 1, 2, 3]);
    const tagged = (await waiting()).filter(({ type }) => type === 'tag');
    expect(tagged).toMatchObject([1, 2, 3].map(() => ({ set: { trip: 'Trip' } })));
  });

  it('ends when it is told to; what is saved by then stays', async () => {
    const stop = ({ done }: Batch) => {
      if (done === 1) stopBatch();
      return Promise.resolve();
    };
    expect(await saveWindow(pairing, 1, null, stop)).toMatchObject({ done: 1, stopped: true });
    expect(await waiting()).toHaveLength(1);
  });
});

describe('the note of an item', () => {
  const itemId = '019a0000-0000-7000-8000-000000000009';

  it('is written, and written over by who has seen it', async () => {
    const first = await keepNote(pairing, itemId, null, 'Ask.');
    const second = await keepNote(pairing, itemId, first, 'Ask Ines.');
    expect([noteText(first!), noteText(second!), second?.on]).toEqual(['Ask.', 'Ask Ines.', { kind: 'item' }]);
    expect(await waiting()).toMatchObject([
      { type: 'write', noteId: itemId, sees: {} },
      { type: 'write', noteId: itemId, set: { text: 'Ask Ines.' } },
    ]);
    expect(liveText(second)).toBe('Ask Ines.');
  });

  it('that an earlier version wrote down with the item’s changes is sent as what it is now', async () => {
    await keepTags(pairing, itemId, { sea: 'Sea' });
    const [id] = await storage.outbox.ids();
    const { mutation } = stored.get(`out:${id}`) as { mutation: { stamp: string } };
    const earlier = { id, stamp: mutation.stamp, type: 'choose', itemId, set: { stage: 'queue', note: 'Ask.' } };
    stored.set(`out:${id}`, { accountId: ACCOUNT.id, mutation: earlier });
    expect(await waiting()).toMatchObject([
      { type: 'write', noteId: ownNote.ofItem(itemId).id, set: { text: 'Ask.' } },
      { id, type: 'choose', set: { stage: 'queue' } },
    ]);
  });
});

it('what is marked on a page is asked for only where something is, and not at all when nobody is paired', async () => {
  const asked: string[] = [];
  globalThis.fetch = ((address: string) => {
    asked.push(new URL(address).pathname);
    return Promise.resolve(Response.json({ addresses: ['https://tides.example/other'] }));
  }) as typeof fetch;
  expect(await marksOn(TAB.url)).toBeNull();
  expect(await marksOn('no address')).toBeNull();
  expect(asked).toEqual(['/api/extension/marked']);
  await storage.unpair();
  expect(await marksOn(TAB.url)).toBeNull();
  expect(asked).toHaveLength(1);
});
