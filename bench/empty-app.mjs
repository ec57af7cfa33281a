import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { root } from '../scripts/steps.mjs';

/** Exports the app of Expo Router and NativeWind that does nothing. @returns the folder of its files */
export function buildEmptyApp() {
  const out = path.join(root, 'bench/.work/empty');
  execFileSync('npx', ['expo', 'export', '--platform', 'web', '--output-dir', out], {
    cwd: path.join(root, 'bench/empty-app'),
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, CI: '1', EXPO_NO_TELEMETRY: '1' },
  });
  return out;
}
