// npm run check: types, lint, formatting, import rules, dead code, unsafe packages; each named, all run, the outcome added up.
import { execFile } from 'node:child_process';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { root } from './steps.mjs';

/** The longest first: what runs beside it takes about as long together. */
const CHECKS = [
  ['lint', 'eslint', '.'],
  ...['core', 'server', 'demo', 'e2e', 'app', 'app/src/service-worker', 'extension'].map((folder) => [
    `types of ${folder}`,
    'tsc',
    '-p',
    folder,
  ]),
  ['formatting', 'prettier', '--check', '--log-level', 'warn', '.'],
  [
    'import rules',
    'depcruise',
    'core/src',
    'server/src',
    'app/src',
    'extension/src',
    'demo',
    'e2e',
    '--config',
    '.dependency-cruiser.cjs',
    '--output-type',
    'err',
  ],
  ['dead code', 'knip', '--no-progress'],
  ['unsafe packages', process.execPath, 'scripts/audit.mjs'],
];

let failed = 0;

/** Runs one check and tells of it when it has ended. */
const run = ([name, tool, ...words]) =>
  new Promise((resolve) => {
    const before = Date.now();
    execFile(
      path.isAbsolute(tool) ? tool : `node_modules/.bin/${tool}`,
      words,
      { cwd: root, maxBuffer: 1e8 },
      (error, stdout, stderr) => {
        console.log(`${error ? 'FAIL' : 'ok  '} ${name} (${((Date.now() - before) / 1000).toFixed(1)} s)`);
        const warnings = /\((0 errors, )(\d+ warnings?)\)/.exec(stdout)?.[2];
        if (stdout.startsWith('not asked')) console.log(`     ${stdout.trim()}`);
        if (warnings) console.log(`     ${warnings}, told by: npx ${tool} ${words.join(' ')}`);
        if (error) {
          failed += 1;
          console.log(
            `${error.code === undefined || typeof error.code === 'string' ? error.message : ''}${stdout}${stderr}`,
          );
        }
        resolve();
      },
    );
  });

const left = [...CHECKS];
const hand = async () => {
  for (let next = left.shift(); next; next = left.shift()) await run(next);
};
await Promise.all(Array.from({ length: availableParallelism() }, hand));
console.log(`check: ${CHECKS.length - failed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
