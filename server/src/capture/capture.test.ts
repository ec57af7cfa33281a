import { mkdtempSync, rmSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClock } from '@dorvel/core/sync';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { workshopInPlace } from '../apart/in-place';
import { GivenUp, type Workshop } from '../apart/workshop';
import { type Database, openDatabase } from '../db/open';
import { type FileStore, folderStore } from '../files/files';
import { jobRepository } from '../jobs/queue';
import { libraryOf } from '../library/library';
import { takeMutation } from '../library/take-mutations';
import { TEXT_TASKS } from '../tasks/texts';
import { capture, type CaptureTools } from './capture';
import { workshopExtractor } from './extractor';
import { rewritePicture } from './rewrite-picture';
import { createSiteIcons, usualIconOf } from './site-icon';

let folder: string;
let database: Database;
let site: http.Server;
let iconsAsked: string[];
/** Whether the site has an icon where browsers look for one that no page links to. */
let hasUsualIcon: boolean;
let port: number;
const clock = createClock('test', Date.now);
const texts = workshopInPlace(TEXT_TASKS);
const pictures = workshopInPlace({ rewrite: rewritePicture });

beforeAll(async () => {
  const picture = await sharp({ create: { width: 2000, height: 1000, channels: 3, background: '#357' } })
    .jpeg()
    .toBuffer();
  const icon = await sharp({ create: { width: 64, height: 64, channels: 4, background: '#753' } })
    .png()
    .toBuffer();
  site = http.createServer((request, response) => {
    if (request.url === '/picture.jpg') response.setHeader('content-type', 'image/jpeg').end(picture);
    else if (request.url === '/icon.png') {
      iconsAsked.push(request.url);
      response.setHeader('content-type', 'image/png').end(icon);
    } else if (request.url === '/favicon.ico' && hasUsualIcon) {
      iconsAsked.push(request.url);
      response.setHeader('content-type', 'image/x-icon').end(icon);
    } else if (request.url === '/broken.jpg') response.setHeader('content-type', 'image/jpeg').end('not a picture');
    else {
      const prose =
        '<p>A page with a picture says what there is to be said, and then it shows it, for those who would rather look.</p>'.repeat(
          6,
        );
      const [, linked] = /^\/with-(broken-)?icon/.exec(request.url ?? '') ?? [];
      const isLinked = request.url?.startsWith('/with-');
      const link = isLinked ? `<link rel="icon" sizes="64x64" href="/${linked ? 'broken.jpg' : 'icon.png'}">` : '';
      response
        .setHeader('content-type', 'text/html')
        .end(
          `${link}<title>With a picture</title><article>${prose}<img src="/picture.jpg" alt="Blue"><img src="/broken.jpg" alt="Lost">${prose}</article>`,
        );
    }
  });
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
  port = (site.address() as AddressInfo).port;
});
afterAll(() => new Promise((resolve) => site.close(resolve)));

