// Builds the app for the web: fonts and the voice into public/, Metro's export, then the service worker with its precache list.
import { execFileSync } from 'node:child_process';
import { cp, mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { build } from 'esbuild';
import { injectManifest } from 'workbox-build';
import { compress } from './compress.mjs';
import { buildTextWorkers, buildVoice } from './workers.mjs';

const app = path.resolve(import.meta.dirname, '..');
const require = createRequire(import.meta.url);

/** Family packages and the style sheets taken from each. */
const FONTS = {
  '@fontsource-variable/atkinson-hyperlegible-next': ['wght.css', 'wght-italic.css'],
  '@fontsource-variable/literata': ['wght.css', 'wght-italic.css'],
  '@fontsource-variable/source-serif-4': ['wght.css', 'wght-italic.css'],
  '@fontsource-variable/noto-naskh-arabic': ['wght.css'],
  '@fontsource-variable/noto-sans-jp': ['wght.css'],
  '@fontsource/opendyslexic': ['latin-400.css', 'latin-400-italic.css', 'latin-700.css'],
};

async function copyFonts() {
  const target = path.join(app, 'public/fonts');
  await rm(target, { recursive: true, force: true });
  await mkdir(target, { recursive: true });
  const sheets = [];
  for (const [name, files] of Object.entries(FONTS)) {
    const source = path.dirname(require.resolve(`${name}/package.json`));
    const folder = path.basename(name);
    for (const file of files) {
      // woff2 is read by every browser that runs the app.
      const sheet = (await readFile(path.join(source, file), 'utf8')).replace(
        /,\s*url\([^)]*\.woff\) format\('woff'\)/g,
        '',
      );
      for (const [, font] of sheet.matchAll(/url\(\.\/files\/([^)]+)\)/g))
        await cp(path.join(source, 'files', font), path.join(target, folder, font));
      sheets.push(sheet.replaceAll('url(./files/', `url(/fonts/${folder}/`));
    }
  }
  await writeFile(path.join(target, 'fonts.css'), sheets.join('\n'));
}

async function buildServiceWorker() {
  const dist = path.join(app, 'dist');
  const unfilled = path.join(dist, 'sw.src.js');
  await build({
    entryPoints: [path.join(app, 'src/service-worker/main.ts')],
    outfile: unfilled,
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2020',
    define: { 'process.env.NODE_ENV': '"production"' },
  });
  const { count, size, warnings } = await injectManifest({
    swSrc: unfilled,
    swDest: path.join(dist, 'sw.js'),
    globDirectory: dist,
    // Latin and Arabic at once; the other alphabets' fonts are kept from their first use on.
    globPatterns: [
      '**/*.{html,js,css,png,ico,webmanifest}',
      'fonts/**/*-{latin,latin-ext,arabic}-*.woff2',
      'voice/*.wasm',
    ],
    globIgnores: ['sw.js', 'sw.src.js', 'metadata.json'],
    maximumFileSizeToCacheInBytes: 12 * 1024 * 1024,
    dontCacheBustURLsMatching: /-[0-9a-f]{32}\.(js|css)$/,
  });
  await rm(unfilled);
  for (const warning of warnings) console.warn(warning);
  console.log(`sw.js precaches ${count} files, ${Math.round(size / 1024)} KiB`);
}

/**
 * Tells V8 to compile what is fetched first as it comes in, beside the page's own work, and not function by function once it runs
 * (explicit compile hints: V8's own comment, which other engines pass over).
 */
async function hintCompiling() {
  const folder = path.join(app, 'dist/_expo/static/js/web');
  for (const name of (await readdir(folder)).filter((each) => /^(?:entry|__common)-.*\.js$/.test(each))) {
    const file = path.join(folder, name);
    await writeFile(file, `//# allFunctionsCalledOnLoad\n${await readFile(file, 'utf8')}`);
  }
}

await copyFonts();
await buildVoice();
await buildTextWorkers();
if (!process.argv.includes('--assets-only')) {
  execFileSync('npx', ['expo', 'export', '--platform', 'web', '--output-dir', 'dist'], {
    cwd: app,
    stdio: 'inherit',
    env: { ...process.env, CI: '1', EXPO_NO_TELEMETRY: '1' },
  });
  await hintCompiling();
  await buildServiceWorker();
  await compress(path.join(app, 'dist'));
}
