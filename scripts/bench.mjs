// npm run bench: side-by-side measurements; bench/ has packages of its own, which the product never sees.
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { ensureChromium, ensureInstalled, root } from './steps.mjs';

ensureInstalled();
if (!existsSync(path.join(root, 'bench/node_modules')))
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: path.join(root, 'bench'),
    stdio: 'inherit',
  });
const only = process.argv[2];
const run = (name, words) => {
  if (only && only !== name) return;
  execFileSync(process.execPath, words, { cwd: root, stdio: 'inherit' });
  console.log('');
};
run('extraction', ['--import', 'tsx', 'bench/extraction.mjs']);
run('extract', ['--import', 'tsx', 'bench/extract.mjs', ...process.argv.slice(3)]);
run('related', ['--import', 'tsx', 'bench/related.mjs']);
run('phrases', ['--import', 'tsx', 'bench/phrases.mjs']);
run('new-to-you', ['--import', 'tsx', 'bench/new-to-you.mjs']);
run('search', ['--expose-gc', '--import', 'tsx', 'bench/search.mjs', ...process.argv.slice(3)]);
run('feeds', ['--import', 'tsx', 'bench/feeds.mjs', ...process.argv.slice(3)]);
run('archive', ['--import', 'tsx', 'bench/archive.mjs']);
run('dossier', ['--import', 'tsx', 'bench/dossier.mjs']);
run('resurface', ['--import', 'tsx', 'bench/resurface.mjs']);
// Builds pages and needs scikit-learn; see there.
if (only === 'came-through')
  run('came-through', ['--import', 'tsx', 'bench/came-through.mjs', ...process.argv.slice(3)]);
if (only === 'database') run('database', ['--import', 'tsx', 'bench/database.mjs', ...process.argv.slice(3)]);
if (only === 'growth') run('growth', ['bench/growth.mjs', ...process.argv.slice(3)]);
if (only === 'soak') run('soak', ['--import', 'tsx', 'bench/soak.mjs', ...process.argv.slice(3)]);
if (only === 'device') run('device', ['--import', 'tsx', 'bench/device.mjs', ...process.argv.slice(3)]);
if (only === 'structure') run('structure', ['--import', 'tsx', 'bench/structure.mjs', ...process.argv.slice(3)]);
if (only === 'judge') run('judge', ['--import', 'tsx', 'bench/judge.mjs', ...process.argv.slice(3)]);
// On pages that are their publishers', so that whoever measures brings them.
if (only === 'facts') run('facts', ['--import', 'tsx', 'bench/facts.mjs', ...process.argv.slice(3)]);
// Seven minutes, and Debian's packages beside it; see there.
if (only === 'picture-words')
  run('picture-words', ['--import', 'tsx', 'bench/picture-words.mjs', ...process.argv.slice(3)]);
if (only === 'picture-kinds')
  run('picture-kinds', ['--import', 'tsx', 'bench/picture-kinds.mjs', ...process.argv.slice(3)]);
if (only === 'voice') run('voice', ['--import', 'tsx', 'bench/voice.mjs', ...process.argv.slice(3)]);
run('size', ['bench/size.mjs']);
if (ensureChromium()) {
  run('first-visit', ['--import', 'tsx', 'bench/first-visit.mjs']);
  run('reading', ['--import', 'tsx', 'bench/reading.mjs']);
  run('lists', ['--import', 'tsx', 'bench/lists.mjs']);
  run('live-echoes', ['--import', 'tsx', 'bench/live-echoes.mjs']);
}
