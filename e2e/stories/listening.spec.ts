import { expect, type Page } from '@playwright/test';
import { expectAccessible } from '../accessible';
import { test } from '../homes';
import { page as webPage } from '../ports';
import { goTo, openInYou, placeAtLine, readTo, row, save, signIn } from '../reader';

const TITLE = 'What the lead brought up';

interface Heard {
  sounds: { ended: boolean; seconds: number; loudness: number }[];
}

/** Listens in on what the page plays: each sound, whether it was heard to its end, and how loud it is. */
async function listenIn(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const blobs = new Map<string, Blob>();
    const made = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (blob: Blob) => {
      const address = made(blob);
      blobs.set(address, blob);
      return address;
    };
    const heard: { address: string; seconds: number }[] = [];
    const players: HTMLAudioElement[] = [];
    const PageAudio = globalThis.Audio;
    globalThis.Audio = class extends PageAudio {
      constructor() {
        super();
        players.push(this);
        this.addEventListener('ended', () => heard.push({ address: this.src, seconds: this.duration }));
      }
    };
    Object.assign(globalThis, {
      ratesNow: () => players.filter(({ paused }) => !paused).map(({ playbackRate }) => playbackRate),
      heardSoFar: () =>
        Promise.all(
          heard.map(async ({ address, seconds }) => {
            const bytes = await blobs.get(address)!.arrayBuffer();
            const samples = new Int16Array(bytes, 44);
            let square = 0;
            for (const sample of samples) square += (sample / 32768) ** 2;
            return { seconds, loudness: Math.sqrt(square / samples.length) };
          }),
        ),
    });
  });
}

const heardSoFar = (page: Page) =>
  page.evaluate(() => (globalThis as unknown as { heardSoFar(): Promise<Heard['sounds']> }).heardSoFar());

/** Waits until a voice is on this device: both of its files. */
const voiceHere = (page: Page) =>
  expect
    .poll(() => page.evaluate(async () => (await (await caches.open('dorvel-voices')).keys()).length))
    .toBeGreaterThanOrEqual(2);

/** The sentence that is marked as being spoken. */
const spokenSentence = (page: Page) =>
  page.evaluate(() => [...(CSS.highlights.get('spoken') ?? [])].map(String).join(''));

