// npm test: installs what tests need, then check, unit and end-to-end tests; the last line adds up all runners.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt, ensureChromium, ensureFromDebian, ensureInstalled, root } from './steps.mjs';

ensureInstalled();
const chromium = ensureChromium();
// Measures how loud the voices are; where it cannot be had, that one test is skipped.
ensureFromDebian('ffmpeg');
const results = path.join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const total = { passed: 0, failed: 0 };
const add = (passed, failed) => {
  total.passed += passed;
  total.failed += failed;
};
const run = (command, words, cwd = root) =>
  spawnSync(command, words, { cwd, stdio: ['ignore', 'inherit', 'inherit'] }).status ?? 1;
const report = (name) => {
  try {
    return JSON.parse(readFileSync(path.join(results, name), 'utf8'));
  } catch {
    console.error(`${name} was not written: the runner did not get as far as a result.`);
    return null;
  }
};

console.log('— check');
const check = spawnSync(process.execPath, ['scripts/check.mjs'], {
  cwd: root,
  encoding: 'utf8',
  maxBuffer: 1e8,
});
process.stdout.write(check.stdout + check.stderr);
const counted = /check: (\d+) passed, (\d+) failed/.exec(check.stdout);
add(Number(counted?.[1] ?? 0), Number(counted?.[2] ?? 1));

console.log('— unit');
run('node_modules/.bin/jest', [
  '--json',
  `--outputFile=${path.join(results, 'unit.json')}`,
  '--silent',
  // Left to itself it keeps one core free, which here is half of them.
  '--maxWorkers=100%',
  // How much of the code the unit tests run: printed, and nothing is made to depend on it.
  '--coverage',
  '--coverageReporters=text-summary',
]);
const unit = report('unit.json');
add(unit?.numPassedTests ?? 0, unit ? unit.numFailedTests + unit.numRuntimeErrorTestSuites : 1);

console.log('— end to end');
if (chromium === null) add(0, 1);
else {
  ensureBuilt();
  run(path.join(root, 'node_modules/.bin/playwright'), ['test'], path.join(root, 'e2e'));
  const e2e = report('e2e.json');
  if (e2e?.stats.flaky) console.log(`${e2e.stats.flaky} passed at the second try: named above as flaky.`);
  add((e2e?.stats.expected ?? 0) + (e2e?.stats.flaky ?? 0), e2e ? e2e.stats.unexpected + e2e.errors.length : 1);
}

console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
