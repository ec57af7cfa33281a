import { createHash } from 'node:crypto';
import { fileAddress } from '@dorvel/core/address';
import { inBase64, inBase64Url, tagKey } from '@dorvel/core/model';
import type { Mutation } from '@dorvel/core/records';
import { printOf } from '../small-web/prints';
import { DAY_MS, madeAt, push, smallWebPort } from './reader';

/** Pictures that she has kept from pages: the host of each, its title, and when it was saved. */
const FROM_PAGES = [
  { print: 'chart-of-the-sound', host: 'tidewater', title: 'The Sound of Skerrow, 1871', days: 40, tags: ['charts'] },
  { print: 'chart-of-the-bar', host: 'tidewater', title: 'Entrance and bar', days: 39, tags: ['charts'] },
  {
    print: 'chart-of-the-streams',
    host: 'tidewater',
    title: 'Tidal streams after high water',
    days: 37,
    tags: ['charts', 'tides'],
  },
  { print: 'engine-section', host: 'slipway', title: 'The quiet engine, in section', days: 30, tags: ['engines'] },
  { print: 'engine-wiring', host: 'slipway', title: 'How the ferry is wired', days: 29, tags: ['engines', 'ferry'] },
  { print: 'oystercatcher', host: 'courier', title: 'Oystercatcher', days: 26, tags: ['birds'] },
  { print: 'wheatear', host: 'courier', title: 'Wheatear', days: 25, tags: ['birds'] },
  { print: 'tern-in-line', host: 'courier', title: 'Tern, a study in line', days: 24, tags: ['birds'] },
  { print: 'harbour-at-dusk', host: 'courier', title: 'The harbour at dusk', days: 20, tags: [] },
  { print: 'eelgrass-from-the-kite', host: 'tidewater', title: 'Eelgrass from the kite', days: 18, tags: ['eelgrass'] },
  { print: 'slipway-1931', host: 'slipway', title: 'The slip in 1931', days: 15, tags: ['ferry'] },
  { print: 'timetable', host: 'courier', title: 'Winter timetable', days: 12, tags: ['ferry'] },
  { print: 'passengers-by-month', host: 'courier', title: 'Passengers by month', days: 9, tags: ['ferry'] },
] as const;

/** What she photographed herself: one page, or several as one item. */
const PHOTOGRAPHED = [
  { prints: ['catalogue-page'], title: 'A page of the chandler’s catalogue', days: 11, tags: ['boats/repair'] },
  {
    prints: ['minutes-1', 'minutes-2'],
    title: 'Minutes of the ferry meeting, 1931',
    days: 8,
    tags: ['ferry', 'oral history'],
  },
  { prints: ['notice'], title: 'The notice on the quay', days: 3, tags: ['ferry'] },
] as const;

/** Keeps her pictures: their words, colours and kinds follow while the demo is being looked at. */
export async function keepPictures(started: number): Promise<void> {
  const changes: Mutation[] = [];
  const keep = (address: string, { title, days, tags }: { title: string; days: number; tags: readonly string[] }) => {
    const make = madeAt(started - days * DAY_MS);
    const save = make.save({ address, howMuch: 'picture' });
    changes.push(save, make.choose(save.itemId, { title, stage: 'kept' }));
    if (tags.length > 0) changes.push(make.tag(save.itemId, Object.fromEntries(tags.map((tag) => [tagKey(tag), tag]))));
    return { make, itemId: save.itemId };
  };
  for (const picture of FROM_PAGES) {
    const print = printOf(picture.print);
    keep(`http://${picture.host}.localhost:${smallWebPort}/prints/${picture.print}.${print?.format ?? 'png'}`, picture);
  }
  for (const pages of PHOTOGRAPHED) {
    const bytes: Buffer[] = [];
    for (const name of pages.prints) {
      const print = printOf(name);
      if (print) bytes.push(await print.made);
    }
    const figures = bytes.map((each) => `<figure><img src="data:image/jpeg;base64,${inBase64(each)}" alt=""></figure>`);
    const body = `<title></title>${figures.join('')}`;
    const { make, itemId } = keep(fileAddress(inBase64Url(createHash('sha256').update(body).digest())), pages);
    changes.push(make.provide(itemId, { type: 'text/html', body, encoding: 'utf8' }));
  }
  // One at a time: what is photographed is large.
  for (const change of changes) await push([change]);
}
