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

/** Builds all that runs as it was built: the server, the app for the web, the extension. */
export function ensureBuilt() {
  ensureServerBuilt();
  const changed = changedSince('app/dist/.stamp', ['app', 'extension']);
  if (!changed) return;
  console.log('Building the app and the extension (about a minute)…');
  for (const name of ['app', 'extension']) build(name);
  changed.remember();
}

/** Builds the server and its commands, a matter of a second. */
export function ensureServerBuilt() {
  const changed = changedSince('server/dist/.stamp', ['server']);
  if (!changed) return;
  build('server');
  changed.remember();
}

function build(name) {
  execFileSync('npm', ['run', '--silent', 'build', '--workspace', name], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}

/** Null when what the parts are made of has not changed since they were built last, wherever this folder was then. */
function changedSince(stampFile, parts) {
  const folders = [
    'core/src',
    ...parts.flatMap((part) => ['src', 'public', 'scripts', 'voices'].map((name) => path.join(part, name))),
  ];
  const sources = folders
    .filter((folder) => existsSync(path.join(root, folder)))
    .flatMap(filesBelow)
    .filter((file) => !/\/public\/(fonts|voice|workers)\//.test(file));
  const configs = parts.flatMap((part) =>
    readdirSync(path.join(root, part))
      .filter((name) => /\.(json|c?js|css)$/.test(name))
      .map((name) => path.join(root, part, name)),
  );
  const files = [...sources, ...configs, path.join(root, 'package-lock.json')];
  const stamp = sha256(files.flatMap((file) => [path.relative(root, file), readFileSync(file)]));
  return stampOf(stampFile) === stamp ? null : { remember: () => writeStamp(stampFile, stamp) };
}

/** Finds Debian's Chromium, and installs it where it is missing and we may. @returns its path, or null */
export function ensureChromium() {
  return ensureFromDebian('chromium', ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome']);
}

/** Finds a command of Debian's, and installs its package where it is missing and we may. @returns its path, or null */
export function ensureFromDebian(name, places = [`/usr/bin/${name}`], packages = [name]) {
  const found = () => places.find(existsSync) ?? null;
  if (found()) return found();
  const isRoot = process.getuid?.() === 0;
  const sudo = !isRoot && spawnSync('sudo', ['-n', 'true']).status === 0;
  if (!isRoot && !sudo) {
    console.error(
      `The tests need ${name}, and this user may not install it. Install it with: sudo apt-get install ${packages.join(' ')}`,
    );
    return null;
  }
  console.log(`Installing ${name} from Debian’s packages…`);
  const apt = (...words) =>
    spawnSync(sudo ? 'sudo' : 'apt-get', sudo ? ['apt-get', ...words] : words, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
  return found();
}

const children = new Set();
let stopping = false;
/** The server ends within 10 s; whatever is still there after this would never end. */
const PATIENCE_MS = 12_000;

/** Starts a process of ours. When we are told to end, it is told so too, and we end after it. */
export function start(command, words, env = {}, cwd = root) {
  if (children.size === 0) for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  const child = spawn(command, words, { cwd, stdio: 'inherit', env: { ...process.env, ...env } });
  children.add(child);
  child.on('exit', () => children.delete(child));
  return child;
}

/** Ends all that was started here, then this process. */
export async function stop(code) {
  if (stopping) return;
  stopping = true;
  const ended = [...children].map((child) => new Promise((resolve) => child.once('exit', resolve)));
  const tell = (signal) => children.forEach((child) => child.kill(signal));
  tell('SIGTERM');
  setTimeout(() => tell('SIGKILL'), PATIENCE_MS).unref();
  await Promise.all(ended);
  process.exit(code);
}

/** Runs a TypeScript file of ours: the demo's parts. What others run is built. */
export function startTs(file, env) {
  return start(process.execPath, ['--import', 'tsx', path.join(root, file)], env);
}

/** Short-lived values get less room than Node gives by itself: a third less memory, for no time that could be measured. */
export const SERVER_WORDS = [
  '--max-semi-space-size=4',
  '--enable-source-maps',
  path.join(root, 'server/dist/main.mjs'),
];

/** Starts the server as it was built. */
export function startServer(env) {
  return start(process.execPath, SERVER_WORDS, env);
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
