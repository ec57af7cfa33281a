import { execFileSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import path from 'node:path';
import { DATA_OF_DEMO, LIBRARY_OF_DEMO } from './ports';

/** Before all tests: sets apart the library that the demo has just been given, for each worker to have a copy of. */
export default function keepDemo(): void {
  rmSync(LIBRARY_OF_DEMO, { recursive: true, force: true });
  execFileSync(process.execPath, ['scripts/command.mjs', 'backup', 'backup', LIBRARY_OF_DEMO], {
    cwd: path.resolve(import.meta.dirname, '..'),
    env: { ...process.env, DORVEL_DATA: DATA_OF_DEMO },
  });
}
