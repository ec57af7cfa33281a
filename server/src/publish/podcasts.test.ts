import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { VOICE_VERSION } from '@dorvel/core/listening';
import type { Copy } from '@dorvel/core/model';
import { changeMaker } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { pageFrom } from '@dorvel/core/testing';
import { eq } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { episodes as episodesTable } from '../db/schema';
import { madeInFolder } from '../files/made-files';
import { takePush } from '../library/take-mutations';
import { openTestLibrary } from '../library/test-library.test-data';
import { podcastShelf } from './podcasts';
import type { Speaker } from './speaker';

let now = Date.UTC(2026, 10, 27, 12);
const clock = createClock('test', () => ++now);
const make = changeMaker({ clock, newId: uuidv7, now: () => now });
let house: Awaited<ReturnType<typeof openTestLibrary>>;
let shelf: ReturnType<typeof podcastShelf>;
/** What is spoken, and how it ends: done at once, unless a test says otherwise. */
let spoken: string[];
let speak: Speaker['speak'];

beforeEach(async () => {
  house = await openTestLibrary(() => now);
  spoken = [];
  speak = ({ title, target }) => {
    spoken.push(title);
    writeFileSync(target, 'sound');
    return Promise.resolve({ bytes: 5, seconds: 60, chapters: [] });
  };
  const speaker: Speaker = { speak: (...words) => speak(...words), close: () => Promise.resolve() };
  shelf = podcastShelf(house.database, madeInFolder(house.folder, `${house.folder}/making`), speaker, () => now, 0);
});
afterEach(() => house.close());

/** A speaker with nothing to speak. */
const idle: Speaker = { speak: () => Promise.reject(new Error('not asked')), close: () => Promise.resolve() };

/** Where its sound lies; that of the first voice had no number yet. */
const fileOf = (itemId: string, copyId: string, voice: number) =>
  `${house.folder}/podcasts/${house.accountId}/${itemId}-${copyId}${voice === 1 ? '' : `-${voice}`}.mp3`;

const push = (...mutations: object[]) => takePush(house.library, { mutations }, { clock, now: () => now });

/** An item in the Queue with a text, or without. */
async function queued(title: string, rank: number, hasText = true): Promise<string> {
  const save = make.save({ address: `https://x.example/${title}` });
  await push(save, make.choose(save.itemId, { stage: 'queue', queueRank: rank, title }));
  if (hasText) await withText(save.itemId);
  return save.itemId;
}

async function withText(itemId: string): Promise<string> {
  const copyId = uuidv7();
  await house.library.change(async (write) => {
    const item = (await write.item(itemId))!;
    const tree: Copy['tree'] = { type: 'root', children: [] };
    await write.putCopy({ id: copyId, itemId, madeAt: now, title: 'T', language: 'en', hash: null, tree });
    const page = pageFrom({ copyId });
    await write.put({ ...item, capture: { ...item.capture, revision: write.sequence, state: 'arrived', page } });
  });
  return copyId;
}

/** Makes all that waits. */
async function makeAll(): Promise<void> {
  for (const job of await shelf.take(10)) await shelf.makeSound(job);
}
const episodes = async () =>
  (await shelf.episodesOf(house.accountId)).map(({ item, state }) => [item.choices.title.value, state]);

it('has an episode for each text in the Queue, made from its top', async () => {
  await queued('Second', 2);
  await queued('First', 1);
  await queued('Without a text', 3, false);
  expect([await shelf.of(house.accountId), await shelf.take(10), await shelf.nextDue()]).toEqual([null, [], null]);
  await shelf.make(house.accountId);
  expect(await episodes()).toEqual([
    ['First', 'waiting'],
    ['Second', 'waiting'],
  ]);
  expect(await shelf.nextDue()).toBe(now);
  await makeAll();
  expect(spoken).toEqual(['First', 'Second']);
  expect(await episodes()).toEqual([
    ['First', 'done'],
    ['Second', 'done'],
  ]);
  expect((await shelf.episodesOf(house.accountId))[0]).toMatchObject({ bytes: 5, seconds: 60, progress: 1 });
});

