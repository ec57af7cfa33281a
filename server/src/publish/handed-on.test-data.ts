import { changeMaker, type Mutation, REGISTRY } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { pageFrom } from '@dorvel/core/testing';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { folderStore } from '../files/files';
import { findableLibrary } from '../library/findable';
import { openTestLibrary } from '../library/test-library.test-data';
import { dossierShelf } from './dossiers';

/** Words that a spreadsheet, a page or a line of text would make something else of. */
export const TRICKS = [
  '=HYPERLINK("http://evil.example","press")',
  '+1+cmd|calc',
  '-2+3',
  '@SUM(A1)',
  '<script>alert(1)</script><img src=x onerror=alert(1)>',
  '</title></head><h1>mine</h1>',
  '\u202Egnp.exe\u202C and \u2066more\u2069',
  'a "quoted" & b <b>',
  ']]>&amp;<![CDATA[',
  '# no heading *no star* [no](http://evil.example)',
  '{\\write18{rm}} $x_1$ %',
  'TI  - a field\nER  - ',
];

/** A library with a dossier in it of which every title, caption, note and fact is a trick. */
export async function tricked() {
  let now = Date.UTC(2026, 10, 28);
  const { folder, database, accountId, library, close } = await openTestLibrary(() => now);
  const files = folderStore(`${folder}/pictures`);
  const make = changeMaker({ clock: createClock('a', () => (now += 5)), newId: uuidv7, now: () => now });
  const [dossierId, changes] = begin();
  const png = await sharp({ create: { width: 64, height: 40, channels: 3, background: '#6E2F6B' } })
    .webp()
    .toBuffer();
  const hash = await files.put(png);
  const ids: string[] = [];

  function begin(): [string, Mutation[]] {
    const dossier = make.dossier({
      title: TRICKS[5] ?? '',
      introduction: `Before. ${TRICKS[4] ?? ''}`,
      withFacts: true,
      named: true,
    });
    dossier.columns = { 'own-1': { title: TRICKS[0] ?? '', hidden: false } };
    return [dossier.dossierId, [dossier]];
  }

  await library.change(async (write) => {
    await write.putPictures([{ hash, bytes: png.length }]);
    for (const [n, title] of TRICKS.entries()) {
      const save = make.save({ address: `https://x.example/page?n=${n}&b=(a)_c` });
      const kind = REGISTRY.named('item');
      const item = kind.apply(undefined, save) as Parameters<typeof write.put>[0];
      const copyId = uuidv7();
      item.capture.state = 'arrived';
      item.capture.page = pageFrom({
        ...{ title, siteName: TRICKS[(n + 1) % TRICKS.length] ?? '', authors: [TRICKS[(n + 2) % TRICKS.length] ?? ''] },
        ...{ copyId, thumbnail: hash, minutes: n + 1, publishedAt: '2026-03-02', language: 'en' },
        facts: [
          {
            about: 'product',
            of: title,
            key: 'offers.price',
            value: { type: 'money', amount: 480.5 + n, currency: 'EUR' },
            source: 'json-ld',
          },
          {
            about: 'product',
            of: title,
            key: 'brand',
            value: { type: 'text', text: TRICKS[(n + 3) % TRICKS.length] ?? '' },
            source: 'json-ld',
          },
        ],
      });
      await write.put(item);
      await write.putCopy({
        ...{ id: copyId, itemId: item.id, madeAt: now, title, language: 'en', hash: null },
        tree: {
          type: 'root',
          children: [
            { type: 'element', tagName: 'h2', properties: { id: 'in-a' }, children: [{ type: 'text', value: title }] },
            {
              type: 'element',
              tagName: 'p',
              properties: {},
              children: [
                { type: 'text', value: 'Words & <more>\u0007 of it. ' },
                {
                  type: 'element',
                  tagName: 'a',
                  properties: { href: '#in-a' },
                  children: [{ type: 'text', value: 'up' }],
                },
                {
                  type: 'element',
                  tagName: 'a',
                  properties: { href: '#in-nowhere' },
                  children: [{ type: 'text', value: 'nowhere' }],
                },
                {
                  type: 'element',
                  tagName: 'a',
                  properties: { href: 'https://x.example/a b?c=%zz|' },
                  children: [{ type: 'text', value: 'odd' }],
                },
                {
                  type: 'element',
                  tagName: 'img',
                  properties: { src: `/api/pictures/${hash}.webp`, alt: title },
                  children: [],
                },
                {
                  type: 'element',
                  tagName: 'img',
                  properties: { src: 'https://x.example/elsewhere.png', alt: 'elsewhere' },
                  children: [],
                },
                {
                  type: 'element',
                  tagName: 'math',
                  properties: {},
                  children: [
                    { type: 'element', tagName: 'mi', properties: {}, children: [{ type: 'text', value: 'x' }] },
                  ],
                },
              ],
            },
          ],
        },
      });
      ids.push(item.id);
    }
    const first = ids[0] ?? '';
    const mark = make.highlight(first, 'key', {
      exact: TRICKS[4] ?? '',
      prefix: '',
      suffix: '',
      start: 0,
      copyId: null,
    });
    const note = make.note({ itemId: null, on: { kind: 'nothing' } }, { text: `**Mine:** ${TRICKS.join('\n\n')}` });
    let place = 0;
    const rank = () => `a${(place++).toString(36).padStart(1, '0')}`;
    changes.push(
      mark,
      note,
      make.entry(dossierId, { kind: 'heading' }, { rank: rank(), text: TRICKS[4] ?? '' }),
      ...ids.map((itemId, n) => {
        const entry = make.entry(dossierId, { kind: 'item', itemId }, { rank: rank() });
        entry.cells = { 'own-1': TRICKS[n] ?? '' };
        return entry;
      }),
      make.entry(dossierId, { kind: 'passage', itemId: first, highlightId: mark.highlightId }, { rank: rank() }),
      make.entry(dossierId, { kind: 'note', noteId: note.noteId }, { rank: rank(), purpose: 'judgement' }),
      make.entry(dossierId, { kind: 'picture', itemId: first, hash }, { rank: rank(), text: TRICKS[4] ?? '' }),
      make.entry(dossierId, { kind: 'item', itemId: uuidv7() }, { rank: rank() }),
    );
    for (const change of changes) {
      const kind = REGISTRY.of(change);
      const known = await write.record(kind, kind.idOf(change));
      const made = kind.apply(known, change);
      if (made) await write.putRecord(kind, made);
    }
  });
  const dossiers = dossierShelf(database, { findable: (id) => findableLibrary(database, id), now: () => now });
  return { dossiers, accountId, dossierId, library, files, folder, hash, make, close, database };
}
