// The steps that the commands share: installing, building, starting processes and waiting for them.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

export const root = path.resolve(import.meta.dirname, '..');
const NEEDED_NODE = [20, 19];

/** Ends with a clear message when Node is too old to run any of this. */
export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > NEEDED_NODE[0] || (major === NEEDED_NODE[0] && minor >= NEEDED_NODE[1])) return;
  console.error(`Dorvel needs Node ${NEEDED_NODE.join('.')} or later; this is ${process.versions.node}.`);
  process.exit(1);
}

/** Installs the packages of the lock file, unless this very lock file has been installed here already. */
export function ensureInstalled() {
  requireNode();
  const lock = sha256([readFileSync(path.join(root, 'package-lock.json'))]);
  if (stampOf('node_modules/.dorvel-installed') === lock) return;
  console.log('Installing packages (a minute or two)…');
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  writeStamp('node_modules/.dorvel-installed', lock);
}

/** Builds the app for the web and the extension, unless what it is made of has not changed since the last build. */
export function ensureBuilt() {
  const parts = ['app/src', 'app/public', 'app/scripts', 'core/src', 'extension/src', 'extension/scripts']
    .flatMap(filesBelow)
    .filter((file) => !/\/public\/(fonts|voice|workers)\//.test(file));
  const configs = ['app', 'extension'].flatMap((folder) =>
    readdirSync(path.join(root, folder))
      .filter((name) => /\.(json|c?js|css)$/.test(name))
      .map((name) => path.join(root, folder, name)),
  );
  const sources = sha256(
    [...parts, ...configs, path.join(root, 'package-lock.json')].flatMap((file) => [
      file,
      readFileSync(file),
    ]),
  );
  if (stampOf('app/dist/.stamp') === sources) return;
  console.log('Building the app and the extension (about a minute)…');
  execFileSync('npm', ['run', '--silent', 'build'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
  writeStamp('app/dist/.stamp', sources);
}

/** Finds Debian's Chromium, and installs it where it is missing and we may. @returns its path, or null */
export function ensureChromium() {
  const found = () =>
    ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(existsSync) ?? null;
  if (found()) return found();
  const isRoot = process.getuid?.() === 0;
  const sudo = !isRoot && spawnSync('sudo', ['-n', 'true']).status === 0;
  if (!isRoot && !sudo) {
    console.error(
      'The end-to-end tests need Chromium, and this user may not install it. Install it with: sudo apt-get install chromium',
    );
    return null;
  }
  console.log('Installing Chromium from Debian’s packages…');
  const apt = (...words) =>
    spawnSync(sudo ? 'sudo' : 'apt-get', sudo ? ['apt-get', ...words] : words, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', 'chromium');
  return found();
}

/** Starts a process of ours that ends with us. */
export function start(command, words, env = {}, cwd = root) {
  const child = spawn(command, words, { cwd, stdio: 'inherit', env: { ...process.env, ...env } });
  const end = () => child.kill('SIGTERM');
  process.on('SIGTERM', end);
  process.on('SIGINT', end);
  process.on('exit', end);
  return child;
}

/** Short-lived values get less room than Node gives by itself: a third less memory, for no time that could be measured. */
export const NODE_WORDS = ['--max-semi-space-size=4', '--import', 'tsx'];

/** Runs a TypeScript file of ours. */
export function startTs(file, env) {
  return start(process.execPath, [...NODE_WORDS, path.join(root, file)], env);
}

/** Waits until an address answers. */
export async function waitFor(address, seconds = 60) {
  for (let tries = 0; tries < seconds * 10; tries++) {
    try {
      if ((await fetch(address)).status < 500) return;
    } catch {
      // Not up yet; that is what we are waiting for.
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${address} did not answer within ${seconds} seconds`);
}

function filesBelow(folder) {
  return readdirSync(path.join(root, folder), { recursive: true })
    .map((name) => path.join(root, folder, name))
    .filter((file) => statSync(file).isFile() && !file.includes('.test.'))
    .sort();
}

function sha256(parts) {
  const hash = createHash('sha256');
  for (const part of parts) hash.update(part);
  return hash.digest('hex');
}

function stampOf(file) {
  const stamp = path.join(root, file);
  return existsSync(stamp) ? readFileSync(stamp, 'utf8') : null;
}

function writeStamp(file, stamp) {
  mkdirSync(path.dirname(path.join(root, file)), { recursive: true });
  writeFileSync(path.join(root, file), stamp);
}
