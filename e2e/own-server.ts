import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect } from '@playwright/test';
import { SERVER_WORDS } from '../scripts/steps.mjs';
import { SMALL_WEB_PORT } from './ports';

export const root = path.resolve(import.meta.dirname, '..');

/** A server that a test has for itself: it may be killed, locked out or filled. */
export interface OwnServer {
  origin: string;
  env: NodeJS.ProcessEnv;
  start(): Promise<void>;
  /** What it has printed so far. */
  output(): string;
  /** Its process. */
  pid(): number;
  /** @returns the exit code; null when a signal ended it */
  end(signal: 'SIGTERM' | 'SIGKILL'): Promise<number | null>;
  /** Ends it, and takes its data away. */
  clear(): Promise<void>;
}

export function ownServer(port: number, settings: Record<string, string> = {}): OwnServer {
  const data = mkdtempSync(path.join(tmpdir(), 'dorvel-own-'));
  const origin = `http://127.0.0.1:${port}`;
  const env = {
    ...process.env,
    PORT: String(port),
    DORVEL_DATA: data,
    DORVEL_ALLOW_HOSTS: `*.localhost:${SMALL_WEB_PORT}`,
    LOG_LEVEL: 'silent',
    ...settings,
  };
  let child: ChildProcess | null = null;
  let output = '';
  const end: OwnServer['end'] = (signal) =>
    new Promise((resolve) => {
      if (child?.exitCode !== null) return resolve(null);
      child.once('exit', (code) => resolve(code));
      child.kill(signal);
    });
  return {
    origin,
    env,
    end,
    output: () => output,
    pid: () => child?.pid ?? 0,
    async start() {
      child = spawn(process.execPath, SERVER_WORDS, {
        cwd: root,
        env,
        stdio: ['ignore', 'pipe', 'pipe'],
      });
      for (const stream of [child.stdout, child.stderr]) stream?.on('data', (part) => (output += String(part)));
      const healthy = () =>
        fetch(`${origin}/readyz`).then(
          (response) => response.ok,
          () => false,
        );
      await expect.poll(healthy, { timeout: 60_000 }).toBe(true);
    },
    async clear() {
      await end('SIGKILL');
      rmSync(data, { recursive: true, force: true });
    },
  };
}
