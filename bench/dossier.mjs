// npm run bench -- dossier: one of a hundred invented texts with pictures, as each kind of file that takes long.
import { mkdtempSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { fill, id, openLibrary, WORDS } from './invented-library.mjs';

const root = path.resolve(import.meta.dirname, '..');
const sharp = createRequire(path.join(root, 'server/package.json'))('sharp');
const [TEXTS, PICTURES_EACH] = [100, 3];
const [WIDTH, HEIGHT] = [1600, 1067];
let made = 0;
let softened;

const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-bench-'));
try {
  await measure();
} finally {
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);

async function measure() {
  const { database, account, library, files } = await openLibrary(folder, 'one');
  const { dossierFile } = await import(path.join(root, 'server/src/publish/documents/files.ts'));
  const { dossierShelf } = await import(path.join(root, 'server/src/publish/dossiers.ts'));
  const { changeMaker, dossierKind, entryKind } = await import(path.join(root, 'core/src/records/index.ts'));
  const { ranksAt } = await import(path.join(root, 'core/src/dossier/index.ts'));
  const { createClock } = await import(path.join(root, 'core/src/sync/index.ts'));
  const hashes = [];
  for (let n = 0; n < TEXTS * PICTURES_EACH; n++) hashes.push(await files.put(await photograph(n)));
  await library.change((write) => write.putPictures(hashes.map((hash) => ({ hash, bytes: 1 }))));
  await fill({ library }, TEXTS, (n) => hashes.slice(n * PICTURES_EACH, (n + 1) * PICTURES_EACH));
  const make = changeMaker({ clock: createClock('bench', Date.now), newId: () => id(++made, 7), now: Date.now });
  const begun = make.dossier({ title: 'A hundred' });
  const { ranks } = ranksAt([], 0, TEXTS);
  await library.change(async (write) => {
    await write.putRecord(dossierKind, dossierKind.apply(undefined, begun));
    for (const [n, rank] of ranks.entries()) {
      const part = { kind: 'item', itemId: id(n, 2) };
      await write.putRecord(entryKind, entryKind.apply(undefined, make.entry(begun.dossierId, part, { rank })));
    }
  });
  const open = await dossierShelf(database, { findable: () => null, now: Date.now }).open(account.id, begun.dossierId);
  console.log(
    `A dossier of ${TEXTS} invented texts of ${WORDS} words, ${PICTURES_EACH} pictures of ${WIDTH} by ${HEIGHT} each, as a file\n`,
  );
  console.log('| as | s | MB | what else waits at most, ms |');
  console.log('|---|---|---|---|');
  for (const format of ['epub', 'docx', 'html', 'xlsx', 'markdown']) {
    const delay = monitorEventLoopDelay({ resolution: 5 });
    delay.enable();
    const from = performance.now();
    const { content } = await dossierFile(open, format, { library, files, isWanted: () => true, step: () => {} });
    const seconds = ((performance.now() - from) / 1000).toFixed(1);
    delay.disable();
    console.log(`| ${format} | ${seconds} | ${(content.length / 1e6).toFixed(1)} | ${Math.round(delay.max / 1e6)} |`);
  }
}

/** As heavy as a photograph: noise, softened; another part of it each time. */
async function photograph(n) {
  return sharp(await noise(), { raw: { width: WIDTH + 400, height: HEIGHT, channels: 3 } })
    .extract({ left: n, top: 0, width: WIDTH, height: HEIGHT })
    .webp({ quality: 75 })
    .toBuffer();
}

async function noise() {
  const create = { width: WIDTH + 400, height: HEIGHT, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 40 } };
  softened ??= await sharp(await sharp({ create }).png({ compressionLevel: 0 }).toBuffer())
    .blur(2)
    .raw()
    .toBuffer();
  return softened;
}
