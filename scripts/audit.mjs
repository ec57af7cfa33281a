// Fails when a package that ships is known to be unsafe, high or critical. A registry that does not say so is no failure, and is told.
// node scripts/audit.mjs FILE judges a report that was written before.
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { root } from './steps.mjs';

const [file] = process.argv.slice(2);
const written = file
  ? readFileSync(file, 'utf8')
  : spawnSync('npm', ['audit', '--omit=dev', '--json'], {
      cwd: root,
      encoding: 'utf8',
      maxBuffer: 1e8,
      timeout: 60_000,
    }).stdout;

/** @returns the report; null for what is none: the registry does not answer, or answers something else */
function reportIn(text) {
  try {
    const report = JSON.parse(text);
    return report.metadata?.vulnerabilities ? report : null;
  } catch {
    return null;
  }
}

const report = reportIn(written);
if (!report) {
  console.log('not asked: the registry tells nothing of unsafe packages');
  process.exit(0);
}
const unsafe = Object.values(report.vulnerabilities).filter(({ severity }) => ['high', 'critical'].includes(severity));
for (const { name, severity, range } of unsafe) console.log(`${name} ${range}: ${severity}`);
console.log(`${unsafe.length} unsafe packages`);
process.exit(unsafe.length === 0 ? 0 : 1);
