// npm run reproducible: builds what is committed a second time, in a folder of its own and with caches of its own, and compares each file. Who has
// the sources can so tell whether what they were given was made of them.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureBuilt, ensureInstalled, root } from './steps.mjs';

const BUILT = ['server/dist', 'app/dist', 'extension/dist'];
const run = (program, words, cwd, env = process.env) =>
  execFileSync(program, words, { cwd, env, stdio: ['ignore', 'pipe', 'inherit'], encoding: 'utf8' });

/** The hash of each file of a build. */
function hashesIn(folder) {
  const files = BUILT.flatMap((part) =>
    readdirSync(path.join(folder, part), { recursive: true, withFileTypes: true })
      // Of what it was built, for whoever builds next: no part of it.
      .filter((file) => file.isFile() && file.name !== '.stamp')
      .map((file) => path.relative(folder, path.join(file.parentPath, file.name))),
  );
  const hash = (file) => createHash('sha256').update(readFileSync(path.join(folder, file))).digest('hex'); // prettier-ignore
  return new Map(files.sort().map((file) => [file, hash(file)]));
}

ensureInstalled();
if (run('git', ['status', '--porcelain'], root).trim() !== '') {
  console.log(
    'There are changes that are not committed: what is built of them is not what would be built a second time.',
  );
  process.exit(2);
}
ensureBuilt();
const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-again-'));
try {
  const again = path.join(folder, 'dorvel');
  const caches = path.join(folder, 'caches');
  mkdirSync(caches);
  run('git', ['clone', '--quiet', root, again], folder);
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], again);
  console.log('Building once more (some minutes)…');
  run('npm', ['run', '--silent', 'build'], again, { ...process.env, TMPDIR: caches, CI: '1' });
  const [here, there] = [hashesIn(root), hashesIn(again)];
  const differ = [...new Set([...here.keys(), ...there.keys()])].filter((file) => here.get(file) !== there.get(file));
  for (const file of differ) console.log(`differs: ${file}`);
  const whole = createHash('sha256')
    .update(JSON.stringify([...there]))
    .digest('hex');
  console.log(differ.length === 0 ? `The same: ${there.size} files, ${whole}` : `${differ.length} files differ.`);
  process.exitCode = differ.length === 0 ? 0 : 1;
} finally {
  rmSync(folder, { recursive: true, force: true });
}
