// Builds the server: JavaScript that Node runs as it is, one file for each process, into dist/.
import { existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { build } from 'esbuild';

const server = path.resolve(import.meta.dirname, '..');
const out = path.join(server, 'dist');
const made = path.join(server, `.dist.${process.pid}`);

const COMMON = {
  absWorkingDir: server,
  outbase: 'src',
  outdir: made,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  logLevel: 'error',
};

/** Packages stay where npm put them, if Node finds the same ones from dist/: core has some of its own. */
const packagesOutside = {
  name: 'packages-outside',
  setup({ onResolve }) {
    const ownOfCore = path.resolve(server, '../core/node_modules');
    onResolve({ filter: /^[^./]/ }, ({ path: name, importer, kind }) => {
      // What is brought in with a package of core's own comes along with it.
      if (kind === 'entry-point' || name.startsWith('@dorvel/') || importer.includes('node_modules')) return undefined;
      const folder = name.split('/', name.startsWith('@') ? 2 : 1).join('/');
      return existsSync(path.join(ownOfCore, folder)) ? undefined : { path: name, external: true };
    });
  },
};

await rm(made, { recursive: true, force: true });
await Promise.all([
  build({
    ...COMMON,
    entryPoints: [
      'src/main.ts',
      'src/commands/account.ts',
      'src/commands/backup.ts',
      'src/commands/doctor.ts',
      'src/commands/extract.ts',
      'src/archive/make.worker.ts',
      'src/publish/speak.worker.ts',
    ],
    plugins: [packagesOutside],
  }),
  // These are begun again each time that one is killed: in one file, they take half the memory and half the time to begin.
  build({
    ...COMMON,
    entryPoints: [
      'src/tasks/texts.child.ts',
      'src/tasks/pictures.child.ts',
      'src/tasks/looking.child.ts',
      'src/apart/guard.mjs',
    ],
    entryNames: 'tasks/[name]',
    // What brings files of its own, or is written for `require`.
    external: [
      'file-type',
      'pdfjs-dist',
      'sharp',
      'tesseract.js',
      'mailparser',
      'html-encoding-sniffer',
      'whatwg-encoding',
    ],
  }),
]);
// Renamed into place, file by file: a server that is starting meanwhile finds the old ones or the new.
for (const file of await readdir(made, { recursive: true, withFileTypes: true })) {
  if (!file.isFile()) continue;
  const from = path.join(file.parentPath, file.name);
  const to = path.join(out, path.relative(made, from));
  await mkdir(path.dirname(to), { recursive: true });
  await rename(from, to);
}
await rm(made, { recursive: true });
