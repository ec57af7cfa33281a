// The exported app beside an empty Expo Router + NativeWind app: JavaScript and CSS, gzip.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { ensureBuilt, root } from '../scripts/steps.mjs';
import { buildEmptyApp } from './empty-app.mjs';

const gzipped = (folder, wanted) =>
  readdirSync(folder, { recursive: true })
    .filter((name) => /\.(js|css|data)$/.test(name) && !/(^|\/)sw\.js$|fonts\.css$/.test(name))
    .filter((name) => wanted.test(name))
    .reduce((sum, name) => sum + gzipSync(readFileSync(path.join(folder, name))).length, 0);

ensureBuilt();
const out = buildEmptyApp();
const dist = path.join(root, 'app/dist');
// What the first screen needs; the rest comes when it is asked for, or in the background.
const FIRST = /(?:entry|runtime|common)-|\.css$/;
const ours = gzipped(dist, FIRST);
const theirs = gzipped(out, FIRST);
console.log('Size of what the first screen needs, JavaScript and CSS, gzip:');
console.log(`  Dorvel                            ${(ours / 1024).toFixed(0)} KiB`);
console.log(`  empty Expo Router + NativeWind    ${(theirs / 1024).toFixed(0)} KiB`);
console.log(`  ratio                             ${(ours / theirs).toFixed(2)}`);
const kib = (wanted) => `${(gzipped(dist, wanted) / 1024).toFixed(0)} KiB`;
console.log(
  `  later: reading and hearing ${kib(/reading-part-/)}, other screens ${kib(/later-screens-/)}, the voice ${kib(/^voice\//)}, ` +
    `relating ${kib(/^workers\//)}`,
);