it('follows the Queue: what is new waits, what has left it or has another text goes with its sound', async () => {
  const [gone, changed] = [await queued('Gone', 1), await queued('Changed', 2)];
  await shelf.make(house.accountId);
  await makeAll();
  const files = (await shelf.episodesOf(house.accountId)).map(({ item, copyId }) =>
    fileOf(item.id, copyId, VOICE_VERSION),
  );
  expect(files.map((file) => existsSync(file))).toEqual([true, true]);
  await push(make.choose(gone, { stage: 'kept' }));
  await withText(changed);
  await queued('New', 0);
  expect((await shelf.take(0)).length).toBe(0);
  const jobs = await shelf.take(10);
  expect(files.map((file) => existsSync(file))).toEqual([false, false]);
  expect(await episodes()).toEqual([
    ['New', 'running'],
    ['Changed', 'running'],
  ]);
  // A server that was stopped in the middle begins them again.
  await shelf.recover();
  expect((await shelf.take(10)).map(({ itemId }) => itemId)).toEqual(jobs.map(({ itemId }) => itemId));
});

it('is made anew with another voice, when somebody asks for it and not before', async () => {
  const itemId = await queued('Heard', 1);
  await shelf.make(house.accountId);
  await makeAll();
  const { copyId, madeAt } = (await shelf.episodesOf(house.accountId))[0]!;
  // As a server of before left it.
  const before = fileOf(itemId, copyId, 1);
  writeFileSync(before, 'old sound');
  await house.database.write((tx) =>
    tx.update(episodesTable).set({ voice: 1 }).where(eq(episodesTable.itemId, itemId)),
  );
  expect(await shelf.take(10)).toEqual([]);
  expect(existsSync(before)).toBe(true);

  await shelf.follow(house.accountId);
  expect([await episodes(), existsSync(before)]).toEqual([[['Heard', 'waiting']], false]);
  await makeAll();
  const [made] = await shelf.episodesOf(house.accountId);
  expect(made).toMatchObject({ state: 'done', voice: VOICE_VERSION, bytes: 5, madeAt });
  await shelf.follow(house.accountId);
  expect(await shelf.take(10)).toEqual([]);
});

it('leaves no sound when another process has ended it while the sound was made', async () => {
  const itemId = await queued('Heard', 1);
  await shelf.make(house.accountId);
  const { copyId } = (await shelf.episodeOf(house.accountId, itemId))!;
  const speaks = speak;
  speak = async (...words) => {
    const other = podcastShelf(
      house.database,
      madeInFolder(house.folder, `${house.folder}/making`),
      idle,
      () => now,
      0,
    );
    await other.end(house.accountId);
    return speaks(...words);
  };
  await makeAll();
  expect(spoken).toEqual(['Heard']);
  expect(existsSync(fileOf(itemId, copyId, VOICE_VERSION))).toBe(false);
});

it('is made again when its sound has gone, as after a restore', async () => {
  const itemId = await queued('Heard', 1);
  await shelf.make(house.accountId);
  await makeAll();
  const episode = (await shelf.episodeOf(house.accountId, itemId))!;
  rmSync(fileOf(itemId, episode.copyId, VOICE_VERSION));
  const nobody = {} as never;
  expect(await shelf.send(house.accountId, episode, nobody, nobody)).toBe(false);
  expect(await episodes()).toEqual([['Heard', 'waiting']]);
  await makeAll();
  expect([await episodes(), existsSync(fileOf(itemId, episode.copyId, VOICE_VERSION))]).toEqual([
    [['Heard', 'done']],
    true,
  ]);
});

it('has one secret address, another one when it is asked for, and none when it is ended', async () => {
  await queued('Only', 1);
  await shelf.make(house.accountId);
  const { secret } = (await shelf.of(house.accountId))!;
  expect(secret).toMatch(/^[\w-]{32}$/);
  expect(await shelf.at(secret)).toBe(house.accountId);
  await shelf.make(house.accountId);
  const next = (await shelf.of(house.accountId))!.secret;
  expect([next === secret, await shelf.at(secret), await shelf.at(next)]).toEqual([false, null, house.accountId]);
  await makeAll();
  const [episode] = await shelf.episodesOf(house.accountId);
  const file = fileOf(episode!.item.id, episode!.copyId, VOICE_VERSION);
  await shelf.end(house.accountId);
  expect([await shelf.of(house.accountId), await shelf.episodesOf(house.accountId), existsSync(file)]).toEqual([
    null,
    [],
    false,
  ]);
});

