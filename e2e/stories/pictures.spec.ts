import { expect, type Page, test } from '@playwright/test';
import sharp from 'sharp';
import { printOf } from '../../demo/small-web/prints';
import { expectAccessible, expectTargets } from '../accessible';
import { Finger } from '../finger';
import { type OwnServer, ownServer } from '../own-server';
import { page as webPage, PICTURES_PORTS } from '../ports';
import { goTo, openInYou, row, save, signIn, tag } from '../reader';
import { asFax, asFlate, asJbig2, asJpeg2000, IN_JPEG_2000, pdfOf } from '../scanned';

/** A library of its own for each: what is counted here are all its pictures. */
let server: OwnServer;
test.beforeEach(async ({ page }, { project }) => {
  server = ownServer(project.name === 'phone' ? PICTURES_PORTS.phone : PICTURES_PORTS.wide, { DORVEL_DEMO: '1' });
  await server.start();
  await signIn(page, server.origin);
});
test.afterEach(() => server.clear());

/** A print as a file that is chosen or photographed. */
async function file(name: string, as = name) {
  const print = printOf(name);
  if (!print) throw new Error(`no print ${name}`);
  return { name: `${as}.${print.format}`, mimeType: `image/${print.format}`, buffer: await print.made };
}

const article = (page: Page) => page.getByRole('region', { name: 'Article' });
/** Until the server has looked at what is open: what is in it is told below it. */
async function lookedAt(page: Page): Promise<void> {
  await expect(
    page.getByRole('region', { name: 'About the picture' }).getByText(/read in it|No printed words/),
  ).toBeVisible({
    timeout: 120_000,
  });
  await expect(page.getByRole('list', { name: 'Colours' })).toBeVisible({ timeout: 120_000 });
}

test('two pages photographed offline are one item; back on line a word in them is found, and shown where it stands', async ({
  page,
  context,
}, { project }) => {
  test.slow();
  await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
  await context.setOffline(true);

  await test.step('photographed one after the other, and put in order', async () => {
    await page.getByRole('button', { name: 'Save an address' }).first().click();
    await page.getByLabel('Photograph a page').setInputFiles(await file('minutes-2', 'IMG_0002'));
    const sheet = page.getByRole('dialog', { name: /Save (a picture|pictures)/ });
    await sheet.getByLabel('Photograph another page').setInputFiles(await file('minutes-1', 'IMG_0001'));
    await sheet.getByRole('button', { name: 'Put IMG_0001.jpeg one earlier' }).click();
    await expect(sheet.getByRole('list', { name: 'Pictures' }).getByRole('listitem').first()).toContainText('IMG_0001');
    await expect(sheet.getByRole('radio', { name: 'As one item' })).toBeChecked();
    await sheet.getByRole('button', { name: 'Save 1' }).click();
    await expect(page.getByText('1 saved to Inbox.')).toBeVisible();
  });

  await test.step('read on the server once there is a connection, and named by their first line', async () => {
    await context.setOffline(false);
    const saved = row(page, /MINUTES OF THE FERRY MEETING/i);
    await expect(saved).toBeVisible({ timeout: 60_000 });
  });

  await test.step('a word of the second page is found, and outlined in the picture', async () => {
    await goTo(page, 'Library');
    await page.getByRole('searchbox', { name: 'Find' }).fill('fathoms manila');
    const found = row(page, /MINUTES/i).filter({ hasText: /fathoms/ });
    await expect(found).toBeVisible({ timeout: 20_000 });
    await found.getByRole('link').first().click();
    const outlined = article(page).locator('.piece-outlined');
    await expect(outlined).toHaveCount(2);
    const second = article(page).locator('figure').nth(1);
    await expect(second.locator('.piece-outlined')).toHaveCount(2);
    // Where it stands: within the picture, about two fifths down the page.
    const [piece, picture] = await Promise.all([outlined.first().boundingBox(), second.locator('img').boundingBox()]);
    expect(piece!.y).toBeGreaterThan(picture!.y);
    expect(piece!.y + piece!.height).toBeLessThan(picture!.y + picture!.height);
    await expect(second.locator('.piece-outlined').first()).toBeInViewport();
    await expect(article(page)).toContainText('The meeting closed when the lamp was needed.');
  });

  await test.step('offline too, with the words over the picture to be selected', async () => {
    await context.setOffline(true);
    await article(page)
      .getByRole('button', { name: /^Enlarge/ })
      .nth(1)
      .click();
    const view = page.getByRole('dialog', { name: 'Picture 2 of 2' });
    await expect(view.locator('.word', { hasText: 'schoolmistress' }).first()).toBeAttached();
    expect(
      await view
        .locator('.word', { hasText: 'schoolmistress' })
        .first()
        .evaluate((word) => {
          getSelection()!.selectAllChildren(word);
          return String(getSelection()).trim();
        }),
    ).toBe('schoolmistress');
    await view.getByRole('button', { name: 'Picture before' }).click();
    await expect(page.getByRole('dialog', { name: 'Picture 1 of 2' }).locator('.word').first()).toBeAttached();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('dialog', { name: 'Picture 2 of 2' })).toBeVisible();
    if (project.name === 'phone') {
      const finger = new Finger(await context.newCDPSession(page));
      const stroke = async (from: number, to: number) => {
        await finger.stroke([from, 400], [to, 400]);
        await finger.up();
      };
      await stroke(80, 320);
      await expect(page.getByRole('dialog', { name: 'Picture 1 of 2' })).toBeVisible();
      await stroke(320, 80);
      await expect(page.getByRole('dialog', { name: 'Picture 2 of 2' })).toBeVisible();
    }
    await page.keyboard.press('Escape');
    await context.setOffline(false);
  });
});

