import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const SCRIPT = path.join(__dirname, '../../scripts/audit.mjs');
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What npm writes of packages, as far as it is read (npm's documentation of `audit --json`, version 2). */
const report = (...severities: string[]) =>
  JSON.stringify({
    auditReportVersion: 2,
    vulnerabilities: Object.fromEntries(
      severities.map((severity, n) => [`p${n}`, { name: `p${n}`, severity, range: '<2' }]),
    ),
    metadata: { vulnerabilities: { total: severities.length } },
  });

it.each([
  ['nothing known', report(), 0, '0 unsafe'],
  ['what is low or moderate', report('low', 'moderate'), 0, '0 unsafe'],
  ['what is high', report('low', 'high'), 1, 'p1 <2: high'],
  ['what is critical', report('critical'), 1, 'p0 <2: critical'],
  ['a registry that refuses', JSON.stringify({ message: 'Method Not Allowed', error: {} }), 0, 'not asked'],
  ['a registry that does not answer', '', 0, 'not asked'],
])('of %s', (_what, written, code, says) => {
  const file = path.join(folder, 'report.json');
  writeFileSync(file, written);
  const { status, stdout } = spawnSync(process.execPath, [SCRIPT, file], { encoding: 'utf8' });
  expect([status, stdout.includes(says)]).toEqual([code, true]);
});
