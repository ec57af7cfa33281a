// Builds the web workers, and the voice that ships: a synthesizer with its data trimmed to the languages that Dorvel speaks.
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { build } from 'esbuild';

const app = path.resolve(import.meta.dirname, '..');
const require = createRequire(import.meta.url);

/** What is kept of the synthesizer's data: the sounds, and the dictionary and rules of each language. */
const KEPT = /\/(?:phon\w+|intonations|(?:en|de|fr|es)_dict|lang\/(?:gmw\/(?:en|en-US|de)|roa\/(?:fr|es)))$/;
const DATA_FILE = /\{filename:"([^"]+)",start:(\d+),end:(\d+)\}/g;

/** Writes public/voice: worker, engine and data. The app finds them there under names that never change. */
export async function buildVoice() {
  const target = path.join(app, 'public/voice');
  await rm(target, { recursive: true, force: true });
  await mkdir(target, { recursive: true });
  const engineFile = require.resolve('@echogarden/espeak-ng-emscripten');
  const engine = await readFile(engineFile, 'utf8');
  const data = await readFile(path.join(path.dirname(engineFile), 'espeak-ng.data'));
  const parts = [];
  let at = 0;
  const files = [...engine.matchAll(DATA_FILE)]
    .filter(([, name]) => KEPT.test(name))
    .map(([, filename, start, end]) => {
      const part = data.subarray(Number(start), Number(end));
      parts.push(part);
      const placed = { filename, start: at, end: at + part.length };
      at = placed.end;
      return placed;
    });
  if (files.length !== 13)
    throw new Error(`the synthesizer's data has ${files.length} of the 13 files that the voice needs`);
  const trimmed = engine.replace(
    /\{files:\[[^\]]*\],remote_package_size:\d+\}/,
    JSON.stringify({ files, remote_package_size: at }),
  );
  if (trimmed === engine) throw new Error('the list of data files was not found in the synthesizer');
  await writeFile(path.join(target, 'espeak-ng.js'), trimmed);
  await writeFile(path.join(target, 'espeak-ng.data'), Buffer.concat(parts));
  await bundle('device/voice/voice.worker.ts', path.join(target, 'worker.js'), [
    {
      // The engine finds its data beside itself, so it stays a file of its own.
      name: 'engine-beside-the-worker',
      setup: ({ onResolve }) =>
        onResolve({ filter: /^@echogarden\/espeak-ng-emscripten$/ }, () => ({
          path: './espeak-ng.js',
          external: true,
        })),
    },
  ]);
}

/** Writes public/workers: what relates texts to one another, and what finds in them. */
export async function buildTextWorkers() {
  const target = path.join(app, 'public/workers');
  await rm(target, { recursive: true, force: true });
  const entries = ['relate', 'find'].map((name) => [
    name,
    path.join(app, `src/device/workers/${name}/${name}.worker.ts`),
  ]);
  // What both stand on is a part of its own, so that it is on the device once.
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

function bundle(entry, outfile, plugins = []) {
  return build({ ...WORKER, entryPoints: [path.join(app, 'src', entry)], outfile, plugins });
}