test('a picture of a page is found by its kind and colours; its kind and a word are put right, and what is typed in is found', async ({
  page,
}) => {
  test.slow();

  await test.step('by its address, and as a file', async () => {
    await page.getByRole('button', { name: 'Save an address' }).first().click();
    await page.getByLabel('Or choose files').setInputFiles([await file('wheatear'), await file('notice')]);
    const sheet = page.getByRole('dialog', { name: 'Save pictures' });
    await sheet.getByRole('radio', { name: 'Each by itself' }).click();
    await sheet.getByRole('button', { name: 'Save 2' }).click();
    await save(page, webPage('slipway', '/prints/engine-section.png'));
    await expect(row(page, 'engine-section')).toBeVisible();
  });

  await test.step('its words, colours and kind are told, with what it is told by', async () => {
    await row(page, 'engine-section').getByRole('link').first().click();
    await lookedAt(page);
    const about = page.getByRole('region', { name: 'About the picture' });
    await expect(about).toContainText('Diagram or chart');
    await expect(about).toContainText('Told by how it looks');
    await expect(article(page)).toContainText('Condenser');
    await expectAccessible(page, 'a picture');
  });

  await test.step('another kind, said by the reader, counts', async () => {
    const about = page.getByRole('region', { name: 'About the picture' });
    await about.getByRole('button', { name: 'It is something else' }).click();
    await about.getByRole('radio', { name: 'Line drawing' }).click();
    await expect(about).toContainText('As you said.');
  });

  await test.step('a word put right stands in the text and is found', async () => {
    await page.getByRole('button', { name: 'Put words right' }).click();
    const sheet = page.getByRole('dialog', { name: 'Words read in the picture' });
    const all = sheet.getByRole('radio', { name: 'All words' });
    if (await all.isVisible()) await all.click();
    await sheet.getByLabel('Read as “Condenser”').fill('Kondensator');
    await sheet.getByRole('button', { name: 'Done' }).click();
    await expect(article(page)).toContainText('Kondensator');
    // On a phone the reader covers the bar of places.
    const back = page.getByRole('button', { name: /^Back to/ });
    if (await back.isVisible()) await back.click();
    await goTo(page, 'Library');
    const find = page.getByRole('searchbox', { name: 'Find' });
    await find.fill('kondensator kind:line-drawing');
    await expect(row(page, 'engine-section')).toBeVisible({ timeout: 20_000 });
  });

  await test.step('what nothing can read is typed in beside the picture', async () => {
    await page.goto(`${server.origin}/pictures`);
    await page.getByRole('searchbox', { name: 'Find' }).fill('');
    await page.getByRole('link', { name: /^notice/ }).click();
    await lookedAt(page);
    await page.getByRole('button', { name: 'Type in what it says' }).click();
    const sheet = page.getByRole('dialog', { name: 'What it says' });
    await sheet.getByLabel('What stands in it').fill('No boat today, wind over tide.\nAsk Ines at the loft.');
    await sheet.getByRole('button', { name: 'Save' }).click();
    await expect(article(page)).toContainText('Ask Ines at the loft.');
  });

  await test.step('the wall narrows by colour and kind, in the order of the library', async () => {
    await page.goto(`${server.origin}/pictures`);
    const wall = page.getByRole('list', { name: 'Pictures' });
    await expect(wall.getByRole('listitem')).toHaveCount(3);
    const group = page.getByRole('group', { name: 'Narrow by' });
    await group.getByRole('button', { name: 'Drawing', exact: true }).click();
    await expect(wall.getByRole('link', { name: /^wheatear/ })).toBeVisible();
    await expect(wall.getByRole('listitem')).toHaveCount(1);
    await page.getByRole('searchbox', { name: 'Find' }).fill('colour:green kind:picture');
    await expect(wall.getByRole('link', { name: /^wheatear/ })).toBeVisible();
    await page.getByRole('searchbox', { name: 'Find' }).fill('colour:purple');
    await expect(page.getByText(/No item of yours is so/)).toBeVisible();
    await page.getByRole('searchbox', { name: 'Find' }).fill('loft ines');
    await expect(wall.getByRole('link', { name: /^notice/ })).toBeVisible();
    await expectAccessible(page, 'pictures');
    await expectTargets(page, 'pictures');
  });

  await test.step('a swatch leads to the pictures that have its colour', async () => {
    await page.getByRole('searchbox', { name: 'Find' }).fill('');
    await page.getByRole('link', { name: /^wheatear/ }).click();
    await lookedAt(page);
    await page.getByRole('button', { name: /^green.*find pictures with it/ }).click();
    await expect(page.getByRole('searchbox', { name: 'Find' })).toHaveValue(/^colour:green/);
    await expect(row(page, 'wheatear').first()).toBeVisible();
  });
});

