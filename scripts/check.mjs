// npm run check: types, lint, formatting, import rules, dead code; each named, all run, the outcome added up.
import { spawnSync } from 'node:child_process';
import { root } from './steps.mjs';

const CHECKS = [
  ...['core', 'server', 'demo', 'e2e', 'app', 'app/src/service-worker', 'extension'].map((folder) => [
    `types of ${folder}`,
    'tsc',
    '-p',
    folder,
  ]),
  ['lint', 'eslint', '.'],
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
];

let failed = 0;
for (const [name, tool, ...words] of CHECKS) {
  const before = Date.now();
  const { status, stdout, stderr } = spawnSync(`node_modules/.bin/${tool}`, words, {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  console.log(`${status === 0 ? 'ok  ' : 'FAIL'} ${name} (${((Date.now() - before) / 1000).toFixed(1)} s)`);
  const warnings = /\((0 errors, )(\d+ warnings?)\)/.exec(stdout)?.[2];
  if (warnings) console.log(`     ${warnings}, told by: npx ${tool} ${words.join(' ')}`);
  if (status === 0) continue;
  failed += 1;
  console.log(`${stdout}${stderr}`);
}
console.log(`check: ${CHECKS.length - failed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
