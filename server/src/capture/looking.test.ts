import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { GivenText, RecognisedWord } from '@dorvel/core/model';
import { createClock } from '@dorvel/core/sync';
import { plainText } from '@dorvel/core/text';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { workshopInPlace } from '../apart/in-place';
import { GivenUp } from '../apart/workshop';
import { type Database, openDatabase } from '../db/open';
import { folderStore } from '../files/files';
import { type Job, jobRepository } from '../jobs/queue';
import { findableLibrary } from '../library/findable';
import { libraryOf } from '../library/library';
import { takeMutation } from '../library/take-mutations';
import { TEXT_TASKS } from '../tasks/texts';
import { capture } from './capture';
import { workshopExtractor } from './extractor';
import type { Looked, ToLookAt } from './look-at';
import { look, lookLater } from './looking';
import { rewritePicture } from './rewrite-picture';

let folder: string;
let database: Database;
let library: ReturnType<typeof libraryOf>;
let accountId: string;
const clock = createClock('test', Date.now);
const texts = workshopInPlace(TEXT_TASKS);
const pictures = workshopInPlace({ rewrite: rewritePicture });
const extractor = workshopExtractor({ quick: texts, long: texts });
const files = () => folderStore(path.join(folder, 'pictures'));

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
  const account = await accountRepository(database, Date.now).create(
    'a@example.org',
    'A Reader',
    'a long enough passphrase',
  );
  accountId = account?.id ?? '';
  library = libraryOf(database, accountId);
});
afterEach(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

const jpeg = async (colour: string) =>
  (
    await sharp({ create: { width: 900, height: 600, channels: 3, background: colour } })
      .jpeg()
      .toBuffer()
  ).toString('base64');

/** Saves pictures as a device gives them, and has them captured. @returns the item's id */
async function captured(body: string, itemId: string = uuidv7()): Promise<string> {
  const given: GivenText = { type: 'text/html', body, encoding: 'utf8' };
  await library.change(async (write) => {
    const change = { id: uuidv7(), itemId, stamp: clock.next() };
    const tools = { clock, now: Date.now };
    await takeMutation(
      write,
      { ...change, type: 'save', address: `ni:///sha-256;${'a'.repeat(43)}`, savedAt: Date.now(), howMuch: 'picture' },
      tools,
    );
    await takeMutation(write, { ...change, id: uuidv7(), type: 'provide', given }, tools);
  });
  const jobs = jobRepository(database, Date.now);
  const one = (job: Job) =>
    capture(job, library, {
      extractor,
      darkrooms: { small: pictures, large: pictures },
      files: files(),
      siteIconAt: () => Promise.resolve(null),
      rules: { allowHosts: [], timeoutMs: 1000 },
      retryWaitsMs: [],
      pictureQuotaBytes: null,
      clock,
      now: Date.now,
    });
  for (const job of await jobs.lane('quick').take(5)) await one(job);
  // Pictures take their turn among what takes long, so that no article waits for them.
  for (const job of await jobs.lane('long').take(5)) await one(job);
  return itemId;
}

const word = (text: string, begins?: RecognisedWord['begins']): RecognisedWord => ({
  text,
  sure: 95,
  box: [10, 10, 50, 20],
  ...(begins ? { begins } : {}),
});
const looked = (...words: RecognisedWord[]): Looked => ({
  seen: {
    colours: [],
    kind: 'page-of-text',
    why: [],
    isGrey: true,
    likeness: null,
    wordCount: words.length,
    unsureCount: 0,
  },
  words,
  language: null,
});

/** Has the waiting pictures looked at by something that sees this in each, one after the other. */
async function lookOn(...answers: (Looked | Error)[]): Promise<ToLookAt[]> {
  const asked: ToLookAt[] = [];
  const workshop = workshopInPlace({
    'look-at': (input: ToLookAt) => {
      asked.push(input);
      const answer = answers[asked.length - 1] ?? new Error('nothing more to see');
      if (answer instanceof Error) throw answer;
      return answer;
    },
  });
  const tools = { workshop, files: files(), extractor, limitMs: 1000, now: Date.now };
  for (const job of await jobRepository(database, Date.now).lane('looking').take(5))
    await look(job, library, tools).catch(() => lookLater(job, library, tools));
  return asked;
}
const textOf = async (itemId: string) => {
  const item = await library.item(itemId);
  const copy = await library.copy(item?.capture.page?.copyId ?? '');
  return plainText(copy!.tree).text;
};
const figure = async (colour: string, more = '') =>
  `<figure><img src="data:image/jpeg;base64,${await jpeg(colour)}" alt="">${more}</figure>`;

it('makes the words in pictures the text of their item, by which it is found', async () => {
  const itemId = await captured(`<title></title>${await figure('#357')}${await figure('#853')}`);
  const before = await library.item(itemId);
  expect(before?.capture).toMatchObject({ state: 'arrived', page: { pictureCount: 2, wordCount: 0 } });
  expect(before?.capture.page?.pictures.map(({ seen }) => seen)).toEqual([null, null]);
  const asked = await lookOn(
    looked(word('Minutes', 'heading'), word('Rope', 'paragraph'), word('shackles')),
    looked(word('Eleven', 'paragraph'), word('shillings')),
  );
  expect(asked).toHaveLength(2);
  const after = await library.item(itemId);
  expect(await textOf(itemId)).toBe('Minutes\n\nRope shackles\n\nEleven shillings');
  expect(after?.capture.page).toMatchObject({
    wordCount: 5,
    title: 'Minutes',
    pictures: [{ seen: { wordCount: 3 } }, { seen: { wordCount: 2 } }],
  });
  // The one without words is not a copy that anybody would go back to.
  expect(after?.capture.copies.map(({ id }) => id)).toEqual([after?.capture.page?.copyId]);
  const found = findableLibrary(database, accountId);
  expect((await found.textOf(itemId))?.text).toContain('shillings');
  expect(await jobRepository(database, Date.now).lane('looking').take(5)).toEqual([]);
});

it('keeps three sizes of each, and tells what stood around it', async () => {
  const itemId = await captured(
    `<title>The slip</title>${await figure('#111', '<figcaption>Low water</figcaption>')}<blockquote><p>It was dug by hand.</p><p><a href="https://yard.example/slip">The yard</a></p></blockquote>`,
  );
  const page = (await library.item(itemId))?.capture.page;
  const [picture] = page?.pictures ?? [];
  expect(picture).toMatchObject({ width: 900, height: 600 });
  for (const hash of [picture?.hash, picture?.small, picture?.large])
    expect(await library.ownsPicture(hash ?? '')).toBe(true);
  expect(await sharp((await files().read(picture?.small ?? ''))!).metadata()).toMatchObject({ width: 480 });
  await lookOn(looked(word('Found', 'paragraph')));
  expect(await textOf(itemId)).toBe('Low water\n\nFound\n\nIt was dug by hand.\n\nThe yard');
  expect((await library.item(itemId))?.capture.page?.title).toBe('The slip');
});

it('takes the same pictures, given again, for what is there already, words and all', async () => {
  const body = `<title>Again</title>${await figure('#444')}`;
  const itemId = await captured(body);
  await lookOn(looked(word('Fathoms', 'paragraph')));
  await captured(body, itemId);
  expect((await library.item(itemId))?.capture.outcome).toEqual({ code: 'fetched-unchanged' });
  expect(await lookOn()).toEqual([]);
  expect(await textOf(itemId)).toBe('Fathoms');
  await captured(`<title>Again</title>${await figure('#555')}`, itemId);
  expect(await lookOn(looked(word('Cables', 'paragraph')))).toHaveLength(1);
  expect(await textOf(itemId)).toBe('Cables');
});

it('leaves what could not be looked at as it is, and tries what failed for another reason once more', async () => {
  const itemId = await captured(`<title>Too much</title>${await figure('#222')}`);
  await lookOn(new GivenUp('memory'));
  expect((await library.item(itemId))?.capture).toMatchObject({
    state: 'arrived',
    page: { pictures: [{ seen: null }] },
  });
  expect(await jobRepository(database, Date.now).openCount()).toBe(0);
  const other = await captured(`<title>Later</title>${await figure('#333')}`);
  await lookOn(new GivenUp('ended'));
  expect(await jobRepository(database, Date.now).openCount()).toBe(1);
  expect((await library.item(other))?.capture.state).toBe('arrived');
});

it('says what to do of a picture that cannot be read', async () => {
  const itemId = await captured(
    `<title>Broken</title><figure><img src="data:image/jpeg;base64,${Buffer.from('no picture at all').toString('base64')}" alt=""></figure>`,
  );
  expect((await library.item(itemId))?.capture).toMatchObject({
    state: 'failed',
    outcome: { code: 'failed', cause: { code: 'picture-not-read' } },
  });
});