test('a picture that is there already is told of before it is saved; what is like it says how it may be tagged', async ({
  page,
}) => {
  test.slow();
  const choose = async (made: { name: string; mimeType: string; buffer: Buffer }) => {
    await page.getByRole('button', { name: 'Save an address' }).first().click();
    await page.getByLabel('Photograph a page').setInputFiles(made);
  };
  await choose(await file('harbour-at-dusk'));
  await page.getByRole('button', { name: 'Save 1' }).click();
  await row(page, 'harbour at dusk').getByRole('link').first().click();
  await lookedAt(page);
  await page.goto(`${server.origin}/inbox`);
  await tag(page, 'harbour at dusk', 'evenings');
  const { buffer } = await file('harbour-at-dusk');
  await choose({
    name: 'dusk.jpg',
    mimeType: 'image/jpeg',
    buffer: await sharp(buffer).resize(500).jpeg({ quality: 50 }).toBuffer(),
  });
  await expect(page.getByText('Looks the same as “harbour at dusk”, which you have.')).toBeVisible();
  await page.getByRole('button', { name: 'Save 1' }).click();
  const again = row(page, /^dusk/);
  await again.getByRole('link').first().click();
  await lookedAt(page);
  await page.goto(`${server.origin}/inbox`);
  await again.getByRole('button').click();
  await page.getByRole('button', { name: /^Tags/ }).click();
  await expect(page.getByRole('group', { name: 'Suggested' })).toContainText('evenings');
});

test('a picture that is seen large stays open while its words arrive, and has them then', async ({ page }) => {
  test.slow();
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  await page.getByLabel('Photograph a page').setInputFiles(await file('minutes-1'));
  await page.getByRole('button', { name: 'Save 1' }).click();
  await row(page, 'minutes 1').getByRole('link').first().click();
  await article(page)
    .getByRole('button', { name: /^Enlarge/ })
    .click();
  const view = page.getByRole('dialog', { name: 'minutes 1' });
  await expect(view).toBeVisible();
  await expect(view.locator('.word').first()).toBeAttached({ timeout: 120_000 });
  await expect(view.locator('.word').filter({ hasText: 'MINUTES' })).toBeAttached();
});

test('what is no picture says so before it is saved', async ({ page }) => {
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  await page.getByLabel('Photograph a page').setInputFiles({
    name: 'IMG_1.heic',
    mimeType: 'image/heic',
    buffer: Buffer.from('....ftypheic....'),
  });
  const sheet = page.getByRole('dialog', { name: 'Save a picture' });
  await expect(sheet.getByText(/IMG_1\.heic is of a kind \(HEIC\) that this browser cannot read/)).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Save 0' })).toBeDisabled();
});