it('says why a sound could not be made, and goes on', async () => {
  await queued('No voice', 1);
  await queued('Broken', 2);
  await shelf.make(house.accountId);
  speak = ({ title }) => Promise.reject(new Error(title === 'No voice' ? 'no voice for xx' : 'the disk is full'));
  const [first, second] = await shelf.take(10);
  await shelf.makeSound(first!);
  // What nobody foresaw is told to the runner too.
  await expect(shelf.makeSound(second!)).rejects.toThrow('the disk is full');
  expect((await shelf.episodesOf(house.accountId)).map(({ state, fault }) => [state, fault])).toEqual([
    ['failed', 'no-voice'],
    ['failed', 'not-spoken'],
  ]);
  await shelf.makeSound({ id: 'x', accountId: house.accountId, itemId: first!.itemId, copyId: uuidv7() });
  expect((await shelf.episodesOf(house.accountId))[0]?.fault).toBe('no-voice');
});

it('is stopped in the middle of a sound that is wanted no more', async () => {
  const item = await queued('Long', 1);
  await shelf.make(house.accountId);
  let ended: AbortSignal | undefined;
  speak = (_task, told, signal) => {
    ended = signal;
    told(0.5);
    return new Promise((_resolve, reject) => {
      signal.addEventListener('abort', () => reject(new Error('stopped')));
    });
  };
  const [job] = await shelf.take(1);
  const made = shelf.makeSound(job!);
  while (!ended) await new Promise((next) => setTimeout(next, 5));
  await push(make.choose(item, { stage: 'let-go' }));
  await shelf.follow(house.accountId);
  await made;
  expect([ended.aborted, await shelf.episodesOf(house.accountId)]).toEqual([true, []]);
});

describe('a dossier that is to be heard', () => {
  async function dossierOf(...itemIds: string[]): Promise<ReturnType<typeof make.dossier>> {
    const dossier = make.dossier({ title: 'Winter reading', heard: true });
    const entries = itemIds.map((itemId, at) =>
      make.entry(dossier.dossierId, { kind: 'item', itemId }, { rank: `a${at}` }),
    );
    await push(dossier, ...entries);
    return dossier;
  }
  const heard = async (dossierId: string) =>
    (await shelf.dossierOf(house.accountId, dossierId))?.episodes.map(({ item, state }) => [item.id, state]);

  it('is read aloud in its own order, though nothing of it is in the Queue', async () => {
    await shelf.make(house.accountId);
    const [first, second, bare] = [await queued('First', 2), await queued('Second', 1), await queued('Bare', 3, false)];
    const apart = await queued('Apart', 4);
    await push(...[first, second, bare].map((id) => make.choose(id, { stage: 'kept' })));
    const dossier = await dossierOf(second, first, bare);
    await shelf.follow(house.accountId);
    await makeAll();
    expect(await heard(dossier.dossierId)).toEqual([
      [second, 'done'],
      [first, 'done'],
    ]);
    // It is beside the Queue, not in it.
    expect((await shelf.episodesOf(house.accountId)).map(({ item }) => item.id)).toEqual([apart]);
    expect(await shelf.episodeOf(house.accountId, first)).toMatchObject({ state: 'done' });
  });

  it('is silent when it is not to be heard any more, or let go', async () => {
    await shelf.make(house.accountId);
    const itemId = await queued('First', 2);
    await push(make.choose(itemId, { stage: 'kept' }));
    const dossier = await dossierOf(itemId);
    await shelf.follow(house.accountId);
    await makeAll();
    const copyId = (await shelf.episodeOf(house.accountId, itemId))?.copyId ?? '';
    expect(existsSync(fileOf(itemId, copyId, VOICE_VERSION))).toBe(true);
    await push({ ...make.dossier({ heard: false }), dossierId: dossier.dossierId });
    await shelf.follow(house.accountId);
    expect(await shelf.dossierOf(house.accountId, dossier.dossierId)).toBeNull();
    expect(await shelf.episodeOf(house.accountId, itemId)).toBeNull();
    expect(existsSync(fileOf(itemId, copyId, VOICE_VERSION))).toBe(false);
  });
});
