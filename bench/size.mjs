// The exported app beside an empty Expo Router + NativeWind app: JavaScript and CSS, gzip.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { ensureBuilt, root } from '../scripts/steps.mjs';

const gzipped = (folder) =>
  readdirSync(folder, { recursive: true })
    .filter((name) => /\.(js|css)$/.test(name) && !/(^|\/)sw\.js$|fonts\.css$/.test(name))
    .reduce((sum, name) => sum + gzipSync(readFileSync(path.join(folder, name))).length, 0);

ensureBuilt();
const empty = path.join(root, 'bench/empty-app');
const out = path.join(root, 'bench/.work/empty');
execFileSync('npx', ['expo', 'export', '--platform', 'web', '--output-dir', out], {
  cwd: empty,
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, CI: '1', EXPO_NO_TELEMETRY: '1' },
});
const ours = gzipped(path.join(root, 'app/dist'));
const theirs = gzipped(out);
console.log('Size, JavaScript and CSS, gzip:');
console.log(`  Dorvel                            ${(ours / 1024).toFixed(0)} KiB`);
console.log(`  empty Expo Router + NativeWind    ${(theirs / 1024).toFixed(0)} KiB`);
console.log(`  ratio                             ${(ours / theirs).toFixed(2)}`);