test('where it was saved is kept for who wants that, found by, and forgotten', async ({ page, context }) => {
  const settings = async () => {
    await openInYou(page, 'Save pages as');
    return page.getByRole('switch', { name: 'With the place' });
  };
  await test.step('a browser that does not tell says so, and it stays off', async () => {
    const places = await settings();
    await places.click();
    await expect(page.getByText(/This browser does not tell where it is/)).toBeVisible({ timeout: 30_000 });
    await expect(places).not.toBeChecked();
    await expectAccessible(page, 'you: save pages as');
  });
  await test.step('allowed, it is kept with what is saved from now on', async () => {
    await context.grantPermissions(['geolocation'], { origin: server.origin });
    await context.setGeolocation({ latitude: 58.981, longitude: -2.96, accuracy: 20 });
    await page.getByRole('switch', { name: 'With the place' }).click();
    await expect(page.getByRole('switch', { name: 'With the place' })).toBeChecked();
    await goTo(page, 'Inbox');
    await save(page, webPage('hall', '/notices/how-to-caulk-a-seam'));
    await expect(row(page, /caulk a seam/i)).toBeVisible();
  });
  await test.step('what was saved near there is found', async () => {
    await row(page, /caulk a seam/i)
      .getByRole('button', { name: /^What to do with/ })
      .click();
    const where = page.getByRole('dialog').getByRole('region', { name: 'Place' });
    await expect(where).toContainText('58.9810° N, 2.9600° W, give or take 20 m');
    await where.getByRole('button', { name: 'What else is near there' }).click();
    await expect(page.getByRole('searchbox', { name: 'Find' })).toHaveValue(/near:58\.981,-2\.96/);
    await expect(row(page, /caulk a seam/i)).toBeVisible();
  });
  await test.step('and no more once the place is forgotten', async () => {
    await row(page, /caulk a seam/i)
      .getByRole('button', { name: /^What to do with/ })
      .click();
    await page.getByRole('dialog').getByRole('button', { name: 'Forget the place' }).click();
    await expect(page.getByRole('dialog').getByRole('region', { name: 'Place' })).toBeHidden();
    await page.keyboard.press('Escape');
    await expect(row(page, /caulk a seam/i)).toBeHidden();
  });
});

test('where a picture was taken is left out, unless the reader keeps it', async ({ page }) => {
  const print = printOf('oystercatcher');
  if (!print) throw new Error('no such print');
  // Written by libvips and libexif, which have nothing of ours: 58° 58′ 51.6″ N, 2° 57′ 36″ W.
  const gps = {
    GPSLatitudeRef: 'N',
    GPSLatitude: '58/1 58/1 516/10',
    GPSLongitudeRef: 'W',
    GPSLongitude: '2/1 57/1 36/1',
  };
  const taken = await sharp(await print.made)
    .jpeg()
    .withExif({ IFD3: gps })
    .toBuffer();
  const choose = async (as: string) => {
    await page.getByRole('button', { name: 'Save an address' }).first().click();
    await page
      .getByLabel('Photograph a page')
      .setInputFiles({ name: `${as}.jpeg`, mimeType: 'image/jpeg', buffer: taken });
    return page.getByRole('dialog', { name: 'Save a picture' });
  };
  const sheet = await choose('A bird on the strand');
  await sheet.getByRole('switch', { name: 'Keep where it was taken' }).click();
  await sheet.getByRole('button', { name: 'Save 1' }).click();
  const saved = row(page, /bird on the strand/);
  await saved.getByRole('button', { name: /^What to do with/ }).click();
  const where = page.getByRole('dialog').getByRole('region', { name: 'Place' });
  await expect(where).toContainText('58.9810° N, 2.9600° W');
  await page.keyboard.press('Escape');
  const again = await choose('The same without');
  await expect(again.getByRole('switch', { name: 'Keep where it was taken' })).not.toBeChecked();
  await expectAccessible(page, 'a picture that says where it was taken');
});

test('a scanned document is read in the order of its pages, however they were packed', async ({ page }) => {
  const pdf = pdfOf([
    await asFax('The ferry leaves the north quay', 'at seven in the morning'),
    await asFlate('Dogs travel below deck', 'and pay half'),
    await asJbig2('Kettles hang over', 'the second stove'),
    asJpeg2000(),
  ]);
  await page.getByRole('button', { name: 'Save an address' }).first().click();
  const sheet = page.getByRole('dialog', { name: 'Save an address' });
  await sheet
    .getByLabel(/^Or choose/)
    .first()
    .setInputFiles({ name: 'rules.pdf', mimeType: 'application/pdf', buffer: pdf });
  await page.getByRole('button', { name: 'Save 1' }).click();
  await row(page, /rules/).getByRole('link').first().click();
  await expect(article(page)).toContainText(
    new RegExp(
      [
        ...['The ferry leaves the north quay', 'at seven in the morning', 'Dogs travel below deck', 'and pay half'],
        ...['Kettles hang over', 'the second stove', ...IN_JPEG_2000],
      ].join('\\s*'),
    ),
    {
      timeout: 60_000,
    },
  );
});
