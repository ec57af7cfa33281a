import { canonicalAddress, hostOf, readAddress } from '@dorvel/core/address';
import { asPhrases, createEchoIndex, echoesOf, type EchoIndex } from '@dorvel/core/echo';
import type { EchoesAnswer, Silenced } from '@dorvel/core/model';
import { wordStarts } from '@dorvel/core/text';
import { Dexie, type EntityTable } from 'dexie';
import type { LiveEcho, LivePage } from '../messages';
import { keepSilence } from './changes';
import { linkTo } from './links';
import { EVERYWHERE, keepInPages } from './page-scripts';
import { isOfNow, isUnpaired, serverAt } from './server';
import { type Pairing, storage } from './storage';

/**
 * Names and terms of any page that stand in the reader's library too. All of it is worked out here, from what the items
 * speak of: that is fetched by the clock and as a whole, never because a page is opened.
 */

type Told = EchoesAnswer['items'][number];
interface Known {
  id: 'known';
  accountId: string;
  epoch: string;
  upTo: number;
  silenced: Silenced[];
}

const ALARM = 'echoes';
const EVERY_MINUTES = 15;
/** So many of the items that speak of a term are shown. */
const MOST = 6;

const database = new Dexie('echoes') as Dexie & { items: EntityTable<Told, 'id'>; known: EntityTable<Known, 'id'> };
database.version(1).stores({ items: 'id', known: 'id' });

/** What the marks are worked out from; made again when something new was fetched. */
let opened: Promise<{ index: EchoIndex; items: Map<string, Told>; known: Known }> | null = null;

async function open(pairing: Pairing) {
  const known = await knownFor(pairing);
  const items = new Map<string, Told>();
  const index = createEchoIndex();
  await database.items.each((told) => {
    items.set(told.id, told);
    index.put(told.id, asPhrases(told.excerpts, told));
  });
  return { index, items, known };
}

async function knownFor({ account }: Pairing): Promise<Known> {
  const known = await database.known.get('known');
  return known?.accountId === account.id
    ? known
    : { id: 'known', accountId: account.id, epoch: '', upTo: 0, silenced: [] };
}

/** Fetches what has changed, while echoes are wanted and the pairing holds; takes all of it away when not. */
export async function fetchEchoes(): Promise<void> {
  await navigator.locks.request('echoes', async () => {
    const pairing = await storage.pairing();
    const isWanted = (await storage.settings()).echoesOn !== 'none';
    if (!isWanted || !pairing || pairing.revoked) {
      await chrome.alarms.clear(ALARM);
      // What a library speaks of does not stay in a browser that is not let in to it any more.
      await forget();
      return;
    }
    await chrome.alarms.create(ALARM, { periodInMinutes: EVERY_MINUTES });
    try {
      for (let hasMore = true; hasMore;) hasMore = await fetchSome(pairing);
    } catch (error) {
      if (isUnpaired(error)) {
        await storage.setPairing({ ...pairing, revoked: true });
        await forget();
        return;
      }
      // The alarm asks again.
      if (!isOfNow(error)) throw error;
    }
  });
}

async function fetchSome(pairing: Pairing): Promise<boolean> {
  const known = await knownFor(pairing);
  const answer = await serverAt(pairing.origin, pairing.secret).echoes(known.upTo);
  const isOther = known.upTo > 0 && known.epoch !== answer.epoch;
  await database.transaction('rw', database.items, database.known, async () => {
    if (isOther || known.upTo === 0) await database.items.clear();
    if (!isOther) {
      await database.items.bulkDelete(answer.gone);
      await database.items.bulkPut(answer.items);
    }
    const { epoch, upTo, silenced } = answer;
    await database.known.put({ ...known, epoch, upTo: isOther ? 0 : upTo, silenced });
  });
  opened = null;
  return isOther || answer.hasMore;
}

async function forget(): Promise<void> {
  await Promise.all([database.items.clear(), database.known.clear()]);
  opened = null;
}

/** The echoes of a page; null where none are to be shown. */
export async function echoesIn(page: LivePage): Promise<LiveEcho[] | null> {
  const pairing = await storage.pairing();
  const { echoesOn, echoDensity } = await storage.settings();
  const { origin } = new URL(page.address);
  if (echoesOn === 'none' || !pairing || pairing.revoked || origin === pairing.origin) return null;
  const { index, items, known } = await (opened ??= open(pairing));
  const reading = readAddress(page.address);
  const own = reading.ok ? canonicalAddress(reading.address) : null;
  const hosts = new Set(known.silenced.flatMap((what) => (what.kind === 'site' ? what.host : [])));
  const about = { ...page, words: wordStarts(page.text, page.language).length };
  const echoes = echoesOf(page.text, about, index, {
    density: echoDensity,
    silenced: new Set(known.silenced.flatMap((what) => (what.kind === 'term' ? what.key : []))),
    not(id) {
      const address = items.get(id)?.address ?? '';
      return address === own || hosts.has(hostOf(address));
    },
  });
  return echoes.map(({ start, end, key, form, items: ids }) => ({
    ...{ start, end, key, form },
    more: Math.max(0, ids.length - MOST),
    items: ids.slice(0, MOST).flatMap((id) => {
      const told = items.get(id);
      return told ? tellingOf(told, key, pairing.origin) : [];
    }),
  }));
}

function tellingOf(told: Told, key: string, origin: string): LiveEcho['items'][number] {
  const excerpt = told.excerpts.find(([term]) => term === key);
  const [at, length] = excerpt ? [excerpt[3], excerpt[4].length] : [0, 0];
  return {
    title: told.title,
    source: told.source,
    minutes: told.minutes,
    passage: excerpt?.[5] ?? '',
    link: `${linkTo(origin, told.id, told.stage)}${excerpt ? `?at=${at}-${at + length}` : ''}`,
  };
}

/** Silences a term on all devices, or lets it speak again; here at once. */
export async function silenceEcho(pairing: Pairing, what: Silenced, silenced: boolean): Promise<void> {
  await keepSilence(pairing, what, silenced);
  const known = await knownFor(pairing);
  const others = known.silenced.filter((other) => JSON.stringify(other) !== JSON.stringify(what));
  await database.known.put({ ...known, silenced: silenced ? [...others, what] : others });
  opened = null;
}

/** Shows no echoes on a site any more. */
export async function leaveOutSite(host: string): Promise<void> {
  const settings = await storage.settings();
  await storage.setSettings({ ...settings, echoesNotOn: [...new Set([...settings.echoesNotOn, host])] });
}

const onHost = (host: string) => `*://${host}/*`;

/** Shows echoes on the pages that the reader chose, and keeps what they are worked out from up to date. */
export function showEchoesWhenWanted(): void {
  keepInPages({
    id: 'echoes',
    runAt: 'document_idle',
    matches({ echoesOn, echoSites }) {
      if (echoesOn === 'none') return [];
      return echoesOn === 'all' ? EVERYWHERE : echoSites.map(onHost);
    },
    except: ({ echoesNotOn }) => echoesNotOn.map(onHost),
  });
  chrome.storage.onChanged.addListener((changes) => {
    if ('settings' in changes || 'pairing' in changes) void fetchEchoes();
  });
  chrome.alarms.onAlarm.addListener(({ name }) => {
    if (name === ALARM) void fetchEchoes();
  });
}
