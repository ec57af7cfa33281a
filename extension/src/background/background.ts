import { type Account, readPairingCode } from '@dorvel/core/model';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { answerMessages, type ExtensionStatus, type Found, type FromServer } from '../messages';
import { keepChoice, keepEntries, keepNote, keepTags, keepTakenOut } from './changes';
import { echoesIn, leaveOutSite, showEchoesWhenWanted, silenceEcho } from './echoes';
import { linkTo } from './links';
import { marksOn, showMarksWhenWanted } from './live-highlights';
import { offerMenus } from './menus';
import { send, sendWhenDue } from './outbox';
import { type Batch, type Saved, saveOtherwise, saveTab, saveWindow, stopBatch } from './save';
import { showSearchLines, wordsSearched } from './search-pages';
import { isOfNow, isUnpaired, serverAt } from './server';
import { type Pairing, storage } from './storage';

/** What a menu saved last, until the panel has shown it. */
let justSaved: { saved: Saved; what: string } | null = null;
let batch: Batch | null = null;

async function status(): Promise<ExtensionStatus> {
  const pairing = await storage.pairing();
  return {
    account: pairing?.account ?? null,
    origin: pairing?.origin ?? null,
    revoked: pairing?.revoked ?? false,
    waiting: (await storage.outbox.ids()).length,
    refused: await storage.refused(),
  };
}

/** Asks the server something, and gives a reason in words when there is no answer. */
async function asking<Answer>(
  question: (server: ReturnType<typeof serverAt>) => Promise<Answer>,
  pairing: Pick<Pairing, 'origin' | 'secret'> | undefined,
): Promise<FromServer<Answer>> {
  if (!pairing) return { ok: false, why: 'not paired', says: 'The extension is not paired yet.' };
  try {
    return { ok: true, answer: await question(serverAt(pairing.origin, pairing.secret)) };
  } catch (error) {
    const says = error instanceof Error ? error.message : 'Something went wrong.';
    if (isOfNow(error)) return { ok: false, why: 'no connection', says };
    return { ok: false, why: isUnpaired(error) ? 'not paired' : 'other', says };
  }
}

async function pair(code: string): Promise<FromServer<Account>> {
  const read = readPairingCode(code);
  if (!read)
    return {
      ok: false,
      why: 'other',
      says: 'That is no pairing code. Make one in Dorvel, under You, “Save from elsewhere”, and copy all of it.',
    };
  const answered = await asking((server) => server.account(), read);
  if (!answered.ok) return answered;
  const { account } = answered.answer;
  await storage.setPairing({ ...read, account, revoked: false });
  void send();
  return { ok: true, answer: account };
}

/** Does something with the library that the extension is paired with. */
async function paired(work: (pairing: Pairing) => Promise<unknown>): Promise<null> {
  const pairing = await storage.pairing();
  if (pairing) await work(pairing);
  void send();
  return null;
}

async function foundFor(address: string): Promise<Found | null> {
  const words = wordsSearched(address, (await storage.settings()).searches);
  const pairing = await storage.pairing();
  if (words === null || !pairing) return null;
  const found = await asking((server) => server.find(words), pairing);
  if (!found.ok || found.answer.count === 0) return null;
  const { count, items } = found.answer;
  const best = items.map((item) => ({
    title: titleOf(item),
    source: sourceOf(item),
    link: linkTo(pairing.origin, item.id, item.choices.stage.value),
  }));
  return { count, best };
}

const NOT_PAIRED: Saved = { ok: false, says: 'The extension is not paired with a library yet.' };

answerMessages(
  {
    status: () => status(),
    pair: ({ code }) => pair(code),
    async unpair() {
      await storage.unpair();
      return null;
    },
    async justSaved() {
      const taken = justSaved;
      justSaved = null;
      return Promise.resolve(taken);
    },
    async saveTab({ tabId }) {
      const pairing = await storage.pairing();
      if (!pairing) return NOT_PAIRED;
      const saved = await saveTab(pairing, await chrome.tabs.get(tabId), (await storage.settings()).howMuch);
      void send();
      return saved;
    },
    async saveWindow({ windowId, tag }) {
      // One that has ended is not how far this one is.
      batch = null;
      const pairing = await storage.pairing();
      if (!pairing) return null;
      batch = await saveWindow(pairing, windowId, tag, (now) => {
        batch = { ...now };
        void send();
        return Promise.resolve();
      });
      void send();
      return batch;
    },
    stopWindow: () => {
      stopBatch();
      return Promise.resolve(null);
    },
    batch: () => Promise.resolve(batch),
    async known({ itemId }) {
      const sent = await send();
      const pairing = await storage.pairing();
      if (sent === 'waits') return { ok: false, why: 'no connection', says: 'It is sent when there is a connection.' };
      return asking((server) => server.item(itemId), pairing);
    },
    async note({ itemId, before, text }) {
      const pairing = await storage.pairing();
      const note = pairing ? await keepNote(pairing, itemId, before, text) : before;
      void send();
      return note;
    },
    choose: ({ itemId, set }) => paired((pairing) => keepChoice(pairing, itemId, set)),
    tag: ({ itemId, set }) => paired((pairing) => keepTags(pairing, itemId, set)),
    async putIn(asked) {
      const pairing = await storage.pairing();
      const made = pairing ? await keepEntries(pairing, asked) : null;
      void send();
      return made;
    },
    takeOut: ({ entries }) => paired((pairing) => keepTakenOut(pairing, entries)),
    howMuch: ({ itemId, tabId, howMuch }) => paired((pairing) => saveOtherwise(pairing, itemId, tabId, howMuch)),
    letGo: ({ itemIds }) =>
      paired(async (pairing) => {
        for (const itemId of itemIds) await keepChoice(pairing, itemId, { stage: 'let-go' });
      }),
    foundFor: ({ address }) => foundFor(address),
    marksOn: ({ address }) => marksOn(address),
    echoesIn: (page) => echoesIn(page),
    silenceEcho: ({ what, silenced }) => paired((pairing) => silenceEcho(pairing, what, silenced)),
    async leaveOutSite({ host }) {
      await leaveOutSite(host);
      return null;
    },
    async sendNow() {
      await send();
      return status();
    },
    async forgetRefused() {
      await storage.forgetRefused();
      return null;
    },
  },
  ['foundFor', 'marksOn', 'echoesIn', 'silenceEcho', 'leaveOutSite'],
);

// Scripts in pages must not see the secret.
void chrome.storage.local.setAccessLevel({ accessLevel: 'TRUSTED_CONTEXTS' });
offerMenus((saved, what) => {
  justSaved = { saved, what };
  void send();
});
showSearchLines();
showMarksWhenWanted();
showEchoesWhenWanted();
sendWhenDue();
void send();
