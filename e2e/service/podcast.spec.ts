import { Podcast } from '@dorvel/core/model';
import { createClock } from '@dorvel/core/sync';
import { expect } from '@playwright/test';
import { parseBuffer } from 'music-metadata';
import { v7 as uuidv7 } from 'uuid';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { Client } from './client';

const clock = createClock('podcast', Date.now);

test('the Queue is heard as a podcast by whoever has its address, and by nobody else', async ({ page, empty }) => {
  test.setTimeout(180_000);
  const reader = await new Client(empty).signIn();
  const itemId = await reader.save(webPage('rough', '/turning/podcast'));
  const item = await reader.settled(itemId);
  expect(item.capture.page).not.toBeNull();
  const queue = {
    type: 'choose',
    id: uuidv7(),
    itemId,
    set: { stage: 'queue' },
    stamp: clock.next(),
  } as const;
  await reader.push(queue);
  const read = async (method: string) =>
    Podcast.parse(await (await reader.call(method, '/podcast', method === 'POST' ? {} : undefined)).json()).podcast;
  expect(await read('GET')).toBeNull();
  const made = await read('POST');
  const mine = async () => (await read('GET'))?.episodes.find((each) => each.itemId === itemId);
  await expect.poll(async () => (await mine())?.state, { timeout: 120_000, intervals: [1000] }).toBe('done');

  const address = made?.address ?? '';
  const feed = await (await fetch(address)).text();
  // Read by the browser's own parser of XML, which knows nothing of ours.
  const [found] = await page.evaluate(
    (written) => {
      const xml = new DOMParser().parseFromString(written, 'application/xml');
      return [...xml.querySelectorAll('item')].map((each) => ({
        title: each.querySelector('title')?.textContent ?? '',
        url: each.querySelector('enclosure')?.getAttribute('url') ?? '',
        length: Number(each.querySelector('enclosure')?.getAttribute('length')),
        type: each.querySelector('enclosure')?.getAttribute('type'),
        seconds: Number(each.getElementsByTagName('itunes:duration')[0]?.textContent),
        errors: xml.querySelectorAll('parsererror').length,
      }));
    },
    feed.replace(/[\s\S]*?(?=<rss)/, ''),
  );
  expect(found).toMatchObject({ type: 'audio/mpeg', errors: 0 });

  const answer = await fetch(found!.url);
  const bytes = new Uint8Array(await answer.arrayBuffer());
  expect(bytes.length).toBe(found!.length);
  const part = await fetch(found!.url, { headers: { range: 'bytes=100-199' } });
  expect([part.status, (await part.arrayBuffer()).byteLength]).toEqual([206, 100]);
  // By a library of its own: what the file itself says.
  const { common, format } = await parseBuffer(bytes, 'audio/mpeg', { includeChapters: true });
  expect(common.title).toBe(found!.title);
  expect(format.container).toBe('MPEG');
  expect(Math.abs((format.duration ?? 0) - found!.seconds)).toBeLessThan(2);
  // Within a fifth of what is said of it: words at 175 a minute.
  const estimate = ((item.capture.page?.wordCount ?? 0) / 175) * 60;
  expect(Math.abs(found!.seconds / estimate - 1)).toBeLessThan(0.2);
  // Heard by the browser: it is no silence.
  const loudness = await page.evaluate(async (encoded) => {
    const raw = Uint8Array.from(atob(encoded), (char) => char.charCodeAt(0));
    const sound = await new OfflineAudioContext(1, 22_050, 22_050).decodeAudioData(raw.buffer);
    const samples = sound.getChannelData(0);
    return Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length);
  }, Buffer.from(bytes).toString('base64'));
  expect(loudness).toBeGreaterThan(0.01);

  const again = await read('POST');
  expect(again?.address).not.toBe(address);
  expect((await fetch(address)).status).toBe(404);
  expect((await fetch(found!.url)).status).toBe(404);
  expect((await fetch(again?.address ?? '')).status).toBe(200);
  expect(await read('DELETE')).toBeNull();
  expect((await fetch(again?.address ?? '')).status).toBe(404);
  expect((await fetch(`${empty}/podcast/../../etc/feed.xml`)).status).not.toBe(500);
});