beforeEach(async () => {
  iconsAsked = [];
  hasUsualIcon = false;
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
});
afterEach(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

let accountsMade = 0;
async function savedPage(of = '/page') {
  const account = await accountRepository(database, Date.now).create(
    `a${++accountsMade}@example.org`,
    'A Reader',
    'a long enough passphrase',
  );
  const library = libraryOf(database, account?.id ?? '');
  const itemId = uuidv7();
  const address = `http://127.0.0.1:${String(port)}${of}`;
  await library.change((write) =>
    takeMutation(
      write,
      { type: 'save', id: uuidv7(), itemId, address, savedAt: Date.now(), stamp: clock.next() },
      { clock, now: Date.now },
    ),
  );
  return { library, itemId };
}

const rules = () => ({ allowHosts: [`127.0.0.1:${String(port)}`], timeoutMs: 5000 });
const tools = (files: FileStore): CaptureTools => ({
  extractor: workshopExtractor({ quick: texts, long: texts }),
  darkrooms: { small: pictures, large: pictures },
  siteIconAt: createSiteIcons({ small: pictures, large: pictures }, files, rules()),
  files,
  rules: rules(),
  retryWaitsMs: [0, 0],
  pictureQuotaBytes: null,
  clock,
  now: Date.now,
});

it('keeps pictures anew, at a phone’s size, on our own origin; one that is none keeps its description', async () => {
  const { library, itemId } = await savedPage();
  const files = folderStore(path.join(folder, 'pictures'));
  const [job] = await jobRepository(database, Date.now).lane('quick').take(1);
  await capture(job!, library, tools(files));
  const item = await library.item(itemId);
  expect(item?.capture).toMatchObject({
    state: 'arrived',
    outcome: { code: 'arrived', missingPictures: 1 },
  });
  const copy = await library.copy(item?.capture.page?.copyId ?? '');
  const [, src = ''] = /"src":"([^"]+)"/.exec(JSON.stringify(copy?.tree)) ?? [];
  expect(src).toMatch(/^\/api\/pictures\/[0-9a-f]{64}\.webp$/);
  expect(JSON.stringify(copy?.tree)).toContain('"alt":"Lost"');
  expect(JSON.stringify(copy?.tree)).not.toContain('.jpg');
  const hash = /([0-9a-f]{64})/.exec(src)?.[1] ?? '';
  expect(await files.verify(hash)).toBe(true);
  expect(await library.ownsPicture(hash)).toBe(true);
  expect(await sharp((await files.read(hash))!).metadata()).toMatchObject({
    format: 'webp',
    width: 1280,
    height: 640,
  });
});

describe('the icon of a site', () => {
  const taken = async (of: string) => {
    const { library, itemId } = await savedPage(of);
    return async (made: CaptureTools) => {
      const [job] = await jobRepository(database, Date.now).lane('quick').take(1);
      await capture(job!, library, made);
      const page = (await library.item(itemId))?.capture.page;
      if (page?.icon) expect(await library.ownsPicture(page.icon)).toBe(true);
      return page;
    };
  };

  it('is kept with the copy, small, and fetched once for all its pages', async () => {
    const files = folderStore(path.join(folder, 'pictures'));
    const made = tools(files);
    const [first, second] = [await taken('/with-icon'), await taken('/with-icon/2')];
    const page = await first(made);
    expect((await second(made))?.icon).toBe(page?.icon);
    expect(await sharp((await files.read(page?.icon ?? ''))!).metadata()).toMatchObject({
      format: 'webp',
      width: 48,
      height: 48,
    });
    expect(iconsAsked).toEqual(['/icon.png']);
  });

  it('is looked for at the usual place when no page links to one, once for pages that come together', async () => {
    hasUsualIcon = true;
    const made = tools(folderStore(path.join(folder, 'pictures')));
    const both = [await taken('/page'), await taken('/page/2')];
    const icons = (await Promise.all(both.map((each) => each(made)))).map((page) => page?.icon);
    expect(icons).toEqual([expect.stringMatching(/^[0-9a-f]{64}$/), icons[0]]);
    expect(iconsAsked).toEqual(['/favicon.ico']);
    expect([usualIconOf('https://x.example/a/b?c'), usualIconOf('dorvel-file:abc')]).toEqual([
      'https://x.example/favicon.ico',
      null,
    ]);
  });

  it('holds nothing up when there is none, or what is there is no picture', async () => {
    const files = folderStore(path.join(folder, 'pictures'));
    expect((await (await taken('/page'))(tools(files)))?.icon).toBeNull();
    const made = tools(files);
    const broken = await (await taken('/with-broken-icon'))(made);
    expect(broken).toMatchObject({ icon: null, cameThrough: { verdict: 'whole' } });
  });
});

