// Builds the web workers, and the voice that ships: a worker, its engine, and the voices' files beside them.
import { copyFile, mkdir, readdir, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { build } from 'esbuild';

const app = path.resolve(import.meta.dirname, '..');
const require = createRequire(import.meta.url);

/** Writes public/voice: worker, engine and the voices' own files. The app finds them there under names that never change. */
export async function buildVoice() {
  const target = path.join(app, 'public/voice');
  await rm(target, { recursive: true, force: true });
  await mkdir(target, { recursive: true });
  const engine = path.dirname(require.resolve('@echogarden/svoxpico-wasm'));
  await copyFile(path.join(engine, 'svoxpico.wasm'), path.join(target, 'svoxpico.wasm'));
  const voices = path.join(app, 'voices');
  for (const file of await readdir(voices)) await copyFile(path.join(voices, file), path.join(target, file));
  await build({
    ...WORKER,
    entryPoints: [path.join(app, 'src/device/voice/voice.worker.ts')],
    outfile: path.join(target, 'worker.js'),
    // What the engine would use under Node.
    external: ['module', 'fs', 'path', 'url'],
  });
}

/** Writes public/workers: what relates texts to one another, what finds in them, and what reads files from elsewhere. */
export async function buildTextWorkers() {
  const target = path.join(app, 'public/workers');
  await rm(target, { recursive: true, force: true });
  const entries = ['relate', 'find', 'bring-in'].map((name) => [
    name,
    path.join(app, `src/device/workers/${name}/${name}.worker.ts`),
  ]);
  // What several stand on is a part of its own, so that it is on the device once.
  await build({ ...WORKER, entryPoints: Object.fromEntries(entries), outdir: target, splitting: true });
}

const WORKER = {
  bundle: true,
  minify: true,
  format: 'esm',
  target: 'es2022',
  define: { 'process.env.NODE_ENV': '"production"' },
  logLevel: 'error',
};