test('heard with the network cut, read on by eye, finished; and what would sink comes back', async ({
  page,
  context,
  browser,
  seeded,
}, { project }) => {
  test.skip(project.name !== 'phone', 'the story of a commuter');
  test.setTimeout(240_000);
  await listenIn(page);
  await signIn(page, seeded);

  await test.step('saved online, it is on the device a moment later', async () => {
    await save(page, webPage('chartroom', '/~chartroom/what-the-lead-brought-up.htm'));
    await expect(row(page, TITLE).getByRole('img', { name: /^\d+ min$/ })).toBeVisible();
    await expect(page.getByText(/to decide · on this device/)).toBeVisible();
    await goTo(page, 'Queue');
    await expect(page.getByText(/to read, .* · on this device/)).toBeVisible();
    await goTo(page, 'Inbox');
    await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
    await voiceHere(page);
  });

  await test.step('with the network cut it is read aloud, and every sound of it can be heard', async () => {
    await context.setOffline(true);
    await page.reload();
    await expect(page.getByText(/^Offline\./)).toBeVisible();
    await row(page, TITLE).getByRole('link').click();
    await page.getByRole('button', { name: 'Listen', exact: true }).click();
    await expect.poll(() => spokenSentence(page)).toContain('A sounding lead has a hollow in its foot.');
    await page.getByRole('button', { name: /^Speed and voice/ }).click();
    for (let rate = 1; rate < 2.95; rate += 0.1) await page.getByRole('button', { name: 'Faster' }).click();
    await expect(page.getByText('3.0×').first()).toBeVisible();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    const minutesOfSpeech = async () => (await heardSoFar(page)).reduce((sum, { seconds }) => sum + seconds, 0) / 60;
    await expect.poll(minutesOfSpeech, { timeout: 120_000, intervals: [2000] }).toBeGreaterThan(2);
    for (const { loudness } of await heardSoFar(page)) expect(loudness).toBeGreaterThan(0.01);
  });

  await test.step('back and on by a sentence', async () => {
    await page.getByRole('button', { name: 'Pause', exact: true }).click();
    const here = await spokenSentence(page);
    await page.getByRole('button', { name: 'Sentence back' }).click();
    await expect.poll(() => spokenSentence(page)).not.toBe(here);
    await page.getByRole('button', { name: 'Sentence forward' }).click();
    await expect.poll(() => spokenSentence(page)).toBe(here);
  });

  await test.step('what was not understood is said again, slower, also without looking', async () => {
    const here = await spokenSentence(page);
    await page.getByRole('button', { name: 'Say that again, slower' }).click();
    const rates = () => page.evaluate(() => (globalThis as unknown as { ratesNow(): number[] }).ratesNow());
    await expect.poll(rates).toContain(2.25);
    // The next sentence is as fast as before.
    await expect.poll(rates).not.toContain(2.25);
    expect(here).not.toBe('');
    await page.getByRole('button', { name: 'More of listening' }).click();
    await page.getByRole('button', { name: 'Car view' }).click();
    const car = page.getByRole('dialog', { name: 'Car' });
    await car.getByRole('button', { name: 'Pause' }).click();
    for (const name of ['Say that again, slower', 'Go on listening', 'Mark what was said']) {
      const box = await car.getByRole('button', { name }).boundingBox();
      expect(Math.min(box?.width ?? 0, box?.height ?? 0)).toBeGreaterThan(150);
    }
    await expectAccessible(page, 'listening in a car');
    await car.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('on by a paragraph and by time, silent all the while; and to sleep at the end of a part', async () => {
    const here = await spokenSentence(page);
    await page.getByRole('button', { name: 'More of listening' }).click();
    await page.getByRole('button', { name: 'Paragraph on' }).click();
    await page.getByRole('radio', { name: 'End of this part' }).click();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await expect(page.getByRole('region', { name: 'Player' })).toContainText('sleeps at the end of this part');
    await expect.poll(() => spokenSentence(page)).not.toBe(here);
    const place = async () => {
      const sentence = await spokenSentence(page);
      return page.evaluate((said) => document.querySelector('.article')!.textContent.indexOf(said), sentence);
    };
    const there = await place();
    await page.getByRole('button', { name: '15 seconds on' }).click();
    // At three times the speed that is three quarters of a minute of sound.
    await expect.poll(place).toBeGreaterThan(there + 200);
    await page.getByRole('button', { name: '15 seconds back' }).click();
    // Sounds that were not made yet on the way there were estimated: a sentence or two is near enough.
    await expect.poll(async () => Math.abs((await place()) - there)).toBeLessThan(250);
    await expect(page.getByRole('button', { name: 'Go on listening' })).toBeVisible();
  });

  await test.step('the eyes go on from that sentence', async () => {
    const sentence = await spokenSentence(page);
    const start = await page.evaluate(
      (spoken) => document.querySelector('.article')!.textContent.indexOf(spoken),
      sentence,
    );
    expect(start).toBeGreaterThan(0);
    await expect
      .poll(async () => Math.abs((await placeAtLine(page)).offset - start))
      .toBeLessThanOrEqual(Math.max(sentence.length, 60));
    await page.getByRole('button', { name: 'Stop listening' }).click();
    const at = await placeAtLine(page);
    await readTo(page, Math.min(0.95, at.offset / at.length + 0.2));
    await page.getByRole('button', { name: 'Back to Inbox' }).click();
  });

  await test.step('Now has it under what to go on with, and what it was carried by can be seen', async () => {
    await goTo(page, 'Now');
    const goOn = page.getByRole('region', { name: 'Go on with' });
    await expect(goOn.getByRole('listitem').first()).toContainText(TITLE);
    await expect(goOn.getByRole('listitem').first()).toContainText('read today');
    const beads = goOn.getByRole('listitem').first().locator('line[stroke-dasharray]');
    await expect(beads).toHaveCount(1);
    await goOn.getByRole('link', { name: new RegExp(TITLE) }).click();
  });

  await test.step('finished; an old item has come back, with its reason', async () => {
    await readTo(page, 1);
    await page.getByRole('button', { name: 'Finished', exact: true }).click();
    const back = page.getByRole('region', { name: 'Come back' });
    await expect(back.getByText(/saved \d+ (weeks|months) ago/).first()).toBeVisible();
    await expect(page.getByRole('region', { name: 'Go on with' }).getByText(TITLE)).toHaveCount(0);
    // What has just been finished changes what is near to it, and with it what comes back.
    let count = 0;
    const isAtRest = async () => {
      const before = count;
      count = await back.getByRole('listitem').count();
      return count >= 3 && count === before;
    };
    await expect.poll(isAtRest, { intervals: [500] }).toBe(true);
    await back
      .getByRole('button', { name: /^Not now/ })
      .first()
      .click();
    await expect(back.getByRole('listitem')).toHaveCount(count - 1);
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(back.getByRole('listitem')).toHaveCount(count);
  });

  await test.step('what is related to it is under it, says why, and opens', async () => {
    await goTo(page, 'Library');
    await page.getByRole('radio', { name: 'Finished' }).click();
    await row(page, TITLE).getByRole('link').click();
    const related = page.getByRole('region', { name: 'Related' });
    await expect(related.getByText(/^both speak of /).first()).toBeVisible();
    await expect(related).toContainText('What the eelgrass knows');
    await related.getByRole('link', { name: /What the eelgrass knows/ }).click();
    await expect(page.getByText('By the third summer the divers had stopped counting')).toBeVisible();
  });

  await test.step('back online, another device knows the minutes, by ear and by eye', async () => {
    await context.setOffline(false);
    await expect(page.getByText(/to be sent/)).toHaveCount(0);
    const other = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    await signIn(other, seeded);
    const mine = await thisWeekOn(page);
    const theirs = await thisWeekOn(other);
    await expect.poll(async () => (await mine.allTextContents()).slice(1).join(' ')).toMatch(/[1-9]/);
    // A week that has just begun has little in it: what counts is that both know the same.
    await expect.poll(() => theirs.allTextContents()).toEqual(await mine.allTextContents());
    await other.context().close();
  });
});

test('the slot fills from the Queue, answers while it is dragged, and keeps to the keyboard', async ({
  page,
  seeded,
}) => {
  await signIn(page, seeded);
  await goTo(page, 'Now');
  const slot = page.getByRole('region', { name: 'Slot' });
  const minutes = slot.getByRole('slider', { name: 'Minutes you have' });
  await minutes.focus();
  await page.keyboard.press('Home');
  await expect(slot.getByRole('heading', { name: '5 minutes' })).toBeVisible();
  const strandMinutes = async () =>
    (
      await slot
        .getByRole('img')
        .evaluateAll((strands) => strands.map((strand) => strand.getAttribute('aria-label') ?? ''))
    ).map((label) => Number(/(\d+) min$/.exec(label)?.[1]));
  for (const asked of [5, 10, 15, 20]) {
    await expect(slot.getByRole('heading', { name: `${asked} minutes` })).toBeVisible();
    const taken = (await strandMinutes()).reduce((sum, each) => sum + each, 0);
    // Each is rounded to the minute on screen, so the sum may be off by half a minute for each.
    expect(taken).toBeLessThanOrEqual(asked + (await strandMinutes()).length / 2);
    await page.keyboard.press('ArrowRight');
  }
  await slot.getByRole('radio', { name: 'Ears' }).click();
  await expect(slot.getByText(/fits?, |fits whole|can be heard/)).toBeVisible();
  // No voice that ships reads Japanese.
  await page.keyboard.press('End');
  await expect(slot.getByRole('img', { name: /潮の音/ })).toHaveCount(0);
});

test('voices are shown, heard, fetched and taken off; one that is not here says so', async ({
  page,
  context,
  seeded,
}) => {
  await signIn(page, seeded);
  await voiceHere(page);
  await openInYou(page, 'Voices and speed');
  const voice = (name: string) => page.getByRole('group', { name, exact: true });
  await expect(voice('English, British')).toContainText('On this device, 1.0 MB');
  await voice('Italian').getByRole('button', { name: 'Fetch Italian' }).click();
  await expect(voice('Italian')).toContainText('On this device, 0.9 MB');
  const heard = page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const play = HTMLMediaElement.prototype.play;
        HTMLMediaElement.prototype.play = function () {
          this.addEventListener('ended', () => resolve(this.duration), { once: true });
          return play.call(this);
        };
      }),
  );
  await voice('Italian').getByRole('button', { name: 'Hear Italian' }).click();
  expect(await heard).toBeGreaterThan(1.5);
  await expectAccessible(page, 'voices');
  await voice('Italian').getByRole('button', { name: 'Remove Italian from this device' }).click();
  await expect(voice('Italian')).toContainText('Not on this device');

  // Kept where an update of the app leaves it, and looked for there.
  await voice('English, British').getByRole('button', { name: 'Remove English, British from this device' }).click();
  await goTo(page, 'Queue');
  await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
  await context.setOffline(true);
  await page.reload();
  await page.getByRole('link').filter({ hasText: 'What the eelgrass knows' }).click();
  await page.getByRole('button', { name: 'Listen', exact: true }).click();
  const player = page.getByRole('region', { name: 'Player' });
  await expect(player).toContainText('“English, British” is not on this device yet');
  await context.setOffline(false);
  await player.getByRole('button', { name: 'Go on listening' }).click();
  await expect(player).toContainText('left to hear');
  await expect.poll(() => spokenSentence(page)).not.toBe('');
  await player.getByRole('button', { name: 'Stop listening' }).click();
});

/** What a device tells of this week: a cell each for what came in, was read, was heard, and the minutes by eye and by ear. */
async function thisWeekOn(device: Page) {
  await device.goto(new URL('/now', device.url()).href);
  await device.getByRole('button', { name: 'How I am doing' }).click();
  await device.getByRole('radio', { name: 'As a table' }).click();
  return device.getByRole('group', { name: 'Week by week' }).getByRole('row').nth(1).getByRole('cell');
}