it('brings a text without its pictures when its reader has no room for more, and with them when there is', async () => {
  const { library, itemId } = await savedPage();
  const files = folderStore(path.join(folder, 'pictures'));
  const once = async (pictureQuotaBytes: number) => {
    const [job] = await jobRepository(database, Date.now).lane('quick').take(1);
    await capture(job!, library, { ...tools(files), pictureQuotaBytes });
    return (await library.item(itemId))?.capture;
  };
  await library.change((write) => write.putPictures([{ hash: 'a'.repeat(64), bytes: 1000 }]));
  const without = await once(1000);
  expect(without).toMatchObject({ state: 'arrived', outcome: { missingPictures: 2 }, page: { thumbnail: null } });
  expect(await library.pictureBytes()).toBe(1000);
  await library.change((write) => write.enqueueCapture(itemId, Date.now()));
  expect(await once(1001)).toMatchObject({ state: 'arrived', outcome: { missingPictures: 1 } });
  expect(await library.pictureBytes()).toBeGreaterThan(1001);
});

it('loses nothing when the disk is full: the save waits, says so, and arrives when there is room', async () => {
  const { library, itemId } = await savedPage();
  const jobs = jobRepository(database, Date.now);
  const files = folderStore(path.join(folder, 'pictures'));
  const full: FileStore = {
    ...files,
    put: () => Promise.reject(Object.assign(new Error('no space left on device'), { code: 'ENOSPC' })),
  };
  const [job] = await jobs.lane('quick').take(1);
  await capture(job!, library, tools(full));
  expect((await library.item(itemId))?.capture).toMatchObject({
    state: 'waiting',
    outcome: { code: 'tried-again', cause: { code: 'disk-full' } },
  });
  const [again] = await jobs.lane('quick').take(1);
  await capture(again!, library, tools(files));
  expect((await library.item(itemId))?.capture.state).toBe('arrived');
  expect(await jobs.openCount()).toBe(0);
});

describe('the two lanes', () => {
  const at = async (lane: 'quick' | 'long') => (await jobRepository(database, Date.now).lane(lane).take(5))[0];

  it.each<[string, Workshop['run'], boolean]>([
    ['too slow', () => Promise.reject(new GivenUp('time')), true],
    ['too large for memory', () => Promise.reject(new GivenUp('memory')), true],
    ['whose process could not be started', () => Promise.reject(new GivenUp('ended')), false],
  ])('a page %s goes to the long lane: %#', async (_what, run, isLong) => {
    const { library, itemId } = await savedPage();
    const files = folderStore(path.join(folder, 'pictures'));
    const failing = { run, close: () => Promise.resolve() };
    const job = await at('quick');
    const work = capture(job!, library, {
      ...tools(files),
      extractor: workshopExtractor({ quick: failing, long: texts }),
    });
    if (!isLong) {
      // It lies with the server: the runner puts it back, as after all that nobody foresaw.
      await expect(work).rejects.toMatchObject({ why: 'ended' });
      return;
    }
    await work;
    expect((await library.item(itemId))?.capture).toMatchObject({
      state: 'waiting',
      outcome: { code: 'waits-its-turn' },
    });
    await capture((await at('long'))!, library, tools(files));
    expect((await library.item(itemId))?.capture.state).toBe('arrived');
  });

  it('a page with a picture of many million pixels goes there too, and keeps its text when that is a trap', async () => {
    const { library, itemId } = await savedPage();
    const files = folderStore(path.join(folder, 'pictures'));
    const asked: string[] = [];
    const room = (answer: () => unknown): Workshop => ({
      run: (_task, input) => {
        asked.push((input as { room: string }).room);
        return Promise.resolve().then(answer);
      },
      close: () => Promise.resolve(),
    });
    const darkrooms = {
      small: room(() => 'too large'),
      large: room(() => {
        throw new GivenUp('memory');
      }),
    };
    await capture((await at('quick'))!, library, { ...tools(files), darkrooms });
    expect(asked).not.toContain('large');
    await capture((await at('long'))!, library, { ...tools(files), darkrooms });
    expect((await library.item(itemId))?.capture).toMatchObject({
      state: 'arrived',
      outcome: { code: 'arrived', missingPictures: 2 },
    });
    // Where one was a trap, the other was not even tried.
    expect(asked.filter((each) => each === 'large')).toHaveLength(1);
  });
});
