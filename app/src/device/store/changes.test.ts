import 'fake-indexeddb/auto';
import { readAddress } from '@dorvel/core/address';
import { noteText, ownNote } from '@dorvel/core/notes';
import { v7 as uuidv7 } from 'uuid';
import { useAccount } from './account';
import {
  chooseAll,
  feedIdOf,
  followFeeds,
  replayJournal,
  saveAddress,
  saveAll,
  tagAll,
  writeNote,
  writeOwnNote,
} from './changes';
import { DeviceStore } from './store';

const mockTold: unknown[] = [];
jest.mock('@/device/sync/sync-loop', () => ({
  syncSoon: jest.fn(),
  tellOf: (news: unknown[]) => mockTold.push(...news),
}));
Object.assign(globalThis, { structuredClone: (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown });
// jsdom's URL is older than the browsers'.
Object.assign(URL, { canParse: (address: string, base?: string) => canParse(address, base) });
function canParse(address: string, base?: string): boolean {
  try {
    return Boolean(new URL(address, base));
  } catch {
    return false;
  }
}

let store: DeviceStore;
beforeEach(() => {
  const id = uuidv7();
  store = new DeviceStore(id);
  mockTold.length = 0;
  localStorage.clear();
  useAccount.setState({ account: { id, mail: 'a@example.org', name: 'A' }, store } as never);
});
afterEach(() => store.delete());

const at = (address: string) => readAddress(address) as Extract<ReturnType<typeof readAddress>, { ok: true }>;
const types = async () => (await store.outbox.orderBy('place').toArray()).map(({ mutation }) => mutation.type);

it('a save is on the device and in the outbox; one that the library has is brought up instead', async () => {
  const first = await saveAddress(at('https://tides.example/eelgrass'), 'words-only');
  expect(first.kind).toBe('saved');
  const again = await saveAddress(at('https://tides.example/eelgrass?utm_source=letter'), 'words-only');
  expect(again).toMatchObject({ kind: 'already-saved', item: { address: 'https://tides.example/eelgrass' } });
  expect(await store.items.count()).toBe(1);
  expect(await types()).toEqual(['save', 'choose']);
});

it('many saves are written in parts, and can be ended between them', async () => {
  const requests = Array.from({ length: 90 }, (_, n) => ({ address: `https://tides.example/${n}`, tags: ['Sea'] }));
  const done: number[] = [];
  const made = await saveAll(
    requests,
    'words-only',
    () => done.length < 2,
    (count) => done.push(count),
  );
  expect([made.length, done]).toEqual([80, [40, 80]]);
  const items = await store.items.toArray();
  expect(items).toHaveLength(80);
  expect(items.every(({ tags }) => tags.sea?.value === 'Sea')).toBe(true);
  // Again: nothing is new.
  expect(
    await saveAll(
      requests.slice(0, 3),
      'words-only',
      () => true,
      () => {},
    ),
  ).toEqual([]);
  expect(await store.items.count()).toBe(80);
});

it('what was saved elsewhere before keeps its day', async () => {
  const savedAt = Date.UTC(2023, 10, 14);
  const requests = [{ address: 'https://c.example/', savedAt }, { address: 'https://d.example/' }];
  const [old = '', fresh = ''] = await saveAll(
    requests,
    'words-only',
    () => true,
    () => {},
  );
  expect(await store.items.get(old)).toMatchObject({ savedAt, choices: { raisedAt: { value: savedAt } } });
  expect((await store.items.get(fresh))?.savedAt).toBeGreaterThan(savedAt);
});

it('what is decided about many is decided about all or none', async () => {
  const made = await saveAll(
    [{ address: 'https://a.example/' }, { address: 'https://b.example/' }],
    'words-only',
    () => true,
    () => {},
  );
  await chooseAll(made.map((itemId) => ({ itemId, set: { stage: 'queue' as const } })));
  expect((await store.items.toArray()).map(({ choices }) => choices.stage.value)).toEqual(['queue', 'queue']);
  await expect(
    tagAll([
      { itemId: made[0]!, set: { sea: 'sea' } },
      { itemId: uuidv7(), set: { sea: 'sea' } },
    ]),
  ).rejects.toThrow('no item');
  expect((await store.items.get(made[0]!))?.tags).toEqual({});
});

it('a feed has the same id on every device, and is followed once', async () => {
  expect(feedIdOf('https://tides.example/feed')).toBe(feedIdOf('https://TIDES.example/feed#top'));
  await followFeeds([{ address: 'https://tides.example/feed', title: ' The tides ', tag: 'sea' }]);
  await followFeeds([{ address: 'https://tides.example/feed', title: null, tag: null }]);
  expect(await store.feeds.toArray()).toMatchObject([
    { choices: { title: { value: 'The tides' }, tag: { value: 'sea' }, following: { value: true } } },
  ]);
});

it('a change that was cut off is made at the next start; what cannot be made is told', async () => {
  const failing = jest.spyOn(store, 'commitAll').mockImplementation(() => new Promise(() => {}));
  void writeNote({ itemId: null, on: { kind: 'nothing' } }, { text: 'Cut off.' });
  await Promise.resolve();
  failing.mockRestore();
  expect(await store.notes.count()).toBe(0);
  await replayJournal();
  expect((await store.notes.toArray()).map(noteText)).toEqual(['Cut off.']);
  // Not sent yet, it is noted still.
  const noted = Object.keys(localStorage);
  expect(noted).toEqual([expect.stringMatching(/^dorvel\.unsent\./)]);
  localStorage.clear();

  const { account } = useAccount.getState();
  const orphan = { type: 'choose', id: uuidv7(), stamp: '0mhz0000a-0000-a', itemId: uuidv7(), set: { stage: 'queue' } };
  localStorage.setItem(`dorvel.unwritten.${account!.id}.${orphan.id}`, JSON.stringify([orphan]));
  await replayJournal();
  expect(mockTold).toMatchObject([{ kind: 'refused' }]);
  expect(localStorage.length).toBe(0);
});

it('an item’s own note is written over by who has seen it, and joined with what they had not seen', async () => {
  const saved = await saveAddress(at('https://tides.example/eelgrass'), 'words-only');
  const itemId = saved.kind === 'saved' ? saved.itemId : '';
  const subject = ownNote.ofItem(itemId);
  const first = await writeOwnNote(subject, null, 'Ask.');
  await writeOwnNote(subject, first, 'Ask Ines.');
  expect((await store.notes.toArray()).map(noteText)).toEqual(['Ask Ines.']);
  // Somebody who began with the first one.
  await writeOwnNote(subject, first, 'Ask.\nAnd Joost.');
  const text = noteText((await store.notes.get(itemId))!);
  expect(text).toContain('Ask Ines.');
  expect(text).toContain('And Joost.');
});
